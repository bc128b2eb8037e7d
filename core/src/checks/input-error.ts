/** One thing wrong with one field. `path` is written like `pieces[3].thicknessMm`. */
export interface FieldProblem {
  path: string
  message: string
}

/**
 * The one error of the core: what was asked cannot be computed from what was given.
 * The message is written for the technician: place, value, allowed range, remedy.
 */
export class InputError extends Error {
  readonly code: string
  readonly fields: FieldProblem[]

  constructor(code: string, fields: FieldProblem[]) {
    super(fields.map((f) => (f.path ? `${f.path}: ${f.message}` : f.message)).join('; '))
    this.name = 'InputError'
    this.code = code
    this.fields = fields
  }
}

/** Throws an {@link InputError} for a single field. */
export function refuse(path: string, message: string, code = 'invalid-input'): never {
  throw new InputError(code, [{ path, message }])
}

/** Runs `work` on a part of the input; what it refuses is named below `path`. */
export function at<T>(path: string, work: () => T): T {
  try {
    return work()
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    throw new InputError(
      e.code,
      e.fields.map((f) => ({ ...f, path: f.path ? `${path}.${f.path}` : path })),
    )
  }
}
