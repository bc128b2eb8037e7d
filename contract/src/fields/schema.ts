import { factsOfClass, type Class, type FieldFacts } from './describe.ts'
import { MOST_IN_TABLE } from './instantiate.ts'

/** A JSON Schema (draft 2020-12), as far as we use it. */
export type JsonSchema = Record<string, unknown>

const TEXT_PATTERN = '^[^\\u0000-\\u0009\\u000b-\\u001f\\u007f-\\u009f\\u2028-\\u202e\\u2066-\\u2069]*$'
const MOST_NUMBER = 1e6

/** The JSON Schema of a contract class: the same facts that the checks and the forms read. */
export function schemaOf(owner: Class): JsonSchema {
  const fields = [...factsOfClass(owner)]
  return {
    type: 'object',
    additionalProperties: false,
    properties: Object.fromEntries(fields.map(([name, f]) => [name, schemaOfField(f)])),
    required: fields.filter(([, f]) => !f.optional).map(([name]) => name),
  }
}

function schemaOfField(field: FieldFacts): JsonSchema {
  const about = {
    ...(field.what ? { description: field.unit ? `${field.what} (${field.unit})` : field.what } : {}),
    ...(field.default === undefined ? {} : { default: field.default }),
  }
  return { ...about, ...shapeOf(field) }
}

function shapeOf(f: FieldFacts): JsonSchema {
  const number = { type: 'number', minimum: -MOST_NUMBER, maximum: MOST_NUMBER }
  const items = {
    ...(f.least === undefined ? {} : { minItems: f.least }),
    ...(f.max === undefined ? {} : { maxItems: f.max }),
  }
  switch (f.type) {
    case 'number':
      return { type: 'number', minimum: f.min, maximum: f.max }
    case 'whole':
      return { type: 'integer', minimum: f.min, maximum: f.max }
    case 'flag':
      return { type: 'boolean' }
    case 'text':
      return { type: 'string', minLength: f.min ?? 0, maxLength: f.max, pattern: TEXT_PATTERN }
    case 'id':
      return { type: 'string', pattern: '^[A-Za-z0-9][A-Za-z0-9-]{0,59}$' }
    case 'choice':
      return { enum: f.values }
    case 'numbers':
      return { type: 'array', ...items, items: number }
    case 'texts':
      return {
        type: 'array',
        ...items,
        items: f.values
          ? { enum: f.values }
          : { type: 'string', minLength: 1, maxLength: f.long ?? 60, pattern: TEXT_PATTERN },
      }
    case 'object':
      return schemaOf(f.of!())
    case 'objects':
      return { type: 'array', ...items, items: schemaOf(f.of!()) }
    case 'number-table':
      return { type: 'object', maxProperties: f.max ?? MOST_IN_TABLE, additionalProperties: number }
    case 'edges':
      return {
        type: 'object',
        maxProperties: f.max,
        additionalProperties: { enum: [true, 'assumed', 'unknown'] },
      }
    case 'patch':
      return { type: 'object', maxProperties: f.max }
    case 'answer-table':
      return {
        type: 'object',
        maxProperties: f.max,
        additionalProperties: {
          anyOf: [{ type: 'boolean' }, number, { type: 'string', maxLength: 600, pattern: TEXT_PATTERN }],
        },
      }
  }
}
