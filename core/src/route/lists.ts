import type { Facts } from './facts.ts'
import type { Ask, Route } from './route.ts'

export interface JobLists {
  /** What was ordered, by name. */
  orders: string[]
}

/**
 * The route with the options of its lists out of the state of a job: what was ordered, what was ticked elsewhere. Values are numbered, since a
 * name may be anything.
 */
export function withLists(route: Route, facts: Facts, lists: JobLists): Route {
  const fill = (a: Ask): Ask => {
    if (a.kind !== 'list' || !a.from) return a
    if (a.from.of === 'orders')
      return { ...a, options: lists.orders.map((label, i) => ({ value: `o${i + 1}`, label })) }
    const { fact } = a.from
    const source = route.steps.flatMap((s) => s.asks.filter((x) => x.fact === fact)).at(-1)
    const chosen = String(facts[fact] ?? '').split(' ')
    const options = source?.kind === 'list' ? source.options.filter((o) => chosen.includes(o.value)) : []
    return { ...a, options }
  }
  return {
    ...route,
    steps: route.steps.map((s) =>
      s.asks.some((a) => a.kind === 'list' && a.from) ? { ...s, asks: s.asks.map(fill) } : s,
    ),
  }
}
