import { InputError } from '@moray/core/checks/input-error'
import type { Quantity } from '@moray/core/units/factors'
import { parseReading } from '@moray/core/units/notation'
import type { FieldDescription } from '@moray/contract/fields/describe'

/**
 * What stands in the form of a calculation: texts as typed, one for each field, in the shape of the input.
 * Numbers with a unit of the bench are understood in bench notation.
 */
export type Typed = string | boolean | Typed[] | { [field: string]: Typed }

export type Problems = Record<string, string>

const QUANTITY: Record<string, Quantity> = {
  mm: 'length',
  Nm: 'torque',
  kPa: 'pressure',
  C: 'temperature',
  deg: 'angle',
}

/** The form of an input; a field that the input leaves out is empty. */
export function toTyped(
  fields: FieldDescription[],
  input: Record<string, unknown>,
): { [field: string]: Typed } {
  return Object.fromEntries(fields.map((f) => [f.name, typedField(f, input[f.name])]))
}

function typedField(f: FieldDescription, value: unknown): Typed {
  switch (f.type) {
    case 'flag':
      return value === true
    case 'numbers':
    case 'texts':
      return Array.isArray(value) ? value.join(' ') : ''
    case 'number-table':
      return value && typeof value === 'object'
        ? Object.entries(value)
            .map(([k, v]) => `${k} ${String(v)}`)
            .join(', ')
        : ''
    case 'object':
      return toTyped(f.fields ?? [], (value as Record<string, unknown>) ?? {})
    case 'objects':
      return (Array.isArray(value) ? value : []).map((row) =>
        toTyped(f.fields ?? [], row as Record<string, unknown>),
      )
    default:
      return value === undefined ? '' : String(value)
  }
}

export function emptyRow(f: FieldDescription): { [field: string]: Typed } {
  return toTyped(f.fields ?? [], {})
}

/** The input that the form means; what cannot be understood is told by path, and left out. */
export function toInput(
  fields: FieldDescription[],
  typed: { [field: string]: Typed },
): { input: Record<string, unknown>; problems: Problems } {
  const problems: Problems = {}
  return { input: inputOf(fields, typed, '', problems), problems }
}

function inputOf(
  fields: FieldDescription[],
  typed: { [field: string]: Typed },
  at: string,
  problems: Problems,
): Record<string, unknown> {
  const input: Record<string, unknown> = {}
  for (const f of fields) {
    const path = at ? `${at}.${f.name}` : f.name
    const value = fieldInput(f, typed[f.name], path, problems)
    if (value !== undefined) input[f.name] = value
  }
  return input
}

function fieldInput(
  f: FieldDescription,
  typed: Typed | undefined,
  path: string,
  problems: Problems,
): unknown {
  if (f.type === 'flag') return typed === true || !f.optional ? typed === true : undefined
  if (f.type === 'object') {
    const own = typed as { [field: string]: Typed }
    if (f.optional && isBlank(own)) return undefined
    return inputOf(f.fields ?? [], own, path, problems)
  }
  if (f.type === 'objects') {
    const rows = (typed as { [field: string]: Typed }[]).map((row, i) =>
      inputOf(f.fields ?? [], row, `${path}[${i}]`, problems),
    )
    return f.optional && rows.length === 0 ? undefined : rows
  }
  const text = String(typed ?? '').trim()
  if (text === '')
    return f.optional
      ? undefined
      : f.type === 'numbers' || f.type === 'texts'
        ? []
        : f.type === 'number-table'
          ? {}
          : undefined
  switch (f.type) {
    case 'choice':
      return f.values?.find((v) => String(v) === text) ?? text
    case 'text':
      return text
    case 'texts':
      return text.split(/[\s,;]+/).filter(Boolean)
    case 'numbers':
      return text
        .split(/[\s;]+/)
        .filter(Boolean)
        .map((t) => numberOf(t.replace(/,$/, ''), undefined, path, problems) ?? NaN)
    case 'number-table':
      return Object.fromEntries(
        text
          .split(/\s*[,;\n]\s*/)
          .filter(Boolean)
          .map((pair) => {
            const [, key = pair, value = ''] = /^(\S+)[\s:=]+(.+)$/.exec(pair) ?? []
            return [key, numberOf(value, undefined, path, problems) ?? NaN]
          }),
      )
    default:
      return numberOf(text, f.unit, path, problems)
  }
}

function isBlank(typed: Typed): boolean {
  if (typeof typed === 'string') return typed.trim() === ''
  if (typeof typed === 'boolean') return !typed
  return (Array.isArray(typed) ? typed : Object.values(typed)).every(isBlank)
}

/** A number in bench notation where the unit is one of the bench, a plain one (comma or point) elsewhere. */
export function numberOf(
  text: string,
  unit: string | undefined,
  path: string,
  problems: Problems,
): number | undefined {
  const quantity = unit === undefined ? undefined : QUANTITY[unit]
  if (quantity) {
    try {
      return parseReading({ text, quantity }).value
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      problems[path] = e.fields[0]?.message ?? e.message
      return undefined
    }
  }
  if (/^[+-]?(\d+([.,]\d*)?|[.,]\d+)(e[+-]?\d+)?$/i.test(text.trim()))
    return Number(text.trim().replace(',', '.'))
  problems[path] = `"${text}" is not a number`
  return undefined
}
