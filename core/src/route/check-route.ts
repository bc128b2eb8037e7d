import { InputError, type FieldProblem } from '../checks/input-error.ts'
import { factsIn, type Condition, type FactValue } from './facts.ts'
import type { Ask, Route } from './route.ts'

/** Facts that the rest of the job produces, by name or as a group that ends in a dot. */
export type OutsideFacts = readonly string[]

/**
 * Checks a route when it is loaded: ids used once, stages and needs that exist, no cycles, no step that can never open, no
 * condition on a fact that nothing produces, no answer that could never be right, no question asked twice.
 * "Can open" is followed step by step, optimistically: a step opens once its needs can be done and every gate can hold with
 * facts from steps that can be done, or from outside.
 * @throws InputError with everything found
 */
export function checkRoute(route: Route, outside: OutsideFacts): void {
  const problems: FieldProblem[] = []
  const say = (path: string, message: string) => problems.push({ path, message })
  const stages = new Set(route.stages.map((s) => s.id))
  const ids = new Set<string>()
  /** Who asks for a fact; more than one only where the steps exclude each other. */
  const asks = new Map<string, { ask: Ask; step: string }[]>()
  for (const s of route.steps) {
    if (ids.has(s.id)) say(s.id, 'is used twice')
    ids.add(s.id)
    if (!stages.has(s.stage)) say(s.id, `stands in stage "${s.stage}", which does not exist`)
    for (const a of s.asks) {
      const others = asks.get(a.fact) ?? []
      for (const other of others)
        if (!excludeEachOther(route, other.step, s.id))
          say(`${s.id}.${a.fact}`, `is asked at "${other.step}" already`)
      asks.set(a.fact, [...others, { ask: a, step: s.id }])
      if (a.must && !a.wrong) say(`${s.id}.${a.fact}`, 'has no words for a wrong answer')
    }
  }
  const isOutside = (fact: string) => outside.some((o) => (o.endsWith('.') ? fact.startsWith(o) : fact === o))
  const conditions = route.steps.flatMap((s) => [
    ...s.gates.map((g) => ({ at: s.id, c: g.when })),
    ...(s.appliesWhen ? [{ at: s.id, c: s.appliesWhen }] : []),
    ...s.asks.flatMap((a) =>
      [a.must, a.when, a.unless].flatMap((c) => (c ? [{ at: `${s.id}.${a.fact}`, c }] : [])),
    ),
    ...(s.instruct ?? []).flatMap((i) => (i.when ? [{ at: s.id, c: i.when }] : [])),
    ...(s.waits?.when ? [{ at: s.id, c: s.waits.when }] : []),
    ...(s.counts ?? []).map((g) => ({ at: s.id, c: g.when })),
  ])
  for (const { at, c } of conditions)
    for (const fact of factsIn(c))
      if (!asks.has(fact) && !isOutside(fact)) say(at, `asks for "${fact}", which nothing produces`)
  for (const s of route.steps) {
    for (const n of s.needs) if (!ids.has(n)) say(s.id, `needs "${n}", which does not exist`)
    for (const f of [...(s.figures ?? []).map((x) => x.fact), ...(s.timedFrom ? [s.timedFrom] : [])])
      if (!asks.has(f) && !isOutside(f)) say(s.id, `shows "${f}", which nothing produces`)
  }
  if (problems.length) throw new InputError('bad-route', problems)

  const canBeDone = new Set<string>()
  const possible = (c: Condition): boolean => {
    if ('all' in c) return c.all.every(possible)
    if ('any' in c) return c.any.some(possible)
    if ('not' in c) return true
    return factsIn(c).every((fact) => {
      if (isOutside(fact)) return true
      return (asks.get(fact) ?? []).some(
        ({ ask, step }) =>
          canBeDone.has(step) &&
          ('is' in c ? canSay(ask, c.is) : 'oneOf' in c ? c.oneOf.some((v) => canSay(ask, v)) : true),
      )
    })
  }
  for (let more = true; more;) {
    more = false
    for (const s of route.steps) {
      if (canBeDone.has(s.id)) continue
      if (!s.needs.every((n) => canBeDone.has(n))) continue
      if (!s.gates.every((g) => possible(g.when))) continue
      if (s.appliesWhen && !possible(s.appliesWhen)) continue
      // its own answers count for its own musts
      canBeDone.add(s.id)
      const own = [...s.asks.flatMap((a) => a.must ?? []), ...(s.counts ?? []).map((g) => g.when)]
      if (own.every(possible)) more = true
      else canBeDone.delete(s.id)
    }
  }
  for (const s of route.steps)
    if (!canBeDone.has(s.id))
      say(
        s.id,
        s.needs.some((n) => !canBeDone.has(n))
          ? 'can never open: what it needs never closes (or needs it)'
          : 'can never open or close: a condition can never hold',
      )
  if (problems.length) throw new InputError('bad-route', problems)
}

function canSay(ask: Ask, value: FactValue): boolean {
  if (ask.kind === 'tick') return typeof value === 'boolean'
  if (ask.kind === 'choice') return ask.options.some((o) => o.value === value)
  return typeof value === (ask.kind === 'number' ? 'number' : 'string')
}

/** Two steps that never stand on one job may ask for the same fact: one applies just when the other does not. */
function excludeEachOther(route: Route, a: string, b: string): boolean {
  const [x, y] = [a, b].map((id) => parts(route.steps.find((s) => s.id === id)?.appliesWhen))
  return x!.some((one) => y!.some((other) => opposite(one, other)))
}

/** Conditions that must all hold. */
function parts(condition: Condition | undefined): Condition[] {
  if (!condition) return []
  return 'all' in condition ? [condition, ...condition.all.flatMap(parts)] : [condition]
}

/** One is the other's contrary, or both fix one fact to different values. */
function opposite(a: Condition, b: Condition): boolean {
  const same = (c: Condition, d: Condition) => JSON.stringify(c) === JSON.stringify(d)
  if ('not' in a && same(a.not, b)) return true
  if ('not' in b && same(b.not, a)) return true
  return 'is' in a && 'is' in b && a.fact === b.fact && a.is !== b.is
}
