import type { FieldProblem } from '@moray/core/checks/input-error'

/** The one error body of every route and of the command line. */
export interface ErrorBody {
  error: { code: string; message: string; fields: FieldProblem[] }
}

export function errorBody(code: string, message: string, fields: FieldProblem[] = []): ErrorBody {
  return { error: { code, message, fields } }
}
