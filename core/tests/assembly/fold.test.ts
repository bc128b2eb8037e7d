import { describe, expect, it } from 'vitest'
import type { Deed } from '../../src/assembly/act.ts'
import { assemblyIndex } from '../../src/assembly/assembly-index.ts'
import { fold } from '../../src/assembly/fold.ts'
import { invariants, mayLeave } from '../../src/assembly/invariants.ts'
import { isProved, jointAt, type AssemblyState } from '../../src/assembly/state.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { numbered } from './described.ts'

const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!
const ix = assemblyIndex(lomvi)
const after = (...deeds: Deed[]) => fold(ix, numbered(deeds))
const red = (state: AssemblyState) =>
  invariants(ix, state)
    .filter((l) => l.colour === 'red')
    .map((l) => `${l.code} ${l.on}`)
const at = (state: AssemblyState, joint: string) => jointAt(state, ix.joints.get(joint)!)

const came: Deed = { do: 'came', on: 'unit', fig: { came: 'mounted' } }
const out: Deed = { do: 'remove', on: 'carrier' }
const back: Deed[] = [
  { do: 'fit', on: 'carrier' },
  { do: 'fit', on: 'carrier-key' },
  { do: 'fit', on: 'ring-nut' },
  { do: 'tighten', on: 'big-ring' },
  { do: 'lock', on: 'big-ring' },
]
const propeller: Deed[] = [
  ...['thrust-hub', 'propeller', 'prop-lock'].map((on): Deed => ({ do: 'fit', on })),
  { do: 'tighten', on: 'propeller-nut' },
  { do: 'lock', on: 'propeller-nut' },
  { do: 'know', on: 'propeller-turns' },
]
const prove: Deed = { do: 'prove', on: 'case', fig: { verdict: 'good' } }
const oil: Deed[] = [
  { do: 'fill', on: 'case' },
  { do: 'settle', on: 'case' },
]

describe('the carrier of an outboard, out for its seals and in again', () => {
  it('as it came is nobody’s business', () => expect(red(after(came).state)).toEqual([]))
  it('comes with its lot; what was before it is concluded', () => {
    const { state, inferred } = after(came, out)
    expect(inferred.map((d) => `${d.do} ${d.on}`)).toEqual([
      'loosen propeller-nut',
      'take-out propeller-nut',
      'remove propeller',
      'remove thrust-hub',
      'loosen big-ring',
      'take-out big-ring',
    ])
    expect(state.parts.get('carrier')).toMatchObject({ at: 'tray', moved: true })
    for (const id of ['prop-seals', 'carrier-ring', 'carrier-needle'])
      expect(state.parts.get(id)).toMatchObject({ at: 'tray', lot: 'carrier' })
    expect(state.parts.get('prop-shaft')!.at).toBe('in')
    expect([at(state, 'carrier'), at(state, 'propshaft'), at(state, 'shift')]).toEqual([
      'open',
      'open',
      'shut',
    ])
    expect(state.spaces.get('case')!.at).toBe('out')
    expect(red(state)).toEqual(
      expect.arrayContaining([
        'part-not-in carrier',
        'part-not-in prop-seals',
        'group-not-tight big-ring',
        'space-empty case',
      ]),
    )
  })
  it('back with its lot is shut, and proved only by a test after that', () => {
    const early = after(came, prove, out, ...back)
    expect(at(early.state, 'carrier')).toBe('shut')
    expect(red(early.state)).toContain('joint-not-proved carrier')
    const late = after(came, out, ...back, prove)
    expect(red(late.state)).not.toContain('joint-not-proved carrier')
  })
  it('with a lip left out for a trial is dry-fitted, and no test proves it', () => {
    const trial: Deed = { do: 'leave-out', on: 'prop-seals', fig: { until: 'trial' } }
    const { state } = after(came, out, { do: 'press-out', on: 'prop-seals' }, trial, ...back, prove)
    expect(at(state, 'propshaft')).toBe('dry-fitted')
    expect(red(state)).toEqual(expect.arrayContaining(['part-not-in prop-seals', 'joint-not-shut propshaft']))
  })
  it('with everything done has no line left; a nut that is only snug has one', () => {
    const all = [came, out, ...back, prove, ...oil, ...propeller, { do: 'know', on: 'shift' } as const]
    expect(red(after(...all).state)).toEqual([])
    expect(mayLeave(invariants(ix, after(...all).state))).toBe(true)
    const snug = after(...all.filter((d) => !(d.do === 'tighten' && d.on === 'big-ring')), {
      do: 'snug',
      on: 'big-ring',
    })
    expect(red(snug.state)).toContain('group-not-tight big-ring')
  })
  it('of a unit that stays as it is asks for nothing but what could hurt', () => {
    const end: Deed = { do: 'end', on: 'unit', fig: { end: 'as-it-is' } }
    expect(red(after(came, out, end).state)).toEqual([])
    const unsafe: Deed = { do: 'grade', on: 'housing', fig: { condition: 'unsafe', why: 'cracked' } }
    // it carries a tag: nobody runs it
    expect(red(after(came, out, unsafe, end).state)).toEqual([])
    expect(red(after(came, unsafe, { ...end, fig: { end: 'boat' } }).state)).toEqual(['unsafe-in housing'])
    expect(red(after(came, { do: 'press', on: 'unit' }, end).state)).toEqual(['pressure-on unit'])
  })
  it('a line that is accepted by name is no longer red until something is opened again; what is unsafe stays so', () => {
    const condemned: Deed = { do: 'grade', on: 'prop-shaft', fig: { condition: 'condemned', why: 'graded' } }
    const waived: Deed = { do: 'waive', on: 'condemned-in prop-shaft' }
    expect(red(after(came, condemned).state)).toEqual(['condemned-in prop-shaft'])
    const { state } = after(came, condemned, waived)
    expect(red(state)).toEqual([])
    expect(invariants(ix, state)).toEqual([{ code: 'condemned-in', on: 'prop-shaft', colour: 'accepted' }])
    expect(red(after(came, condemned, waived, { do: 'loosen', on: 'propeller-nut' }).state)).toContain(
      'condemned-in prop-shaft',
    )
    const unsafe: Deed = { do: 'grade', on: 'prop-shaft', fig: { condition: 'unsafe', why: 'bent' } }
    expect(red(after(came, unsafe, { do: 'waive', on: 'unsafe-in prop-shaft' }).state)).toEqual([
      'unsafe-in prop-shaft',
    ])
  })
})

describe('a setting', () => {
  const setting = (id: string) => ix.settings.get(id)!
  const accepted: Deed = { do: 'accept', on: 'bearing:driveshaft-lower', fig: { build: 1 } }
  it('is proved for the very pieces that it was read on', () => {
    const { state } = after(came, accepted)
    expect(isProved(state, setting('bearing:driveshaft-lower'))).toBe(true)
    const renewed = after(came, accepted, { do: 'renew', on: 'driveshaft-tapers' }).state
    expect(isProved(renewed, setting('bearing:driveshaft-lower'))).toBe(false)
  })
  it('is parted by loosening the nut that preloads it, however little comes off', () => {
    const { state } = after(
      came,
      accepted,
      { do: 'loosen', on: 'pinion-nut' },
      { do: 'tighten', on: 'pinion-nut' },
    )
    expect(red(state)).toContain('setting-not-proved bearing:driveshaft-lower')
  })
  it('is another one with another stack', () => {
    const depth: Deed = { do: 'accept', on: 'depth', fig: { build: 1 } }
    const moved = after(came, depth, { do: 'adjust', on: 'pinion', fig: { stack: '0.800' } }).state
    expect(red(moved)).toContain('setting-not-proved depth')
    const { state } = after(came, { do: 'adjust', on: 'pinion', fig: { stack: '0.800' } }, depth)
    expect(red(state)).not.toContain('setting-not-proved depth')
  })
  it('seated again with the same parts is proved by one check', () => {
    const check: Deed = { do: 'measure', on: 'backlash-reverse', fig: { check: true, verdict: 'good' } }
    const whole: Deed = { do: 'came', on: 'unit', fig: { came: 'whole' } }
    expect(red(after(whole, out, ...back).state)).toContain('setting-not-proved backlash-reverse')
    expect(red(after(whole, out, ...back, check).state)).not.toContain('setting-not-proved backlash-reverse')
    // a reading that proves nothing is one all the same
    const bad: Deed = { ...check, fig: { check: true, verdict: 'bad' } }
    expect(red(after(whole, out, ...back, bad).state)).toContain('setting-not-proved backlash-reverse')
  })
})

describe('new gears', () => {
  it('leave what is pressed on the old ones to the scrap, unless it was pressed off', () => {
    const { state } = after(came, { do: 'renew', on: 'reverse-gear' })
    expect(state.parts.get('reverse-ball')).toMatchObject({ condition: 'condemned', why: 'pressed-on-scrap' })
    const off: Deed[] = [
      { do: 'remove', on: 'reverse-gear' },
      { do: 'press-out', on: 'reverse-ball' },
      { do: 'renew', on: 'reverse-gear' },
    ]
    expect(after(came, ...off).state.parts.get('reverse-ball')!.condition).toBe('unknown')
    expect(red(state)).toContain('not-checked ratio')
  })
})

describe('oil and metal', () => {
  it('runs out where a joint below the level is opened, and is in again only once it has settled', () => {
    const { state } = after(came, { do: 'take-out', on: 'drain' }, { do: 'drain', on: 'case' })
    expect(state.spaces.get('case')!.at).toBe('out')
    const filled = after(came, { do: 'drain', on: 'case' }, { do: 'fill', on: 'case' }).state
    expect(red(filled)).toContain('space-not-settled case')
    expect(
      red(after(came, { do: 'drain', on: 'case' }, { do: 'leave-dry', on: 'case' }).state),
    ).not.toContain('space-empty case')
  })
  it('the screws of the ports are proved by being dry after the run, and by nothing else', () => {
    const drained: Deed[] = [
      { do: 'take-out', on: 'drain' },
      ...oil,
      { do: 'tighten', on: 'drain' },
      { do: 'lock', on: 'drain' },
    ]
    expect(red(after(came, ...drained, prove).state)).toEqual(['joint-not-proved drain'])
    expect(red(after(came, ...drained, { do: 'run', on: 'unit', fig: { dry: true } }).state)).toEqual([])
  })
  it('what was found is open until it is accounted for; what was put in, until it is taken away', () => {
    const open: Deed[] = [
      { do: 'find', on: 'chip' },
      { do: 'put-in', on: 'blank' },
    ]
    expect(red(after(came, ...open).state)).toEqual(['temporary-in blank', 'open-item chip'])
    expect(
      red(after(came, ...open, { do: 'account', on: 'chip' }, { do: 'take-away', on: 'blank' }).state),
    ).toEqual([])
  })
})

describe('a unit of two cases', () => {
  const lower = demoSheets.find((s) => s.id === 'alke-2-lower')!
  const two = assemblyIndex(lower)
  const run = (...deeds: Deed[]) =>
    invariants(two, fold(two, numbered(deeds)).state).map((l) => `${l.code} ${l.on}`)
  it('is not proved by a test of one half while both share their oil', () => {
    expect(run(came, out, ...back, prove)).toContain('joint-not-proved carrier')
    expect(run(came, { do: 'part', on: 'mount' }, out, ...back, prove)).not.toContain(
      'joint-not-proved carrier',
    )
    expect(run(came, out, ...back, { ...prove, on: 'joined' })).not.toContain('joint-not-proved carrier')
  })
  it('that was parted is not whole before it is joined', () => {
    expect(run(came, { do: 'part', on: 'mount' })).toEqual(
      expect.arrayContaining(['interface-open mount', 'not-checked shift']),
    )
    expect(run(came, { do: 'part', on: 'mount' }, { do: 'join', on: 'mount' })).not.toContain(
      'interface-open mount',
    )
  })
})
