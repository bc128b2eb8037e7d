import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { completeStep, type Answers } from '../../src/route/complete.ts'
import type { Facts } from '../../src/route/facts.ts'
import { deriveFacts } from '../../src/route/job-facts.ts'
import { progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { slips, type SlipId } from '../../src/route/slips.ts'
import { carefulAnswers } from '../../src/simulation/careful-hand.ts'
import { virtualCase } from '../../src/simulation/virtual-case.ts'
import { random, refused } from '../refused.ts'

/** What the other pages of a job say once everything there is done. */
const ELSEWHERE: Facts = {
  'job.water': 'salt',
  'school.filling': 'mounted',
  'school.big-ring': 'mounted',
  'setting.stacks-known': true,
  'setting.accepted': true,
  'setting.stack.cover': 0.5,
  'setting.stack.top': 0.5,
  'row.missing': 0,
  'row.inside-left': 0,
  'row.left': 0,
  'grades.open': 0,
  'estimate.choice': 'rebuild',
  'faults.seen': 2,
  'waited.seals': 3,
}

/** Walks a route with a careful hand; `meddle` may spoil the answers of a step before they go in. */
function walk(
  sheet: DriveSheet,
  meddle: (step: string, answers: Answers, facts: Facts, done: ReadonlySet<string>) => void = () => {},
  start: Facts = ELSEWHERE,
): { facts: Facts; done: Set<string> } {
  const route = routeOf(sheet)
  const r = random(11)
  const hand = { gearcase: virtualCase(sheet, r), random: r }
  const derive = (f: Facts) => deriveFacts(sheet, f)
  const done = new Set<string>()
  let facts = derive(start)
  for (;;) {
    const { due } = progressOf(route, facts, done)
    if (!due) return { facts, done }
    const answers = carefulAnswers(hand, due.step, facts)
    meddle(due.step.id, answers, facts, done)
    const closed = completeStep(route, facts, done, due.step.id, answers, { derive })
    facts = derive({ ...facts, ...closed.answers })
    done.add(due.step.id)
  }
}

describe('a careful hand', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('walks the whole route of %s', (_, sheet) => {
    const { done, facts } = walk(sheet)
    const here = progressOf(routeOf(sheet), facts, done)
    expect(here.done).toBe(here.total)
    expect(done.has('handover')).toBe(true)
    expect(facts['leak-case.verdict']).toBe(sheet.bench.leak ? 'tight' : undefined)
    expect(facts['leak-joined.verdict']).toBe(sheet.bench.joins?.oilJoint ? 'tight' : undefined)
  })
  it('hands a drive back as it is when the owner stops', () => {
    const { done } = walk(demoSheets[0]!, undefined, { ...ELSEWHERE, 'estimate.choice': 'stop' })
    for (const id of ['seals', 'leak-case', 'join', 'first-run']) expect(done.has(id), id).toBe(false)
    expect(done.has('handover')).toBe(true)
  })
})

/** The slip as somebody would commit it: at which step, with which answer, or with what the job looks like then. */
type Slip = { step: string; answers?: Answers; facts?: Facts; words: RegExp }

const COMMITTED: Partial<Record<SlipId, Slip>> = {
  'shims-left': {
    step: 'inside',
    facts: { 'row.inside-left': 2 },
    words: /still lie in the row: shims, spacers/,
  },
  'shim-stuck': { step: 'shims', answers: { 'shims.looked': false }, words: /stays on the old gear/ },
  'shims-mixed': { step: 'shims', answers: { 'shims.bagged': false }, words: /bag and name each/ },
  'washer-wrong': {
    step: 'inside',
    answers: { 'inside.washer': 'other' },
    words: /missing or turned round changes every reading/,
  },
  'cage-turned': {
    step: 'cages',
    answers: { 'cages.way': 'guess' },
    words: /way round nobody knows is renewed/,
  },
  'wrong-ring': { step: 'press', answers: { 'press.ring': 'other' }, words: /dented before it has turned/ },
  'race-letters': { step: 'press', answers: { 'press.letters': 'other' }, words: /letters belong/ },
  'seal-springs': {
    step: 'seals',
    answers: { 'seals.springs': 'both outward' },
    words: /springs are facing each other/,
  },
  'big-seal-first': { step: 'seals', answers: { 'seals.order': 'big' }, words: /start with the small one/ },
  'old-o-ring': {
    step: 'o-rings',
    answers: { 'rings.grooves': 'unseen' },
    words: /old ring hides under the new one/,
  },
  'o-ring-dry': {
    step: 'oil-again',
    answers: { 'rings.again': false },
    words: /waited for days\. Oil each again/,
  },
  'captive-bolt': { step: 'splines', answers: { 'join.captive': 'not' }, words: /can only go in now/ },
  'key-early': {
    step: 'close',
    answers: { 'close.key': 'before' },
    words: /start the carrier, then the key/,
  },
  'cross-thread': { step: 'close', answers: { 'close.threads': 'tool' }, words: /start it by hand/ },
  'prop-in-gear': {
    step: 'propeller',
    answers: { 'prop.gear': 'gear' },
    words: /torque goes through the teeth/,
  },
  'adapter-plain': {
    step: 'ring-mounted',
    answers: { 'close.adapter': 'straight', 'close.wrench': 500, 'close.offset': 120, 'close.setting': 210 },
    words: /lengthens the arm: set the wrench lower/,
  },
  'nut-back': {
    step: 'ring-mounted',
    answers: { 'tighten.meet': 'back' },
    words: /backed off to meet a tab has lost its clamp/,
  },
  'few-tabs': { step: 'propeller', answers: { 'prop.tabs': 1 }, words: /asks for 2 tabs/ },
  'cover-crushed': {
    step: 'turn-closed',
    answers: { 'closed.feel': 'tight' },
    words: /drawn down too far crushes its bearing/,
  },
  'pulled-up': { step: 'join', answers: { 'join.gap': 'bolts' }, words: /Bolts that pull a case up/ },
  'tube-down': { step: 'splines', answers: { 'join.tube': 'other' }, words: /folds its grommet/ },
  'shift-notch': { step: 'join', answers: { 'join.notch': 'drags' }, words: /notch is not under it/ },
  'gears-differ': {
    step: 'join-gear',
    answers: { 'join.other': 'forward' },
    words: /Both belong in neutral/,
  },
  'shaft-end': { step: 'splines', answers: { 'join.end-face': 'greased' }, words: /Wipe it off/ },
  'block-left': {
    step: 'leak-case',
    answers: { 'leak-case.blocks-off': 'p1' },
    words: /Not the same came off as were put on/,
  },
  'plug-gasket': {
    step: 'leak-case',
    answers: { 'leak-case.gasket': 'old' },
    words: /old gasket leaks by itself/,
  },
  'over-pressure': {
    step: 'leak-case',
    answers: { 'leak-case.start': 140 },
    words: /Above the sheet's 100 kPa/,
  },
  breakaway: {
    step: 'preload',
    answers: { 'preload.moving': 'start' },
    words: /peak at the start is not the rolling torque/,
  },
  indicator: { step: 'as-found', answers: { 'found.indicator': 'doubtful' }, words: /Set it up again/ },
  'gauge-dirty': { step: 'trial-in', answers: { 'gauge.clean': 'unsure' }, words: /Grit under an arbor/ },
  variant: { step: 'identify', answers: { 'id.stamp': 'L14' }, words: /not the drive of this sheet/ },
  'lower-ratio': { step: 'ratio', answers: { 'ratio.input-turns': 20 }, words: /another ratio is on it/ },
  'wrong-hub': { step: 'parts-in', answers: { 'parts.hub': 'other' }, words: /belongs to this propeller/ },
  'not-topped': {
    step: 'fill-mounted',
    answers: { 'fill.settled': 'not' },
    words: /Look again and top it up/,
  },
  'trial-state': { step: 'trial-out', answers: { 'trial.out': 1 }, words: /Not as many undone as put in/ },
  'look-alike': { step: 'parts-in', answers: { 'parts.bores': 'sight' }, words: /differ in the bore/ },
  'oil-hole': { step: 'press', answers: { 'press.oil': 'covered' }, words: /starves the bearing/ },
  'wrong-plug': {
    step: 'fill-mounted',
    answers: { 'fill.plug': 'plain' },
    words: /magnetic plug belongs here/,
  },
  'test-skipped': {
    step: 'fill-mounted',
    facts: { 'leak-case.verdict': 'too-short' },
    words: /no filling before the test/,
  },
  shavings: { step: 'clean', answers: { 'clean.case': 'shavings' }, words: /run straight into the bearings/ },
  solvent: { step: 'clean', answers: { 'clean.solvent': 'got' }, words: /swells seals and lifts paint/ },
  'waste-oil': {
    step: 'drain',
    answers: { 'drain.waste': 'elsewhere' },
    words: /can for the collection point/,
  },
}

describe('slips that the route catches', () => {
  const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!
  const own = Object.entries(slips).filter(([, [, by]]) => by === 'route')
  it('are all committed here, and no others', () => {
    expect(Object.keys(COMMITTED).sort()).toEqual(own.map(([id]) => id).sort())
  })
  it.each(own.map(([id, [what]]) => [id as SlipId, what] as const))('%s: %s', (id) => {
    const { step, answers = {}, facts = {}, words } = COMMITTED[id]!
    let stopped = false
    walk(lomvi, (at, right, known, done) => {
      if (at !== step) return
      const derive = (f: Facts) => ({ ...deriveFacts(lomvi, f), ...facts })
      const error = refused(() =>
        completeStep(routeOf(lomvi), derive(known), done, step, { ...right, ...answers }, { derive }),
      )
      expect(['slip', 'gate-closed', 'answer-missing']).toContain(error.code)
      expect(error.fields.map((f) => f.message).join(' ')).toMatch(words)
      // the right answers go on: nothing else stood in the way
      completeStep(routeOf(lomvi), known, done, step, right, { derive: (f) => deriveFacts(lomvi, f) })
      stopped = true
    })
    expect(stopped, `${step} was never reached`).toBe(true)
  })
  it('are tagged at the question or gate that catches them, on some drive', () => {
    const tagged = new Set(
      demoSheets.flatMap((s) =>
        routeOf(s).steps.flatMap((step) => [...step.asks, ...step.gates].flatMap((x) => x.slip ?? [])),
      ),
    )
    expect([...tagged].sort()).toEqual(own.map(([id]) => id).sort())
  })
  it('cannot be skipped by going to the next step: filling needs the second test', () => {
    const sheet = demoSheets.find((s) => s.id === 'alke-2-lower')!
    const route = routeOf(sheet)
    const { facts } = walk(sheet)
    const before = new Set(
      route.steps
        .slice(
          0,
          route.steps.findIndex((s) => s.id === 'leak-joined'),
        )
        .map((s) => s.id),
    )
    const error = refused(() => completeStep(route, facts, before, 'fill-mounted', {}))
    expect(error.code).toBe('gate-closed')
    expect(error.message).toContain('First: Prove it tight again')
  })
})

describe('docs/slips.md', () => {
  it('names every slip, and the step that stops it', () => {
    const text = readFileSync(new URL('../../../docs/slips.md', import.meta.url), 'utf8')
    for (const [id, [what, by]] of Object.entries(slips)) {
      const line = text.split('\n').find((l) => l.startsWith(`| ${what} `))
      expect(line, id).toBeDefined()
      if (by === 'route') expect(line).toContain(`\`${COMMITTED[id as SlipId]!.step}\``)
    }
  })
})
