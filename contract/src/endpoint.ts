/** Names of the parameters in a path: `/api/jobs/:id` has `id`. */
export type ParamsOf<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | ParamsOf<`/${Rest}`>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never

declare const BODY: unique symbol
declare const REPLY: unique symbol

/**
 * One place of the HTTP interface: method, path, and the types of its body and its reply. The server mounts it, the browser calls it; both get their
 * types from here, so that neither can send or answer what the other does not expect.
 */
export interface Endpoint<Path extends string, Body extends object | undefined, Reply> {
  method: 'GET' | 'POST'
  path: Path
  /** The types alone: neither holds a value. */
  readonly [BODY]?: Body
  readonly [REPLY]?: Reply
}

export type AnyEndpoint = Endpoint<string, object | undefined, unknown>
export type ReplyOf<E> = E extends Endpoint<string, object | undefined, infer R> ? R : never
export type BodyOf<E> = E extends Endpoint<string, infer B, unknown> ? B : never
export type PathOf<E> = E extends Endpoint<infer P, object | undefined, unknown> ? P : never

/** Something that can be read. */
export const reads =
  <Reply>() =>
  <Path extends string>(path: Path): Endpoint<Path, undefined, Reply> => ({ method: 'GET', path })

/** Something that is written, with a body that its class in bodies.ts checks. */
export const writes =
  <Body extends object, Reply>() =>
  <Path extends string>(path: Path): Endpoint<Path, Body, Reply> => ({ method: 'POST', path })

/** Something that is sent as it is, without a class that checks it: the bytes of a picture, or what a calculation's own class checks. */
export const takes =
  <Reply>() =>
  <Path extends string>(path: Path): Endpoint<Path, undefined, Reply> => ({ method: 'POST', path })

/** The path with its parameters filled in. */
export function pathOf<Path extends string>(
  { path }: Endpoint<Path, object | undefined, unknown>,
  params: Record<ParamsOf<Path>, string | number>,
): string {
  return path.replace(/:(\w+)/g, (_, name: string) =>
    encodeURIComponent(String(params[name as ParamsOf<Path>])),
  )
}
