import 'reflect-metadata'
import { InputError, type FieldProblem } from '@moray/core/checks/input-error'
import { validateSync, type ValidationError } from 'class-validator'
import { instantiate, isObject, join, Problems } from './instantiate.ts'
import { show } from './show.ts'

/**
 * Checks a parsed JSON body against a contract class; both sides of the wire call this.
 * Unknown fields, wrong types, nulls and non-finite numbers are refused; texts are trimmed, nothing else is converted.
 * Takes time in proportion to what the class allows, however large the body is.
 * @throws InputError `invalid-input` with one entry for every field that is wrong, at most 50
 */
export function validate<T extends object>(owner: new () => T, raw: unknown): T {
  if (!isObject(raw)) refuseAll([{ path: '', message: `a JSON object is needed, not ${show(raw)}` }])
  const problems = new Problems()
  const instance = instantiate(owner, raw, '', problems)
  const errors = validateSync(instance, {
    forbidUnknownValues: true,
    stopAtFirstError: true,
    validationError: { target: false, value: false },
  })
  const named = new Set(problems.list.map((p) => p.path))
  for (const problem of errors.flatMap((e) => problemsOf(e, '')))
    if (!named.has(problem.path)) problems.add(problem.path, problem.message)
  if (problems.list.length) refuseAll(problems.list)
  return instance
}

function refuseAll(problems: FieldProblem[]): never {
  throw new InputError('invalid-input', problems)
}

function problemsOf(error: ValidationError, parent: string): FieldProblem[] {
  const path = /^\d+$/.test(error.property) ? `${parent}[${error.property}]` : join(parent, error.property)
  const own = Object.values(error.constraints ?? {}).map((message) => ({ path, message }))
  const nested = (error.children ?? []).flatMap((child) => problemsOf(child, path))
  return nested.length ? nested : own
}
