import { describe, expect, it } from 'vitest'
import { VERBS, type Deed, type Figures, type Verb } from '../../src/assembly/act.ts'
import { assemblyIndex } from '../../src/assembly/assembly-index.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { listed, story } from './described.ts'

/**
 * Whole jobs, act by act. What each act changes, and which lines of the list come and go with it, stands in a table beside this file and is approved by
 * reading it; an act that changes more or less than its table says fails here.
 */
const drive = (id: string) => assemblyIndex(demoSheets.find((s) => s.id === id)!)
const act = (verb: Verb, on: string, fig?: Figures): Deed => ({ do: verb, on, ...(fig ? { fig } : {}) })
const each = (verb: Verb, ...ids: string[]): Deed[] => ids.map((id) => act(verb, id))
const came = (how: Figures['came']) => act('came', 'unit', { came: how })
const good: Figures = { verdict: 'good' }
const tight = (...groups: string[]): Deed[] => groups.flatMap((g) => [act('tighten', g), act('lock', g)])
const oil: Deed[] = [...each('fill', 'case'), ...each('settle', 'case')]

const CASES: [name: string, sheet: string, acts: Deed[]][] = [
  [
    'seals-leak-at-the-shift-shaft-then-a-stop',
    'lomvi-90',
    [
      came('mounted'),
      act('take-out', 'drain'),
      act('drain', 'case'),
      act('part', 'mount'),
      act('remove', 'carrier'),
      ...each('remove', 'carrier-ring', 'prop-seals'),
      ...each('renew', 'carrier-ring', 'prop-seals'),
      ...each('fit', 'carrier-ring', 'prop-seals', 'carrier', 'carrier-key', 'ring-nut'),
      act('tighten', 'big-ring'),
      act('lock', 'big-ring'),
      act('tighten', 'drain'),
      act('press', 'unit'),
      act('prove', 'case', { verdict: 'bad' }),
      act('leak', 'shift'),
      act('let-out', 'unit'),
      act('end', 'unit', { end: 'as-it-is' }),
    ],
  ],
  [
    'gear-set-of-an-upper-with-sleeve-and-crush',
    'alke-2-upper',
    [
      came('whole'),
      act('take-out', 'drain'),
      act('drain', 'case'),
      ...each('remove', 'retainer-ring', 'input-gear', 'vertical-gear'),
      act('press-out', 'input-tapers'),
      act('renew', 'input-gear'),
      act('renew', 'vertical-gear'),
      act('press-in', 'input-tapers'),
      act('renew', 'input-spacer'),
      act('fit', 'input-spacer'),
      ...each('fit', 'vertical-gear', 'input-gear', 'retainer-ring', 'retainer'),
      act('adjust', 'input', { stack: '1.250' }),
      act('tighten', 'yoke-nut'),
      act('measure', 'bearing:input-inner', good),
      act('accept', 'bearing:input-inner', { build: 1 }),
      act('accept', 'backlash', { build: 1 }),
      ...tight('big-ring'),
      // the nut is backed off once more: both are gone
      act('loosen', 'yoke-nut'),
      act('tighten', 'yoke-nut'),
      act('know', 'ratio'),
    ],
  ],
  [
    'strike-with-a-cracked-lower-and-an-exchange',
    'lomvi-90',
    [
      came('mounted'),
      act('remove', 'propeller'),
      act('grade', 'housing', { condition: 'unsafe', why: 'cracked' }),
      act('grade', 'prop-shaft', { condition: 'unsafe', why: 'bent' }),
      // a better grade does not make it safe, another case does
      act('grade', 'housing', { condition: 'good' }),
      act('part', 'mount'),
      act('renew', 'housing'),
      act('remove', 'prop-shaft'),
      act('fit', 'prop-shaft'),
      act('end', 'unit', { end: 'stand' }),
      act('end', 'unit', { end: 'scrapped' }),
    ],
  ],
  [
    'service-that-finds-a-worn-pump',
    'lomvi-90',
    [
      came('mounted'),
      act('take-out', 'drain'),
      act('take-out', 'vent'),
      act('drain', 'case'),
      act('find', 'chip on the drain screw'),
      act('remove', 'pump-cover'),
      act('grade', 'pump-cover', { condition: 'dress', why: 'scored' }),
      act('grade', 'pump-cover', { condition: 'condemned', why: 'worn' }),
      act('renew', 'pump-cover'),
      act('fit', 'pump-cover'),
      ...tight('pump-screws'),
      act('join', 'mount'),
      ...tight('leg-bolts', 'captive', 'hidden'),
      ...tight('drain', 'vent'),
      ...oil,
      act('run', 'unit'),
      act('run', 'unit', { dry: true }),
      ...each('know', 'water', 'shift'),
      act('account', 'chip on the drain screw'),
      act('end', 'unit', { end: 'boat' }),
    ],
  ],
  [
    'threaded-carriers-with-rounds-and-locks',
    'rordrum-v',
    [
      came('whole'),
      act('loosen', 'carrier-lock'),
      act('adjust', 'carrier', { stack: '12 notches' }),
      act('measure', 'backlash', good),
      act('accept', 'backlash', { build: 1 }),
      act('adjust', 'carrier', { stack: '11 notches' }),
      act('accept', 'backlash', { build: 2 }),
      act('tighten', 'carrier-lock'),
      act('lock', 'carrier-lock'),
      act('loosen', 'left-hand'),
      act('tighten', 'left-hand'),
      act('measure', 'bearing:output-inner', { verdict: 'good', check: true }),
      act('prove', 'case', good),
    ],
  ],
  [
    'unit-in-boxes',
    'tjeld-8',
    [
      came('boxes'),
      ...each('remove', 'propeller', 'carrier', 'prop-shaft', 'pinion', 'forward-gear'),
      act('leave-out', 'carrier-ring', { until: 'trial' }),
      act('leave-out', 'anode', { until: 'good' }),
      act('end', 'unit', { end: 'boxes' }),
    ],
  ],
  [
    'four-trial-builds',
    'lomvi-90',
    [
      came('whole'),
      act('remove', 'pinion'),
      ...['0.749', '0.699', '0.649', '0.674'].flatMap((stack, i) => [
        act('adjust', 'pinion', { stack }),
        ...each('fit', 'pinion', 'driveshaft'),
        act('tighten', 'pinion-nut'),
        act('measure', 'depth', { verdict: i < 3 ? 'bad' : 'good' }),
        ...(i < 3 ? [act('remove', 'pinion')] : []),
      ]),
      ...['depth', 'backlash-forward'].map((on) => act('accept', on, { build: 4 })),
      act('adjust', 'forward', { stack: '0.351' }),
    ],
  ],
  [
    'unit-from-elsewhere',
    'alke-2-lower',
    [
      came('elsewhere'),
      act('prove', 'case', good),
      act('leave-dry', 'case'),
      act('put-in', 'blank at the shift rod'),
      act('join', 'mount'),
      act('take-away', 'blank at the shift rod'),
      act('prove', 'joined', good),
      act('end', 'unit', { end: 'stand' }),
    ],
  ],
  [
    'cone-of-an-upper-proved-by-itself-and-joined',
    'havsule-duo-upper',
    [
      came('whole'),
      act('remove', 'cone'),
      act('renew', 'cone'),
      act('fit', 'cone'),
      act('prove', 'case', good),
      act('part', 'mount'),
      act('prove', 'case', good),
      act('join', 'mount'),
      act('prove', 'joined', good),
    ],
  ],
  [
    'ring-left-out-for-a-trial-and-anode-for-good',
    'lomvi-90',
    [
      came('whole'),
      ...each('remove', 'carrier', 'carrier-ring'),
      act('leave-out', 'carrier-ring', { until: 'trial' }),
      ...each('fit', 'carrier', 'ring-nut'),
      act('snug', 'big-ring'),
      act('tighten', 'big-ring'),
      act('prove', 'case', good),
      act('remove', 'carrier'),
      act('fit', 'carrier-ring'),
      ...each('fit', 'carrier', 'ring-nut'),
      ...tight('big-ring'),
      act('prove', 'case', good),
      act('loosen', 'anode-screws'),
      act('take-out', 'anode-screws'),
      act('leave-out', 'anode', { until: 'good' }),
      act('leave-out', 'reverse-washer'),
      act('loosen', 'trim-tab'),
      act('loosen', 'trim-tab'),
      act('take-out', 'trim-tab'),
      act('take-out', 'trim-tab'),
      act('tighten', 'trim-tab'),
    ],
  ],
  [
    'gears-with-what-is-pressed-on-them',
    'lomvi-90',
    [
      came('whole'),
      act('remove', 'forward-gear'),
      act('grade', 'forward-taper', { condition: 'unsafe', why: 'cage broken' }),
      act('renew', 'forward-gear'),
      act('grade', 'forward-taper', { condition: 'good' }),
      act('renew', 'forward-taper'),
      act('grade', 'forward-taper', { condition: 'good', why: 'new' }),
      act('grade', 'forward-taper', { condition: 'good' }),
      act('remove', 'reverse-gear'),
      act('renew', 'reverse-gear'),
      act('renew', 'reverse-ball'),
      act('press-in', 'reverse-ball'),
      act('renew', 'clutch-dog'),
      act('renew', 'propeller'),
      act('fit', 'forward-gear'),
    ],
  ],
  [
    'work-told-afterwards',
    'tjeld-8',
    [
      came('mounted'),
      act('grade', 'forward-gear', { condition: 'good' }),
      act('fit', 'carrier'),
      act('tighten', 'pinion-nut'),
      act('remove', 'forward-gear'),
      act('remove', 'forward-gear'),
      act('press-out', 'forward-taper'),
      act('remove', 'nothing of this drive'),
      act('take-out', 'nothing of this drive'),
      act('waive', 'part-not-in forward-gear'),
      act('loosen', 'nothing of this drive'),
    ],
  ],
]

describe('a job, act by act', () => {
  it.each(CASES)('%s', async (name, sheet, acts) => {
    await expect(story(drive(sheet), acts)).toMatchFileSnapshot(`cases/${name}.txt`)
  })
  it('on an own sheet with almost nothing', async () => {
    const ix = assemblyIndex(filled(templateOf('outboard-fnr', 'own', 'Own')))
    const acts = [
      came('mounted'),
      ...each('remove', 'propeller', 'carrier', 'prop-seals'),
      act('renew', 'prop-seals'),
      ...each('fit', 'prop-seals', 'carrier'),
      act('prove', 'case', { verdict: 'unclear' }),
      act('prove', 'case', good),
    ]
    await expect(story(ix, acts)).toMatchFileSnapshot('cases/own-sheet-with-almost-nothing.txt')
  })
  it('with every act that there is', () => {
    const used = new Set(CASES.flatMap(([, , acts]) => acts.map((a) => a.do)))
    expect(Object.keys(VERBS).filter((v) => !used.has(v as Verb))).toEqual([])
  })
})

describe('what a sheet comes to', () => {
  it.each(['lomvi-90', 'alke-2-upper', 'havhest-r-upper', 'teist-6'])('%s', async (id) => {
    await expect(listed(drive(id))).toMatchFileSnapshot(`cases/index-of-${id}.txt`)
  })
})

const lomvi = drive('lomvi-90')
/** What one act more changes, after these. */
const adds = (before: Deed[], one: Deed) =>
  story(lomvi, [...before, one])
    .slice(story(lomvi, before).length)
    .trimEnd()
    .split('\n')
    .slice(1)

describe('an act', () => {
  const onRows = (Object.keys(VERBS) as Verb[]).filter((v) =>
    ['part', 'group', 'setting', 'joint', 'space', 'interface', 'test'].includes(VERBS[v]),
  )
  it.each(onRows)('%s, on a row that the drive has not, changes nothing', (verb) => {
    expect(adds([came('whole')], act(verb, 'nothing', { verdict: 'bad', check: true }))).toEqual([])
  })
  it.each<[verb: Verb, on: string, changes: string[]]>([
    ['came', 'unit', ['  ~ unit: mounted']],
    ['leave-out', 'dog-spring', ['  ~ part dog-spring: left-out, for good, was off']],
    ['grade', 'pinion', []],
    ['adjust', 'pinion', ['  ~ setting depth: touched', '  ~ setting backlash-forward: touched']],
    ['measure', 'depth', []],
    ['prove', 'case', []],
    ['run', 'unit', []],
    ['end', 'unit', []],
  ])('%s without its figures says the least that it can', (verb, on, changes) => {
    expect(adds([came('whole')], act(verb, on)).slice(0, 2)).toEqual(changes)
  })
  it('has its place: a topic is known only after what made it unknown', () => {
    const off = [came('whole'), act('remove', 'propeller')]
    expect(adds([came('whole'), act('know', 'propeller-turns')], off[1]!)).toContain(
      '  + not-checked propeller-turns',
    )
    expect(adds(off, act('know', 'propeller-turns'))).toContain('  - not-checked propeller-turns')
  })
  it('opens handover with the last line that goes', () => {
    const open = [came('whole'), act('loosen', 'anode-screws')]
    expect(adds(open, act('tighten', 'anode-screws'))).toContain('  may leave')
    expect(adds([came('whole')], act('loosen', 'anode-screws'))).toContain('  must not leave')
  })
})
