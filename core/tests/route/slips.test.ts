import { caseTest, joinedTest } from '../../src/drives/graph/unit-facts.ts'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { completeStep, type Answers } from '../../src/route/complete.ts'
import type { Facts } from '../../src/route/facts.ts'
import { deriveFacts } from '../../src/route/job-facts.ts'
import { progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { slips, type SlipId } from '../../src/route/slips.ts'
import { refused } from '../refused.ts'
import { routeAt, startOf, walk } from './walk.ts'

const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!

describe('a careful hand', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('walks the whole route of %s', (_, sheet) => {
    const { done, facts } = walk(sheet)
    const here = progressOf(routeOf(sheet), facts, done)
    expect(here.done).toBe(here.total)
    expect(done.has('handover')).toBe(true)
    expect(facts['leak-case.verdict']).toBe(caseTest(sheet.graph) ? 'tight' : undefined)
    expect(facts['leak-joined.verdict']).toBe(joinedTest(sheet.graph) ? 'tight' : undefined)
  })
  it('hands a drive back as it is when the owner stops', () => {
    const { done } = walk(demoSheets[0]!, startOf(demoSheets[0]!, undefined, {}, 'stop'))
    for (const id of ['seals', 'leak-case', 'join', 'first-run']) expect(done.has(id), id).toBe(false)
    expect(done.has('handover')).toBe(true)
  })
})

/** Slips that a figure, a gate or a count stops: how somebody commits one, and the words that meet him. */
type Slip = { step: string; answers?: Answers; facts?: Facts; words: RegExp }

const STOPPED: Partial<Record<SlipId, Slip>> = {
  'shims-left': {
    step: 'inside',
    facts: { 'row.inside-left': 2 },
    words: /still lie in the row: shims, spacers/,
  },
  'adapter-plain': {
    step: 'ring-mounted',
    answers: { 'close.adapter': 'straight', 'close.wrench': 500, 'close.offset': 120, 'close.setting': 210 },
    words: /lengthens the arm: set the wrench lower/,
  },
  'few-tabs': { step: 'propeller', answers: { 'prop.tabs': 1 }, words: /asks for 2 tabs/ },
  'cover-crushed': {
    step: 'turn-closed',
    answers: { 'closed.feel': 'tight' },
    words: /drawn down too far crushes/,
  },
  'block-left': {
    step: 'leak-case',
    answers: { 'leak-case.blocks-off': 'p1' },
    words: /Not the same came off/,
  },
  'over-pressure': {
    step: 'leak-case',
    answers: { 'leak-case.start': 140 },
    words: /Above the sheet's 100 kPa/,
  },
  variant: { step: 'approve', facts: { 'id.stamp': 'L14' }, words: /stamp is that of another variant/ },
  'lower-ratio': {
    step: 'approve',
    facts: { 'ratio.input-turns': 20, 'ratio.output-turns': 10 },
    words: /another ratio is on it/,
  },
  'not-topped': {
    step: 'fill-mounted',
    answers: { 'fill.topped': undefined as never },
    words: /Topped up after it had settled/,
  },
  'trial-state': {
    step: 'trial-out',
    answers: { 'trial.out': 'lips' },
    words: /Not all that was put in is undone/,
  },
  'test-skipped': {
    step: 'fill-mounted',
    facts: { 'leak-case.proved': false },
    words: /no filling before the test/,
  },
}

const CAUGHT_ELSEWHERE: SlipId[] = [
  'wrench-range',
  'temperature-leak',
  'turn-counter',
  'inch-for-mm',
  'blip-runout',
  'too-early',
]

const caught = (...by: string[]) =>
  Object.entries(slips)
    .filter(([, [, how]]) => by.includes(how))
    .map(([id]) => id as SlipId)

describe('slips that are computed or counted', () => {
  const own = caught('computed', 'counted').filter((id) => !CAUGHT_ELSEWHERE.includes(id))
  it('are all committed here, and no others', () =>
    expect(Object.keys(STOPPED).sort()).toEqual([...own].sort()))
  it.each(own.map((id) => [id, slips[id][0]] as const))('%s: %s', (id) => {
    const { step, answers = {}, facts = {}, words } = STOPPED[id]!
    if (step === 'approve') {
      // work that is done elsewhere: the route stays shut there
      const state = progressOf(
        routeOf(lomvi),
        deriveFacts(lomvi, { ...startOf(lomvi), ...facts }),
        new Set(),
      ).steps.find((s) => s.step.id === step)!
      expect(state.why.join(' ')).toMatch(words)
      return
    }
    let stopped = false
    walk(lomvi, startOf(lomvi), (at, right, known, done) => {
      if (at !== step) return
      const route = routeAt(lomvi, known)
      const derive = (f: Facts) => ({ ...deriveFacts(lomvi, f), ...facts })
      const spoilt = Object.fromEntries(
        Object.entries({ ...right, ...answers }).filter(([, v]) => v !== undefined),
      ) as Answers
      let said: string
      try {
        said = completeStep(route, derive(known), done, step, spoilt, { derive }).attempt.join(' ')
      } catch (e) {
        said = (e as Error).message
      }
      expect(said).toMatch(words)
      // the right answers go on: nothing else stood in the way
      expect(
        completeStep(route, known, done, step, right, { derive: (f) => deriveFacts(lomvi, f) }).attempt,
      ).toEqual([])
      stopped = true
    })
    expect(stopped, `${step} was never reached`).toBe(true)
  })
})

describe('slips that are said before the act', () => {
  /** Every line that the drives say, with its slip and its step. */
  const lines = demoSheets.flatMap((sheet) =>
    routeOf(sheet).steps.flatMap((step) =>
      (step.instruct ?? []).flatMap((i) => (i.slip ? [{ sheet, step, ...i }] : [])),
    ),
  )
  it.each(
    caught('instructed', 'hold')
      .filter((id) => id !== 'left-hand')
      .map((id) => [id, slips[id][0]] as const),
  )('%s: %s', (id) => {
    const own = lines.filter((l) => l.slip === id)
    expect(own.length).toBeGreaterThan(0)
    for (const l of own) expect(l.say.length).toBeGreaterThan(20)
    // where nobody sees it again, the eye has to say what it saw
    if (slips[id][1] === 'hold') expect(own.some((l) => l.step.holdPoint)).toBe(true)
  })
  it('come with this drive’s own figures', () => {
    const said = (slip: SlipId, id: string) =>
      lines
        .filter((l) => l.slip === slip && l.sheet.id === id)
        .map((l) => l.say)
        .join(' ')
    expect(said('seal-springs', 'lomvi-90')).toContain('facing each other')
    expect(said('race-letters', 'alke-2-lower')).toContain('away from the gear')
    expect(said('captive-bolt', 'lomvi-90')).toContain('long stud of the front face')
    expect(said('wrong-hub', 'alke-2-lower')).toContain('cone hub')
  })
  it('a hold point does not close without two words or a picture', () => {
    walk(lomvi, startOf(lomvi), (at, right, known, done) => {
      const step = routeOf(lomvi).steps.find((s) => s.id === at)!
      if (!step.holdPoint) return
      const { [`${at}.seen`]: _, ...blind } = right
      const close = (facts: Facts) => completeStep(routeAt(lomvi, facts), facts, done, at, blind, {})
      expect(refused(() => close(known)).code).toBe('answer-missing')
      expect(close({ ...known, [`picture.${at}`]: true }).attempt).toEqual([])
    })
    expect.hasAssertions()
  })
})

it('filling cannot be reached by going to the next step: it needs the second test', () => {
  const sheet = demoSheets.find((s) => s.id === 'alke-2-lower')!
  const { facts, order } = walk(sheet)
  const before = new Set(order.slice(0, order.indexOf('leak-joined')))
  const error = refused(() => completeStep(routeAt(sheet, facts), facts, before, 'fill-mounted', {}))
  expect(error.code).toBe('gate-closed')
  expect(error.message).toContain('First: Prove it tight, both cases joined')
})

describe('docs/slips.md', () => {
  it('names every slip, how it is caught, and the step that does', () => {
    const text = readFileSync(new URL('../../../docs/slips.md', import.meta.url), 'utf8')
    for (const [id, [what, by]] of Object.entries(slips)) {
      const line = text.split('\n').find((l) => l.startsWith(`| ${what} `))
      expect(line, id).toBeDefined()
      expect(line, id).toMatch(new RegExp(`\\| ${by === 'hold' ? 'hold point' : by} +\\|`))
      const step = STOPPED[id as SlipId]?.step
      if (step) expect(line).toContain(`\`${step}\``)
    }
  })
})
