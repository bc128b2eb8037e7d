import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { InputError } from '../../src/checks/input-error.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { completeStep, isWanted, type Answers } from '../../src/route/complete.ts'
import type { Facts } from '../../src/route/facts.ts'
import { deriveFacts } from '../../src/route/job-facts.ts'
import { closesItself, dependentsOf, progressOf } from '../../src/route/progress.ts'
import type { Ask } from '../../src/route/route.ts'
import { planOf } from '../../src/route/plan.ts'
import { plannedFacts } from './planned-facts.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { fullScope } from '../../src/route/scope.ts'
import { times } from '../long.ts'

const sheets = fc.constantFrom(...demoSheets)

/** A job that is everything. */
const planOfAll = (sheet: DriveSheet) => plannedFacts(sheet, planOf(sheet, fullScope(sheet)))

/** Anything that could stand as the answer to a question, right, wrong or impossible. */
function answerTo(ask: Ask): fc.Arbitrary<boolean | number | string | undefined> {
  switch (ask.kind) {
    case 'tick':
      return fc.constantFrom(true, false, undefined)
    case 'choice':
      return fc.constantFrom(...ask.options.map((o) => o.value), 'none of them', undefined)
    case 'list':
      return fc.constantFrom(...ask.options.map((o) => o.value), '', 'nowhere', undefined)
    case 'number':
      return fc.oneof(
        fc.double({ min: -10, max: 300, noNaN: true }),
        fc.constantFrom(0, 1, 2, NaN, Infinity, undefined),
      )
    case 'text':
      return fc.constantFrom('', 'a word', undefined)
  }
}

/** A job in any state: some steps done, some facts known. */
const states = sheets.chain((sheet) => {
  const route = routeOf(sheet)
  const asks = route.steps.flatMap((s) => s.asks)
  return fc.record({
    sheet: fc.constant(sheet),
    done: fc.subarray(route.steps.map((s) => s.id)),
    facts: fc.tuple(...asks.map(answerTo)).map((values) => {
      const facts: Record<string, boolean | number | string> = {
        ...planOfAll(sheet),
        'job.water': 'salt',
        'school.filling': 'mounted',
        'school.big-ring': 'mounted',
      }
      asks.forEach((a, i) => {
        const v = values[i]
        if (v !== undefined) facts[a.fact] = v
      })
      return facts as Facts
    }),
    estimate: fc.constantFrom('rebuild', 'exchange', undefined),
    step: fc.constantFrom(...route.steps.map((s) => s.id)),
  })
})

const CODES = ['gate-closed', 'answer-missing', 'slip', 'already-done', 'not-here', 'invalid-input']

describe('whatever the state of a job', () => {
  it('the facts that follow can be computed, and asking again changes nothing', () => {
    fc.assert(
      fc.property(states, ({ sheet, facts }) => {
        const once = deriveFacts(sheet, facts)
        expect(deriveFacts(sheet, once)).toEqual(once)
        for (const [fact, value] of Object.entries(facts)) expect(once[fact]).toBe(value)
      }),
      { numRuns: times(60, 150) },
    )
  })
  it('every step is done, open, shut with a reason, or not here; what is due can be worked on before it waits or is shut', () => {
    fc.assert(
      fc.property(states, ({ sheet, facts, done, estimate }) => {
        const route = routeOf(sheet)
        const known = deriveFacts(sheet, estimate ? { ...facts, 'estimate.choice': estimate } : facts)
        const progress = progressOf(route, known, new Set(done))
        expect(progress).toEqual(progressOf(route, known, new Set(done)))
        for (const s of progress.steps) {
          expect(s.why.length > 0).toBe(s.state === 'blocked' || s.state === 'waiting')
          // work on another page can only go on where nothing before it is open
          if (s.elsewhere) expect([s.state, s.step.page === undefined]).toEqual(['blocked', false])
          if (done.includes(s.step.id)) expect(s.state).toBe('done')
        }
        const open = progress.steps.filter((s) => s.state === 'open' || s.elsewhere)
        const waits = progress.steps.filter((s) => s.state === 'waiting')
        const shut = progress.steps.filter((s) => s.state === 'blocked' && !s.elsewhere)
        expect(progress.due).toBe(open[0] ?? waits[0] ?? shut[0])
        expect(progress.meanwhile).toEqual(open.slice(1))
        expect(progress.total - progress.done).toBe(open.length + waits.length + shut.length)
      }),
      { numRuns: times(80, 200) },
    )
  })
  it('no step opens before those it needs', () => {
    fc.assert(
      fc.property(states, ({ sheet, facts, done }) => {
        const route = routeOf(sheet)
        const progress = progressOf(route, deriveFacts(sheet, facts), new Set(done))
        const stateOf = new Map(progress.steps.map((s) => [s.step.id, s.state]))
        for (const s of progress.steps)
          if (s.state === 'open')
            for (const n of s.step.needs) expect(['done', 'not-here']).toContain(stateOf.get(n))
      }),
      { numRuns: times(80, 200) },
    )
  })
  it('answers either close a step or are refused by name; never anything else', () => {
    let [closed, refused] = [0, 0]
    const tries = times(160, 400)
    fc.assert(
      fc.property(
        states.chain((state) => {
          const step = routeOf(state.sheet).steps.find((s) => s.id === state.step)!
          return fc.tuple(fc.constant(state), fc.tuple(...step.asks.map(answerTo)))
        }),
        ([{ sheet, facts, done, step: id }, values]) => {
          const route = routeOf(sheet)
          const step = route.steps.find((s) => s.id === id)!
          // everything before it is done, so that the answers get their turn
          const before = route.steps.slice(0, route.steps.indexOf(step)).map((s) => s.id)
          const already = new Set([...before, ...done.filter((d) => d !== id)])
          const answers: Answers = {}
          step.asks.forEach((a, i) => {
            if (values[i] !== undefined) answers[a.fact] = values[i]
          })
          const known = deriveFacts(sheet, { ...facts, ...passing })
          try {
            const result = completeStep(route, known, already, id, answers, {
              derive: (f) => deriveFacts(sheet, f),
            })
            closed++
            expect(result.departedFrom).toEqual([])
            const after = deriveFacts(sheet, { ...known, ...result.answers })
            for (const a of step.asks.filter((x) => isWanted(x, after)))
              expect(result.answers[a.fact], a.fact).toBeDefined()
          } catch (e) {
            refused++
            if (!(e instanceof InputError)) throw e
            expect(CODES).toContain(e.code)
            expect(e.fields.length).toBeGreaterThan(0)
            for (const f of e.fields) expect(f.message.length).toBeGreaterThan(5)
          }
        },
      ),
      { numRuns: tries },
    )
    // both ways were walked
    expect(closed).toBeGreaterThan(tries / 40)
    expect(refused).toBeGreaterThan(tries / 4)
  })
})

/** Gates of the other pages, all open. */
const passing: Facts = {
  'setting.stacks-known': true,
  'setting.accepted': true,
  'setting.all-in': true,
  'row.missing': 0,
  'row.inside-left': 0,
  'grades.open': 0,
  'estimate.choice': 'rebuild',
  'leak-case.proved': true,
  'leak-joined.proved': true,
  'fill.topped': 20,
}

describe('taking a step back', () => {
  it('takes all that needs it, and nothing that does not', () => {
    fc.assert(
      fc.property(states, ({ sheet, step }) => {
        const route = routeOf(sheet)
        const falling = new Set([step, ...dependentsOf(route, step)])
        for (const s of route.steps) {
          const needsOne = s.needs.some((n) => falling.has(n))
          if (s.id !== step) expect(falling.has(s.id)).toBe(needsOne)
        }
      }),
      { numRuns: 120 },
    )
  })
})

describe('steps that ask nothing', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'of %s say what to do, or wait for another page',
    (_, sheet) => {
      for (const s of routeOf(sheet).steps.filter((x) => x.asks.length === 0 && x.wants === undefined)) {
        const says = (s.instruct?.length ?? 0) > 0 || s.turn !== undefined || s.why.length > 30
        expect(closesItself(s) ? s.page !== undefined : says, s.id).toBe(true)
      }
      for (const s of routeOf(sheet).steps.filter(closesItself)) {
        expect(s.asks, s.id).toEqual([])
        expect(s.gates.length, s.id).toBeGreaterThan(0)
      }
    },
  )
})
