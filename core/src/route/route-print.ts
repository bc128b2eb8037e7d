import type { Route, Step } from './route.ts'

/** One step as far as it matters whether it has changed: its id, its words, and a digest of all that it asks and waits for. */
export interface StepPrint {
  id: string
  what: string
  digest: string
}

export interface RouteChanges {
  added: StepPrint[]
  removed: StepPrint[]
  changed: StepPrint[]
}

/** The steps of a route, to be compared with those that a newer Moray builds from the same sheet. */
export const printOf = (route: Route): StepPrint[] =>
  route.steps.map((s) => ({ id: s.id, what: s.what, digest: digestOf(s) }))

/** One digest of the whole route. */
export const routeHash = (print: readonly StepPrint[]): string =>
  fnv1a(print.map((s) => `${s.id} ${s.digest}`).join('\n'))

/** What has changed from one print to another; the order of the steps is not compared. */
export function changesBetween(before: readonly StepPrint[], now: readonly StepPrint[]): RouteChanges {
  const old = new Map(before.map((s) => [s.id, s]))
  const ids = new Set(now.map((s) => s.id))
  return {
    added: now.filter((s) => !old.has(s.id)),
    removed: before.filter((s) => !ids.has(s.id)),
    changed: now.filter((s) => old.has(s.id) && old.get(s.id)!.digest !== s.digest),
  }
}

/** What is asked, what it waits for, and when it applies; explanations may be reworded freely. */
function digestOf({ id, what, needs, gates, asks, appliesWhen, counts, cautions }: Step): string {
  return fnv1a(
    JSON.stringify([id, what, needs, gates, asks, appliesWhen ?? null, counts ?? [], cautions ?? []]),
  )
}

/** 64-bit FNV-1a over UTF-16 code units, in hex (Fowler, Noll, Vo): tells texts apart, protects nothing. */
function fnv1a(text: string): string {
  let hash = 0xcbf29ce484222325n
  for (let i = 0; i < text.length; i++) {
    hash ^= BigInt(text.charCodeAt(i))
    hash = BigInt.asUintN(64, hash * 0x100000001b3n)
  }
  return hash.toString(16).padStart(16, '0')
}
