/** Writes docs/drive-sheet.schema.json anew: `npx tsx tools/sheet-schema.ts`. A test holds it to the classes that it comes from. */
import { writeFileSync } from 'node:fs'
import { sheetSchema } from '../contract/src/schemas.ts'

writeFileSync(
  new URL('../docs/drive-sheet.schema.json', import.meta.url),
  `${JSON.stringify(sheetSchema(), null, 1)}\n`,
)
