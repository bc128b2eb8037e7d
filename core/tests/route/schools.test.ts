import { caseTest } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { holds, type Facts } from '../../src/route/facts.ts'
import { planOf, type PlanWays } from '../../src/route/plan.ts'
import { plannedFacts } from './planned-facts.ts'
import { applies } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { schools, type School } from '../../src/route/schools.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { testCounts } from '../../src/route/stages/leak-steps.ts'
import { startOf } from './walk.ts'

const WAYS: Partial<Record<string, keyof PlanWays>> = {
  seals: 'seals',
  cups: 'cups',
  impeller: 'impeller',
}

/** Every drive in every usual scope, with the facts that a job of it begins with. */
const JOBS = demoSheets.flatMap((sheet) =>
  usualScopes(sheet).map((scope) => ({ sheet, scope, start: startOf(sheet, scope) })),
)

/** All that a job of any drive and scope says, asks, waits for, counts and renews under one choice of a school. */
function under(
  school: School,
  choice: string,
): { lines: Set<string>; steps: Set<string>; plans: Set<string> } {
  const [lines, steps, plans] = [new Set<string>(), new Set<string>(), new Set<string>()]
  const way = WAYS[school.id]
  const ways: PlanWays = way ? { [way]: choice } : {}
  for (const { sheet, scope, start } of JOBS) {
    const plan = planOf(sheet, scope, ways, { condemned: ['forward-taper', 'input-tapers'] })
    const facts: Facts = {
      ...start,
      ...plannedFacts(sheet, plan),
      [`school.${school.id}`]: choice,
    }
    const at = `${sheet.id} ${scope.usual}`
    plans.add(`${at}: ${plan.renew.map((r) => r.part).join(' ')}`)
    for (const s of routeOf(sheet).steps.filter((x) => applies(x, facts))) {
      steps.add(`${at} ${s.id}`)
      for (const i of s.instruct ?? []) if (!i.when || holds(i.when, facts)) lines.add(`${s.id}: ${i.say}`)
      for (const a of s.asks) if (!a.when || holds(a.when, facts)) steps.add(`${at} ${s.id} asks ${a.fact}`)
      if (s.waits && (!s.waits.when || holds(s.waits.when, facts))) steps.add(`${at} ${s.id} waits`)
    }
    const test = caseTest(sheet.graph)
    if (test)
      for (const minutes of [5, 30, 45, 120])
        for (const g of testCounts(test, 'leak-case'))
          if (holds(g.when, { ...facts, 'leak-case.minutes': minutes }))
            steps.add(`${at} holds ${minutes} ${g.say}`)
  }
  return { lines, steps, plans }
}

const minus = (a: Set<string>, b: Set<string>) => [...a].filter((x) => !b.has(x))

describe('each school changes what is said, asked, waited for or renewed', () => {
  it.each(schools.map((s) => [s.id, s as School] as const))('%s', (_, school) => {
    const choices = school.options.map((o) => ({ value: o.value, ...under(school, o.value) }))
    for (const a of choices)
      for (const b of choices) {
        if (a.value === b.value) continue
        const differs = (['lines', 'steps', 'plans'] as const).flatMap((k) => [
          ...minus(a[k], b[k]),
          ...minus(b[k], a[k]),
        ])
        expect(differs.length, `${school.id}: ${a.value} against ${b.value}`).toBeGreaterThan(0)
      }
  })
  it('and the sheet stands above it: what a drive demands is no school', () =>
    expect(schools.map((s) => s.id as string)).not.toContain('open-gear'))
})
