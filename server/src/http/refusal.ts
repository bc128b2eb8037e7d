import type { FieldProblem } from '@moray/core/checks/input-error'

/** A request that is understood but cannot be done. */
export class Refusal extends Error {
  readonly status: 400 | 401 | 403 | 404 | 409 | 410 | 413 | 415 | 422 | 429 | 507
  readonly code: string
  readonly fields: FieldProblem[]

  constructor(status: Refusal['status'], code: string, message: string, fields: FieldProblem[] = []) {
    super(message)
    this.name = 'Refusal'
    this.status = status
    this.code = code
    this.fields = fields
  }
}

/** The reason that something needs. @throws Refusal 422 when none is given */
export function mustSay(reason: string | undefined): string {
  if (!reason || reason.length < 3)
    throw new Refusal(422, 'reason-needed', 'Say why.', [{ path: 'reason', message: 'is missing' }])
  return reason
}

export const notFound = (what: string, id: string) =>
  new Refusal(404, 'not-found', `${what} "${id}" does not exist`)
