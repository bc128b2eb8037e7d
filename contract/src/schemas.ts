import { calculations } from './calculations/registry.ts'
import { writtenEndpoints } from './bodies.ts'
import { schemaOf, type JsonSchema } from './fields/schema.ts'
import { SheetFile } from './sheet/sheet-file.ts'

/** The form of a drive sheet as a file: published, so that other programs can write and read one. */
export const sheetSchema = (): JsonSchema => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'Drive sheet, format 4',
  ...schemaOf(SheetFile),
})

/** JSON Schemas of everything that can be sent: `POST path` for writes, `calc NAME` for calculations. */
export function allSchemas(): Record<string, JsonSchema> {
  const head = { $schema: 'https://json-schema.org/draft/2020-12/schema' }
  const writes = writtenEndpoints.map(
    ({ endpoint, body }) => [`POST ${endpoint.path}`, { ...head, ...schemaOf(body) }] as const,
  )
  const calcs = calculations.map((c): [string, JsonSchema] => {
    const [only, ...others] = c.inputs.map(schemaOf)
    return [`calc ${c.name}`, { ...head, ...(others.length ? { oneOf: [only, ...others] } : only) }]
  })
  return Object.fromEntries([...writes, ...calcs, ['sheet', sheetSchema()] as const])
}
