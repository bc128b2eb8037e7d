import type { ErrorBody } from '@moray/contract/errors'
import { PERSON_HEADER, REQUEST_HEADER } from '@moray/contract/routes'
import type { FieldProblem } from '@moray/core/checks/input-error'

/** What the server (or the line to it) had against a request, ready to be shown. */
export class WireError extends Error {
  readonly code: string
  readonly fields: FieldProblem[]
  /** True when it is unknown whether the server got it: send the same request id again. */
  readonly unsure: boolean

  constructor(code: string, message: string, fields: FieldProblem[] = [], unsure = false) {
    super(message)
    this.name = 'WireError'
    this.code = code
    this.fields = fields
    this.unsure = unsure
  }
}

/** The message for a field: an exact path, or anything below it. */
export function problemAt(error: WireError | null, path: string): string | undefined {
  return error?.fields.find(
    (f) => f.path === path || f.path.startsWith(`${path}[`) || f.path.startsWith(`${path}.`),
  )?.message
}

async function ask<T>(path: string, init: RequestInit): Promise<T> {
  let response: Response
  try {
    response = await fetch(path, init)
  } catch {
    throw new WireError(
      'offline',
      'The server does not answer. What you typed is still here; send it again when it is back.',
      [],
      true,
    )
  }
  const text = await response.text()
  let body: unknown
  try {
    body = JSON.parse(text)
  } catch {
    throw new WireError(
      'not-json',
      `The server answered something unexpected (status ${response.status}).`,
      [],
      true,
    )
  }
  if (response.ok) return body as T
  const { code, message, fields } = (body as ErrorBody).error
  throw new WireError(code, message, fields, response.status >= 500)
}

export function getJson<T>(path: string): Promise<T> {
  return ask<T>(path, { headers: { accept: 'application/json' } })
}

export function postJson<T>(path: string, body: object, person: string, requestId: string): Promise<T> {
  return ask<T>(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', [PERSON_HEADER]: person, [REQUEST_HEADER]: requestId },
    body: JSON.stringify(body),
  })
}

/** Sends bytes as they are: a picture. */
export function postBytes<T>(path: string, content: Blob, person: string, requestId: string): Promise<T> {
  return ask<T>(path, {
    method: 'POST',
    headers: {
      'content-type': 'application/octet-stream',
      [PERSON_HEADER]: person,
      [REQUEST_HEADER]: requestId,
    },
    body: content,
  })
}

export function asWireError(e: unknown): WireError {
  return e instanceof WireError ? e : new WireError('unexpected', e instanceof Error ? e.message : String(e))
}
