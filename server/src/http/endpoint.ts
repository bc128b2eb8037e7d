import { checkedBody } from '@moray/contract/bodies'
import type { AnyEndpoint, BodyOf, Endpoint, ParamsOf, PathOf, ReplyOf } from '@moray/contract/endpoint'
import { ID_PATTERN } from '@moray/contract/fields/text-rule'
import type { Context, Hono } from 'hono'
import { readJson, readJsonText } from './body.ts'
import { notFound } from './refusal.ts'

export type Params<E extends AnyEndpoint> = Record<ParamsOf<PathOf<E>>, string>

/** The parameters of the path. @throws Refusal 404 for what can be no id: nothing by that name exists */
export function paramsOf<E extends AnyEndpoint>(c: Context, endpoint: E): Params<E> {
  const params: Record<string, string> = {}
  for (const [, name] of endpoint.path.matchAll(/:(\w+)/g)) {
    const value = c.req.param(name!) ?? ''
    if (!ID_PATTERN.test(value)) throw notFound(name!, value.toWellFormed().slice(0, 40))
    params[name!] = value
  }
  return params as Params<E>
}

/** Numbers of rows and of versions fit into the database's smaller integer. */
const MOST_ROWS = 2 ** 31 - 1

/** A parameter that is a row's number. @throws Refusal 404 */
export function rowId(what: string, text: string): number {
  if (!/^\d{1,10}$/.test(text) || Number(text) > MOST_ROWS) throw notFound(what, text.slice(0, 40))
  return Number(text)
}

/** Mounts something that can be read: what the handler returns is what the contract promises. */
export function onRead<E extends AnyEndpoint>(
  app: Hono,
  endpoint: E,
  handler: (c: Context, params: Params<E>) => Promise<ReplyOf<E>>,
): void {
  app.get(endpoint.path, async (c) => c.json((await handler(c, paramsOf(c, endpoint))) as object))
}

export interface Body<T> {
  checked: T
  /** As it came. */
  text: string
}

/** Checks a body in another thread. @returns it as it is taken, as JSON text */
export type CheckElsewhere = (
  path: string,
  text: string,
  gone: AbortSignal,
  client: string,
) => Promise<string>

declare module 'hono' {
  interface ContextVariableMap {
    checkElsewhere: CheckElsewhere
  }
}

/** A longer body, a sheet above all, would keep everybody else waiting while it is checked. */
const LONG_BODY = 6 * 1024

async function readBody<E extends AnyEndpoint>(c: Context, endpoint: E): Promise<Body<BodyOf<E>>> {
  const text = await readJsonText(c)
  if (text.length <= LONG_BODY) return { checked: checkedBody(endpoint, readJson(text)), text }
  const checked = await c.get('checkElsewhere')(endpoint.path, text, c.req.raw.signal, c.get('client'))
  return { checked: JSON.parse(checked) as BodyOf<E>, text }
}

/** Mounts something that is written: the body is checked with the contract's class before the handler sees it. */
export function onWrite<E extends Endpoint<string, object, unknown>>(
  app: Hono,
  endpoint: E,
  handler: (c: Context, params: Params<E>, body: Body<BodyOf<E>>) => Promise<ReplyOf<E>>,
): void {
  app.post(endpoint.path, async (c) => {
    const params = paramsOf(c, endpoint)
    const read = await readBody(c, endpoint)
    const reply = await handler(c, params, read)
    return reply === undefined ? c.body(null, 204) : c.json(reply as object, 201)
  })
}
