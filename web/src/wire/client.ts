import type { AnyEndpoint, BodyOf, Endpoint, ParamsOf, PathOf, ReplyOf } from '@moray/contract/endpoint'
import { pathOf } from '@moray/contract/endpoint'
import { PERSON_HEADER, REQUEST_HEADER } from '@moray/contract/endpoints'
import type { ErrorBody } from '@moray/contract/errors'
import { InputError, type FieldProblem } from '@moray/core/checks/input-error'

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

export type ParamsFor<E extends AnyEndpoint> = Record<ParamsOf<PathOf<E>>, string | number>
/** An endpoint that takes a body. */
export type WriteEndpoint = Endpoint<string, object, unknown>

const isErrorBody = (body: unknown): body is ErrorBody =>
  typeof body === 'object' && body !== null && typeof (body as Partial<ErrorBody>).error?.message === 'string'

/** A line that stalls without breaking looks alive for minutes: so long at most is waited for an answer. */
const ANSWER_MS = 20_000
/** A picture takes its time over a slow line. */
const PICTURE_MS = 120_000

const offline = (
  message = 'The server does not answer. What you typed is still here; send it again when it is back.',
) => new WireError('offline', message, [], true)

/** Asks the server; the endpoint says what it answers, since the server mounts the very same one. */
async function ask<E extends AnyEndpoint>(
  _: E,
  path: string,
  init: RequestInit,
  longest: number | null = ANSWER_MS,
): Promise<ReplyOf<E>> {
  let response: Response
  let text: string
  try {
    response = await fetch(path, {
      ...init,
      ...(longest === null ? {} : { signal: AbortSignal.timeout(longest) }),
    })
    if (response.status === 204) return undefined as ReplyOf<E>
    text = await response.text()
  } catch (e) {
    const late = (e as { name?: string }).name === 'TimeoutError'
    throw offline(
      late
        ? `The server has not answered for ${longest! / 1000} s: the line to it may be weak. What you typed is still here; send it again.`
        : undefined,
    )
  }
  let body: unknown
  try {
    body = JSON.parse(text)
  } catch {
    body = undefined
  }
  if (response.ok && body !== undefined) return body as ReplyOf<E>
  if (isErrorBody(body)) {
    const { code, message, fields } = body.error
    throw new WireError(code, message, fields, response.status >= 500)
  }
  throw new WireError(
    'not-json',
    `The server answered something unexpected (status ${response.status}).`,
    [],
    true,
  )
}

/** Reads. @param query what stands behind the `?` */
export function read<E extends AnyEndpoint>(
  endpoint: E,
  params: ParamsFor<E>,
  query: Record<string, string> = {},
): Promise<ReplyOf<E>> {
  const search = new URLSearchParams(query).toString()
  return ask(endpoint, pathFor(endpoint, params) + (search ? `?${search}` : ''), {
    headers: { accept: 'application/json' },
  })
}

const pathFor = <E extends AnyEndpoint>(endpoint: E, params: ParamsFor<E>): string =>
  pathOf(endpoint as Endpoint<string, object | undefined, unknown>, params as Record<string, string | number>)

/**
 * Sends a write. The body meets its class here, as it will again on the server: what is wrong is said without a round trip.
 * @throws WireError
 */
export async function send<E extends WriteEndpoint>(
  endpoint: E,
  params: ParamsFor<E>,
  body: BodyOf<E>,
  person: string,
  requestId: string,
): Promise<ReplyOf<E>> {
  const checked = await check(endpoint, body)
  return ask(endpoint, pathFor(endpoint, params), {
    method: 'POST',
    headers: { 'content-type': 'application/json', [PERSON_HEADER]: person, [REQUEST_HEADER]: requestId },
    body: JSON.stringify(checked),
  })
}

let bodies: typeof import('@moray/contract/bodies') | undefined
/** Loads the classes that check bodies. They come after the page that is looked at, and are there before anything is written. */
export const loadBodies = async () => (bodies ??= await import('@moray/contract/bodies'))

async function check<E extends WriteEndpoint>(endpoint: E, body: BodyOf<E>): Promise<object> {
  const { checkedBody } =
    bodies ??
    (await loadBodies().catch(() => {
      throw offline()
    }))
  try {
    return checkedBody(endpoint, body)
  } catch (e) {
    if (e instanceof InputError) throw new WireError(e.code, e.message, e.fields)
    throw e
  }
}

/** Sends bytes as they are: a picture, a copy. @param longest is waited for an answer, ms; null: as long as it takes */
export function sendBytes<E extends AnyEndpoint>(
  endpoint: E,
  params: ParamsFor<E>,
  query: Record<string, string>,
  content: Blob,
  person: string,
  requestId: string,
  longest: number | null = PICTURE_MS,
): Promise<ReplyOf<E>> {
  const search = new URLSearchParams(query).toString()
  return ask(
    endpoint,
    `${pathFor(endpoint, params)}?${search}`,
    {
      method: 'POST',
      headers: {
        'content-type': 'application/octet-stream',
        [PERSON_HEADER]: person,
        [REQUEST_HEADER]: requestId,
      },
      body: content,
    },
    longest,
  )
}

export function asWireError(e: unknown): WireError {
  return e instanceof WireError ? e : new WireError('unexpected', e instanceof Error ? e.message : String(e))
}
