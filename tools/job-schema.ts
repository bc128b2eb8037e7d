/** Writes docs/job.schema.json anew: `npx tsx tools/job-schema.ts`. A test holds it to the types that it comes from. */
import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { createGenerator } from 'ts-json-schema-generator'

const path = (below: string) => fileURLToPath(new URL(`../${below}`, import.meta.url))

type Schema = { definitions?: Record<string, object> } & Record<string, unknown>

/** A drive sheet has a schema of its own, out of the classes that check it. */
const SHEET = {
  description: 'A drive sheet: see drive-sheet.schema.json.',
  type: 'object',
  required: ['format', 'id', 'name', 'version'],
}

/** JSON Schema of `job.json` in the zip of a job, out of the very types that the code works with. */
export function jobSchema(): object {
  const schema = createGenerator({
    path: path('contract/src/job-file.ts'),
    tsconfig: path('tsconfig.json'),
    type: 'JobFile',
    skipTypeCheck: true,
  }).createSchema('JobFile') as Schema
  return reachable({
    title: 'A job of Moray, layout 1',
    ...schema,
    definitions: { ...schema.definitions, SheetBody: SHEET },
  })
}

/** The definitions that something refers to. */
function reachable(schema: Schema): Schema {
  const all = schema.definitions ?? {}
  const used = new Set<string>()
  const look = (part: unknown) => {
    for (const [, name] of JSON.stringify(part).matchAll(/"#\/definitions\/([^"]+)"/g)) {
      const own = decodeURIComponent(name!)
      if (used.has(own)) continue
      used.add(own)
      look(all[own])
    }
  }
  look({ ...schema, definitions: undefined })
  return { ...schema, definitions: Object.fromEntries(Object.entries(all).filter(([n]) => used.has(n))) }
}

export const JOB_SCHEMA = path('docs/job.schema.json')
export const jobSchemaText = (): string => `${JSON.stringify(jobSchema(), null, 1)}\n`

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync(JOB_SCHEMA, jobSchemaText())
