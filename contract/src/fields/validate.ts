import 'reflect-metadata'
import { InputError, type FieldProblem } from '@moray/core/checks/input-error'
import { plainToInstance } from 'class-transformer'
import { validateSync, type ValidationError } from 'class-validator'
import { show } from './decorators.ts'

/**
 * Checks a parsed JSON body against a contract class; both sides of the wire call this.
 * Unknown fields, wrong types, nulls and non-finite numbers are refused, nothing is converted.
 * @throws InputError `invalid-input` with one entry for every field that is wrong
 */
export function validate<T extends object>(owner: new () => T, raw: unknown): T {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw))
    throw new InputError('invalid-input', [
      { path: '', message: `a JSON object is needed, not ${show(raw)}` },
    ])
  const nulls = findNulls(raw, '', 0)
  if (nulls.length) throw new InputError('invalid-input', nulls)
  const instance = plainToInstance(owner, raw)
  const errors = validateSync(instance, {
    whitelist: true,
    forbidNonWhitelisted: true,
    forbidUnknownValues: true,
    stopAtFirstError: true,
    validationError: { target: false },
  })
  if (errors.length)
    throw new InputError(
      'invalid-input',
      errors.flatMap((e) => problemsOf(e, '')),
    )
  return instance
}

/** null never means anything in a request; class-validator would take it for "left out". */
function findNulls(value: unknown, path: string, depth: number): FieldProblem[] {
  if (value === null) return [{ path, message: 'is null; leave the field out instead' }]
  if (typeof value !== 'object' || depth > 12) return []
  return Object.entries(value as object).flatMap(([key, v]) =>
    findNulls(v, join(path, key, Array.isArray(value)), depth + 1),
  )
}

function join(path: string, key: string, inList: boolean): string {
  return inList ? `${path}[${key}]` : path ? `${path}.${key}` : key
}

function problemsOf(error: ValidationError, parent: string): FieldProblem[] {
  const path = join(parent, error.property, /^\d+$/.test(error.property))
  const own = Object.entries(error.constraints ?? {}).map(([rule, message]) => ({
    path,
    message: rule === 'whitelistValidation' ? 'is not a field of this request; remove it' : message,
  }))
  const nested = (error.children ?? []).flatMap((child) => problemsOf(child, path))
  return nested.length ? nested : own
}
