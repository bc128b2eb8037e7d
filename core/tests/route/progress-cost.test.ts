import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { Facts } from '../../src/route/facts.ts'
import { progressOf } from '../../src/route/progress.ts'
import type { Step } from '../../src/route/route.ts'
import { routeOf } from '../../src/route/route-of.ts'

/** Facts that count how often they are looked at. */
function counting(facts: Facts) {
  let looks = 0
  const counted = new Proxy(facts, {
    get: (target, name) => {
      looks++
      return Reflect.get(target, name) as unknown
    },
  })
  return { facts: counted, looks: () => looks }
}

const step = (id: string, needs: string[], rest: Partial<Step> = {}): Step => ({
  id,
  stage: 'one',
  what: `Do ${id}`,
  why: 'because',
  needs,
  gates: [],
  asks: [],
  tools: [],
  consumables: [],
  ...rest,
})

describe('where a job stands is found in time with the size of its route', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('%s, with nothing known yet', (_, sheet) => {
    const route = routeOf(sheet)
    const conditions = JSON.stringify(route.steps).match(/"(fact|known)":/g)!.length
    const { facts, looks } = counting({})
    progressOf(route, facts, new Set())
    expect(looks()).toBeLessThan(10 * conditions)
  })

  it('although every step that does not apply doubles the ways that lead back', () => {
    const left = { appliesWhen: { fact: 'wet', is: 'yes' } } as const
    const ladder = Array.from({ length: 80 }, (_, i) =>
      step(`r${i}`, i < 2 ? ['first'] : [`r${i - 1}`, `r${i - 2}`], left),
    )
    const steps = [step('first', []), ...ladder, step('last', ['r78', 'r79'])]
    const route = { family: 'test' as const, stages: [{ id: 'one', label: 'One' }], steps }
    expect(progressOf(route, {}, new Set()).steps.at(-1)).toMatchObject({
      state: 'blocked',
      why: ['First: Do first.'],
    })
  })
})
