import type { FieldProblem } from '@moray/core/checks/input-error'
import { factsOfClass, type Class, type FieldFacts } from './describe.ts'
import { show } from './show.ts'

/** More problems than anybody reads; the rest is counted. */
export const MOST_PROBLEMS = 50
/** Entries of a table from ids to numbers. */
export const MOST_IN_TABLE = 500

/** Collects what is wrong and stops asking for more. */
export class Problems {
  readonly list: FieldProblem[] = []
  get full(): boolean {
    return this.list.length >= MOST_PROBLEMS
  }
  add(path: string, message: string) {
    if (!this.full) this.list.push({ path, message })
  }
}

export const isObject = (v: unknown): v is Record<string, unknown> =>
  typeof v === 'object' && v !== null && !Array.isArray(v)

export const join = (path: string, key: string) => (path ? `${path}.${key}` : key)

/**
 * Builds an instance of a contract class out of parsed JSON in one linear walk that follows the class and never the data: own
 * keys only, lists no longer than the field allows, nesting no deeper than the class. What does not fit is named, and not
 * walked into; values themselves are checked afterwards.
 */
export function instantiate<T extends object>(
  owner: new () => T,
  raw: Record<string, unknown>,
  path: string,
  problems: Problems,
): T {
  const fields = factsOfClass(owner as Class)
  for (const key of Object.keys(raw))
    if (!fields.has(key)) {
      problems.add(join(path, shorten(key)), 'is not a field of this request; remove it')
      if (problems.full) break
    }
  const made = new owner() as Record<string, unknown>
  for (const [name, field] of fields) {
    if (!Object.hasOwn(raw, name)) continue
    const value = convert(field, raw[name], join(path, name), problems)
    if (value !== undefined) made[name] = value
  }
  return made as T
}

function convert(field: FieldFacts, value: unknown, path: string, problems: Problems): unknown {
  if (value === null) {
    problems.add(path, 'is null; leave the field out instead')
    return undefined
  }
  switch (field.type) {
    case 'text':
    case 'id':
      return typeof value === 'string' && !field.asIs ? value.trim() : value
    case 'object':
      return isObject(value) ? instantiate(field.of!(), value, path, problems) : value
    case 'objects':
      return list(field, value, path, problems, (v, at) => {
        if (isObject(v)) return instantiate(field.of!(), v, at, problems)
        problems.add(at, `must be an object, not ${show(v)}`)
        return {}
      })
    case 'numbers':
    case 'texts':
      return list(field, value, path, problems, (v) => (typeof v === 'string' ? v.trim() : v))
    case 'number-table':
    case 'answer-table':
    case 'edges':
      return isObject(value) ? table(field, value, path, problems) : value
    default:
      return value
  }
}

function list(
  field: FieldFacts,
  value: unknown,
  path: string,
  problems: Problems,
  each: (v: unknown, path: string) => unknown,
): unknown {
  if (!Array.isArray(value)) return value
  if (field.max !== undefined && value.length > field.max) {
    problems.add(path, `holds too many entries: ${value.length}; at most ${field.max}`)
    return []
  }
  const made: unknown[] = []
  for (const [i, v] of value.entries()) {
    if (problems.full) break
    const at = `${path}[${i}]`
    if (v === null) problems.add(at, 'is null; leave it out instead')
    else made.push(each(v, at))
  }
  return made
}

function table(field: FieldFacts, value: Record<string, unknown>, path: string, problems: Problems): object {
  const keys = Object.keys(value)
  const most = field.max ?? MOST_IN_TABLE
  if (keys.length > most) {
    problems.add(path, `holds too many entries: ${keys.length}; at most ${most}`)
    return {}
  }
  const made: Record<string, unknown> = {}
  for (const key of keys) {
    const v = value[key]
    const at = join(path, shorten(key))
    if (key in Object.prototype) problems.add(at, 'is a name that a table cannot have; choose another')
    else if (v === null) problems.add(at, 'is null; leave it out instead')
    else made[key] = typeof v === 'string' ? v.trim() : v
  }
  return made
}

const shorten = (key: string) => (key.length > 60 ? `${key.slice(0, 57)}…` : key.toWellFormed())
