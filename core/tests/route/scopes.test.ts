import { caseTest } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { checkRoute } from '../../src/route/check-route.ts'
import { OUTSIDE_FACTS } from '../../src/route/job-facts.ts'
import { planOf } from '../../src/route/plan.ts'
import { plannedFacts } from './planned-facts.ts'
import { settingsOf } from '../../src/setting/settings-of-part.ts'
import { applies, dependentsOf, progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { fullScope, ownScope, usualScope, usualScopes, type Scope } from '../../src/route/scope.ts'
import { refused } from '../refused.ts'
import { routeAt, startOf, walk } from './walk.ts'

const sheetOf = (id: string) => demoSheets.find((s) => s.id === id)!
const lomvi = sheetOf('lomvi-90')
const ids = (parts: { id: string }[]) => parts.map((p) => p.id)
const plan = (sheet: DriveSheet, usual: string) => planOf(sheet, usualScope(sheet, usual))
/** What the walk of a scope came to; it is the same each time. */
const walked = new Map<string, ReturnType<typeof walk>>()
function walkOnce(sheet: DriveSheet, scope: Scope) {
  const key = `${sheet.id} ${scope.usual}`
  walked.set(key, walked.get(key) ?? walk(sheet, startOf(sheet, scope)))
  return walked.get(key)!
}
const EVERY = demoSheets.flatMap((s) => usualScopes(s).map((u) => [`${s.id}, ${u.usual}`, s, u] as const))

describe('a drive in a usual scope', () => {
  it('is quite a few', () => expect(EVERY.length).toBeGreaterThan(90))
  it.each(EVERY)(
    '%s walks to handover on the virtual gearcase, and its plan passes the check',
    (_, sheet, scope) => {
      const { done, facts, order } = walkOnce(sheet, scope)
      expect(order.at(-1)).toBe('handover')
      const route = routeAt(sheet, facts)
      const { steps, due } = progressOf(route, facts, done)
      expect(due).toBeUndefined()
      // the plan by itself: only the steps that belong to it, each of them able to open
      const here = new Set(steps.filter((s) => s.state !== 'not-here').map((s) => s.step.id))
      // a step comes after those that it needs: what stands before each is known by then
      const before = new Map<string, string[]>()
      for (const s of route.steps)
        before.set(s.id, here.has(s.id) ? [s.id] : [...new Set(s.needs.flatMap((n) => before.get(n)!))])
      checkRoute(
        {
          ...route,
          steps: route.steps
            .filter((s) => here.has(s.id))
            .map((s) => ({ ...s, needs: [...new Set(s.needs.flatMap((n) => before.get(n)!))] })),
        },
        // nothing was let out: nobody asks what was filled in
        [...OUTSIDE_FACTS, ...(facts['work.fill'] === true ? [] : ['fill.topped'])],
      )
      const { graph } = sheet
      const fitted = !['look', 'strike', 'test'].includes(scope.mode)
      expect(order.includes('first-run'), 'run').toBe(fitted)
      // what lets oil out is filled again, and proved where a test belongs to it
      if (fitted && order.includes('drain')) expect(order.some((s) => s.startsWith('fill-'))).toBe(true)
      if (fitted && caseTest(graph) && facts['work.opens']) {
        // on the boat two cases that share their oil are proved together
        const test = facts['work.prove.case'] === true ? 'leak-case' : 'leak-joined'
        expect(facts[`${test}.verdict`]).toBe('tight')
      }
      if (scope.mode === 'unit' || scope.mode === 'refit')
        expect(facts['leak-case.verdict']).toBe(caseTest(graph) ? 'tight' : undefined)
    },
  )
  it.each(EVERY)(
    '%s asks for no setting, no pattern and no trial build where nothing of it is disturbed',
    (_, sheet, scope) => {
      const p = planOf(sheet, scope)
      const { order } = walkOnce(sheet, scope)
      const sets = order.filter((s) => ['trial-in', 'preload', 'crush', 'pattern', 'trial-out'].includes(s))
      if (!p.disturbed.length) expect(sets).toEqual([])
      else if (scope.mode === 'rebuild')
        expect(sets).toEqual(expect.arrayContaining(['trial-in', 'trial-out']))
    },
  )
})

describe('the plan', () => {
  it('of the seals of a propeller shaft takes off what stands before them, and disturbs no setting', () => {
    const p = plan(lomvi, 'seals:propshaft')
    expect(ids(p.off)).toEqual([
      'prop-lock',
      'propeller',
      'thrust-hub',
      'ring-nut',
      'carrier',
      'prop-seals',
      'carrier-key',
      'carrier-ring',
      'plug-gaskets',
    ])
    expect(p.renew.map((r) => [r.part, r.why])).toEqual([
      ['prop-seals', 'wanted'],
      ['carrier-ring', 'opening'],
      ['plug-gaskets', 'opening'],
    ])
    expect(p).toMatchObject({ disturbed: [], prove: ['case'], apart: false, drains: true, parts: 1290 })
    expect(p.undisturbed).toEqual(lomvi.measures.map((m) => m.id))
    expect(p.hours).toBeLessThan(2.5)
    expect(p.stays.map((s) => s.id)).toContain('reverse-gear')
  })
  it('of a clutch leaves the gears as they are, and says what is worth doing beside it', () => {
    const p = plan(lomvi, 'clutch')
    expect(ids(p.off)).toContain('prop-shaft')
    expect(p.disturbed).toEqual([])
    expect(p.worth.map((w) => w.part)).toContain('shift-seal')
    expect(p.worth.every((w) => w.more.length <= 2)).toBe(true)
  })
  it('of a gear set disturbs depth and both backlashes, and buys the set once', () => {
    const p = plan(lomvi, 'gear-set')
    expect(p.disturbed).toEqual(expect.arrayContaining(['depth', 'backlash-forward', 'backlash-reverse']))
    // every stack that sets the new gears is got at
    expect(ids(p.off)).toEqual(expect.arrayContaining(['pinion-shims', 'forward-shims', 'reverse-shims']))
    const set = lomvi.parts.find((x) => x.id === 'pinion')!.price!
    // and what is pressed on the old gears is new with them
    const pressed = p.renew.filter((r) => r.why === 'pressed').map((r) => r.part)
    expect(pressed).toEqual(expect.arrayContaining(['reverse-ball', 'forward-taper']))
    const besides = p.renew.filter((r) => r.why === 'pressed' || r.why === 'once')
    const more = besides.reduce((sum, r) => sum + (lomvi.parts.find((x) => x.id === r.part)!.price ?? 0), 0)
    expect(p.parts).toBe(set + more + 1290)
  })
  it('of a water pump lets no oil out, and of a drive with an oil joint proves both halves together', () => {
    expect(plan(lomvi, 'pump')).toMatchObject({ drains: false, prove: [], apart: true })
    expect(plan(sheetOf('alke-2-lower'), 'shift-seal').prove).toEqual(['case', 'joined'])
    // on the boat both halves are one space
    expect(plan(sheetOf('alke-2-lower'), 'seals:propshaft').prove).toEqual(['joined'])
  })
  it('grows with what is condemned, and with the sets that belong to it', () => {
    const scope = usualScope(lomvi, 'seals:propshaft')
    const p = planOf(lomvi, scope, {}, { condemned: ['reverse-gear'] })
    expect(ids(p.off)).toEqual(
      expect.arrayContaining(['reverse-gear', 'pinion', 'forward-gear', 'driveshaft']),
    )
    expect(p.disturbed).toContain('depth')
    expect(p.renew.find((r) => r.part === 'reverse-gear')!.why).toBe('condemned')
  })
  it('renews seals by the school: all that are reached, or those that were disturbed', () => {
    const wide = planOf(lomvi, usualScope(lomvi, 'clutch'), { seals: 'all' }).renew.map((r) => r.part)
    const narrow = planOf(lomvi, usualScope(lomvi, 'clutch'), { seals: 'disturbed' }).renew.map((r) => r.part)
    expect(wide).toContain('prop-seals')
    expect(narrow).not.toContain('prop-seals')
    expect(narrow).toContain('carrier-ring')
  })
  it('knows what each part carries or sets', () => {
    const of = (id: string) =>
      settingsOf(
        lomvi,
        lomvi.parts.find((p) => p.id === id)!,
      )
    expect([...of('pinion')].sort()).toEqual(['backlash-forward', 'backlash-reverse', 'depth'])
    expect(of('reverse-gear')).toEqual(['backlash-reverse'])
    expect(of('driveshaft-tapers')).toContain('bearing:driveshaft-lower')
    expect(of('propeller')).toEqual([])
    const alke = sheetOf('alke-2-upper')
    expect(
      settingsOf(
        alke,
        alke.parts.find((p) => p.id === 'cover')!,
      ),
    ).toContain('bearing:top')
  })
})

describe('a scope', () => {
  it('by hand names what is wrong with it', () => {
    expect(refused(() => ownScope(lomvi, [])).message).toMatch(/reaches nothing yet/)
    expect(refused(() => ownScope(lomvi, ['prop-seals', 'ghost'])).fields[0]).toMatchObject({
      path: 'targets[1]',
    })
    expect(refused(() => ownScope(lomvi, ['housing'])).message).toMatch(/the case itself/)
    expect(refused(() => ownScope(lomvi, ['pump-cover'], true)).message).toMatch(/sits between the halves/)
    expect(refused(() => usualScope(sheetOf('teist-6'), 'clutch')).message).toMatch(/no scope of this drive/)
  })
  it('stays on the boat where nothing between the halves is reached', () => {
    expect(ownScope(lomvi, ['prop-seals']).mounted).toBe(true)
    expect(ownScope(lomvi, ['pump-seals']).mounted).toBe(false)
  })
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'of %s that is everything reaches everything',
    (_, sheet) => {
      const p = planOf(sheet, fullScope(sheet))
      expect(p.stays).toEqual([])
      expect(p.undisturbed).toEqual([])
      const f = plannedFacts(sheet, p)
      for (const work of ['opens', 'set', 'part', 'join', 'fit', 'run', 'end'])
        expect(f[`work.${work}`], work).toBe(true)
    },
  )
})

describe('a partial order', () => {
  const at = (done: string[], more = {}) => {
    const facts = { ...startOf(lomvi), ...more }
    return progressOf(routeOf(lomvi), facts, new Set(done))
  }
  it('gives several hands something to do', () => {
    const { due, meanwhile } = at(['receive'])
    expect(due!.step.id).toBe('identify')
    expect(meanwhile.map((s) => s.step.id)).toEqual(
      expect.arrayContaining(['ratio', 'tools', 'drain', 'as-found', 'soak']),
    )
  })
  it('waits for a soak and goes on elsewhere, then lets the case come apart', () => {
    const before = [
      'receive',
      'identify',
      'ratio',
      'tools',
      'drain',
      'as-found',
      'soak',
      'open-gear',
      'locks',
      'left-hand',
    ]
    const soaking = { 'soak.how': 'soaks', 'waited.soak': 12 }
    const waiting = at([...before, 'leak-found'], soaking)
    expect(waiting.due).toMatchObject({
      step: { id: 'apart' },
      state: 'waiting',
      wait: { kind: 'soak', minutes: 18 },
    })
    expect(waiting.running).toMatchObject([{ step: { id: 'soak' }, minutes: 18 }])
    // the test as found is still open: it is due before anybody waits
    expect(at(before, soaking).due).toMatchObject({ step: { id: 'leak-found' }, state: 'open' })
    expect(at([...before, 'leak-found'], { ...soaking, 'waited.soak': 30 }).due!.state).toBe('open')
    expect(at([...before, 'leak-found'], { 'soak.how': 'moves' }).due).toMatchObject({
      step: { id: 'apart' },
      state: 'open',
    })
  })
  it('lets a retaining compound cure before pressure, and only where the shop uses one', () => {
    const { order } = walk(lomvi)
    const before = order.slice(0, order.indexOf('leak-case')).filter((s) => s !== 'leak-case')
    const cure = (school: string) =>
      at(before, { 'school.seal-outside': school, 'waited.seals': 5, 'trial.out': '' }).steps.find(
        (s) => s.step.id === 'leak-case',
      )
    expect(cure('retaining')).toMatchObject({ state: 'waiting', wait: { kind: 'cure', minutes: 55 } })
    expect(cure('sealant')!.state).toBe('open')
  })
  it('opens again only what stands on the step that is taken back', () => {
    const route = routeOf(lomvi)
    expect(dependentsOf(route, 'anode')).toEqual(['first-run', 'propeller', 'handover'])
    const seals = dependentsOf(route, 'seals')
    for (const id of ['trial-in', 'pattern', 'trial-out', 'press', 'cages']) expect(seals).not.toContain(id)
    expect(dependentsOf(route, 'drain')).not.toContain('identify')
    expect(dependentsOf(route, 'identify')).not.toContain('drain')
  })
})

describe('questions', () => {
  const acceptable = (sheet: DriveSheet) => {
    const facts = startOf(sheet)
    return routeOf(sheet)
      .steps.filter((s) => applies(s, facts))
      .flatMap((step) =>
        step.asks
          .filter((a) => !a.optional && (a.kind === 'tick' || a.kind === 'choice'))
          .map((ask) => {
            const must = ask.must
            const count = !must
              ? 2
              : ask.kind === 'tick'
                ? 1
                : 'is' in must && must.fact === ask.fact
                  ? 1
                  : 'oneOf' in must && must.fact === ask.fact
                    ? must.oneOf.length
                    : 2
            return { step: step.id, fact: ask.fact, count }
          }),
      )
  }
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'of %s have none with one acceptable answer',
    (_, sheet) => expect(acceptable(sheet).filter((a) => a.count < 2)).toEqual([]),
  )
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'of %s: under 70 answers, at most twelve hold points',
    (_, sheet) => {
      const { answers, order } = walk(sheet)
      expect(answers).toBeLessThan(70)
      const holds = routeOf(sheet).steps.filter((s) => s.holdPoint && order.includes(s.id))
      expect(holds.length).toBeLessThanOrEqual(12)
      // each wants two words or a picture
      for (const h of holds)
        expect(
          h.asks.some((a) => a.kind === 'text' && a.unless),
          h.id,
        ).toBe(true)
    },
  )
})

describe('a plan that is kept', () => {
  it('is the one of these very scopes, ways and findings, whatever was asked for in between', () => {
    const asked = usualScopes(lomvi).flatMap((scope) =>
      [true, false].flatMap((mounted) =>
        [{}, { seals: 'disturbed' }, { cups: 'renew' }, { impeller: 'yearly' }].flatMap((ways) =>
          [[], ['forward-taper']].map((condemned) => ({
            scope: { ...scope, mounted },
            ways,
            findings: { condemned },
          })),
        ),
      ),
    )
    // more than are kept
    expect(asked.length).toBeGreaterThan(120)
    for (const again of [false, true])
      for (const { scope, ways, findings } of again ? asked.toReversed() : asked)
        // a sheet of its own knows no plan yet
        expect(planOf(lomvi, scope, ways, findings)).toEqual(
          planOf(structuredClone(lomvi), scope, ways, findings),
        )
  })
  it('is not worked out twice', () => {
    const scope = usualScope(lomvi, 'clutch')
    expect(planOf(lomvi, scope, {}, { condemned: [] })).toBe(planOf(lomvi, { ...scope }))
  })
})
