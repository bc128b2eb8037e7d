import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { GAUGE_KIND_IDS, type GaugeKindId } from '../../src/measuring/gauge-kinds.ts'
import {
  canRead,
  masterFor,
  masterLength,
  offeredGauges,
  type ReadingGauge,
} from '../../src/reading/gauges.ts'
import type { TypedReading } from '../../src/reading/kind.ts'
import { howWords } from '../../src/reading/kinds.ts'
import { correctReading, questionOf, takeReading } from '../../src/reading/take.ts'
import type { Measured } from '../../src/setting/measured.ts'
import { settingMeasures } from '../../src/setting/measures.ts'
import { runoutMeasures } from '../../src/setting/shaft-stations.ts'
import { refused } from '../refused.ts'

const all = demoSheets.flatMap((s): Measured[] => [...settingMeasures(s), ...runoutMeasures(s)])
const ofKind = <K extends Measured['kind']>(kind: K, is: (m: Measured) => boolean = () => true) =>
  all.find((m): m is Extract<Measured, { kind: K }> => m.kind === kind && is(m))!
const backlash = ofKind('backlash')
const runout = ofKind('runout')
const crush = ofKind('crush')
const seat = ofKind('seat')
const torque = ofKind('rolling-torque', (m) => m.kind === 'rolling-torque' && m.nmPerMm !== undefined)
const endPlay = ofKind('end-play')
const method = (name: string) => ofKind('depth', (m) => m.kind === 'depth' && m.how.method === name)

const gauge = (kind: GaugeKindId, more: Partial<ReadingGauge> = {}): ReadingGauge => ({
  id: kind,
  name: kind,
  kind,
  resolution: 0.01,
  mpe: 0.01,
  repeatability: 0.005,
  perTurnMm: null,
  masters: [],
  retired: false,
  ...more,
})
const dial = gauge('plunger-dial', { perTurnMm: 1 })
const NOTHING_YET = { window: {}, counted: [] }
const take = (m: Measured, typed: Partial<TypedReading>, g: ReadingGauge = dial) =>
  takeReading(m, { text: '.40', unit: 'mm', ...typed }, g, NOTHING_YET)
const pathOf = (run: () => unknown) => refused(run).fields[0]!.path

describe('a reading of each kind', () => {
  it('plain: what the gauge showed is what is judged, and nothing is said of it', () => {
    expect(take(endPlay, { text: '.31' })).toMatchObject({ raw: 0.31, value: 0.31, unit: 'mm', how: null })
    expect(pathOf(() => take(endPlay, { text: '-.1', confirmed: true }))).toBe('text')
  })
  it('clock: backlash may go without its place, a runout may not, and only a runout lies along a shaft', () => {
    expect(take(backlash, {}).how).toBeNull()
    expect(pathOf(() => take(runout, { text: '0' }))).toBe('clockDeg')
    expect(take(runout, { text: '-.02', clockDeg: 45, alongMm: 120 })).toMatchObject({
      value: -0.02,
      how: { atMm: 120 },
    })
    expect(pathOf(() => take(backlash, { alongMm: 3 }))).toBe('alongMm')
  })
  it('swing: the turning point counts, and its scatter may be more than the gauge repeats', () => {
    const depth = method('master-drop')
    const probe = gauge('depth-gauge', {
      masters: [
        { id: 'm', label: 'Master', lengthMm: depth.how.method === 'master-drop' ? depth.how.masterMm : 0 },
      ],
    })
    const samples = [11.64, 11.6, 11.58, 11.6, 11.64].map((mm, at) => ({ at, text: String(mm) }))
    const read = take(depth, { text: '11.64', swing: samples, extreme: 'lowest' }, probe)
    expect(read.raw).toBeCloseTo(11.58, 2)
    expect(read.how?.swing?.samples).toHaveLength(5)
    const rough = samples.map((s, i) => ({ ...s, text: String(Number(s.text) + (i % 2 ? 0.06 : 0)) }))
    expect(take(depth, { swing: rough, extreme: 'lowest' }, probe).repeatability).toBeGreaterThan(0.02)
    expect(refused(() => take(depth, { swing: samples, extreme: 'highest' }, probe)).code).toBe(
      'swing-not-turned',
    )
    expect(pathOf(() => take(backlash, { swing: samples }))).toBe('swing')
  })
  it('case and gear, and float: the stack that the seat asks for', () => {
    const micrometer = gauge('depth-micrometer')
    const [ofCase, nominal] = seat.effect === -1 ? [90, 50] : [50, 90]
    const asked = { case: String(ofCase), nominal: String(nominal) }
    const read = take(seat, { text: '39', as: 'case-and-gear', seat: asked }, micrometer)
    expect(read.value).toBeCloseTo(1, 9)
    expect(read.how).toMatchObject({ as: 'case-and-gear', seat: { caseMm: ofCase, nominalMm: nominal } })
    expect(pathOf(() => take(seat, { text: '39', as: 'case-and-gear' }, micrometer))).toBe('seat.caseMm')
    const floated = take(seat, { text: '.20', as: 'float', seat: { trial: '1.00', clearance: '.05' } })
    expect(floated.value).toBeCloseTo(1.15, 9)
    expect(pathOf(() => take(seat, {}))).toBe('as')
  })
  it('float and gap of a cover: one is the other with its sign turned', () => {
    const feeler = gauge('feeler-set')
    expect(take(crush, { text: '.12', as: 'gap' }, feeler).value).toBe(0.12)
    expect(take(crush, { text: '.12', as: 'float' }).value).toBe(-0.12)
    expect(pathOf(() => take(crush, { text: '.12', as: 'float', seat: {} }))).toBe('seat')
    expect(pathOf(() => take(crush, { text: '.12' }, feeler))).toBe('as')
  })
  it('torque: the drag of the lips comes off, and what is not above it is no preload', () => {
    const beam = gauge('beam-wrench')
    const read = take(torque, { text: '1.1', unit: 'Nm', drag: '.3', runIn: true }, beam)
    expect(read.value).toBeCloseTo(0.8, 9)
    expect(read.how).toEqual({ dragNm: 0.3, runIn: true })
    expect(refused(() => take(torque, { text: '.3', unit: 'Nm', drag: '.3' }, beam)).code).toBe('no-preload')
    expect(pathOf(() => take(backlash, { drag: '.3' }))).toBe('drag')
  })
  it('play: it stands below no torque, by the slope of the sheet', () => {
    const read = take(torque, { text: '.10', as: 'play' })
    expect(read.value).toBeCloseTo(-0.1 * Math.abs(torque.nmPerMm!), 9)
    expect(pathOf(() => take(backlash, { as: 'play' }))).toBe('as')
  })
  it('ride height: only of the depth of a pair, and not without its places', () => {
    expect(pathOf(() => take(backlash, { rides: [{ place: '38', ride: '60' }] }))).toBe('rides')
    expect(pathOf(() => take(backlash, { as: 'ride-height' }))).toBe('as')
  })
  it('is told in words by its kind alone, and by every kind what it knows', () => {
    const show = (v: number, unit: string) => `${v} ${unit}`
    expect(howWords({ raw: 0.4, how: null }, show)).toEqual([])
    expect(howWords({ raw: 1.1, how: { dragNm: 0.3, runIn: true } }, show)).toEqual([
      'lips 0.3 Nm taken off',
      'bearings run in',
    ])
    expect(
      howWords({ raw: 0.2, how: { as: 'float', seat: { trialMm: 1, clearanceMm: 0.05 } } }, show),
    ).toEqual(['read as float 0.2 mm', 'trial stack 1 mm', 'clearance to leave 0.05 mm'])
  })
})

describe('the gauge of a reading', () => {
  it('measures what is read: no torque with an indicator, no length with a wrench', () => {
    for (const kind of GAUGE_KIND_IDS) {
      const able = canRead(torque, undefined, { kind })
      expect([kind, able]).toEqual([kind, kind === 'beam-wrench'])
      if (able) expect(canRead(backlash, undefined, { kind })).toBe(false)
    }
  })
  it('has a master where the depth drops from one, and a pointer where something goes round', () => {
    const drop = method('master-drop')
    expect(GAUGE_KIND_IDS.filter((kind) => canRead(drop, undefined, { kind }))).toEqual(['depth-gauge'])
    expect(canRead(runout, undefined, { kind: 'feeler-set' })).toBe(false)
    expect(canRead(runout, undefined, { kind: 'lever-dial' })).toBe(true)
  })
  it('is refused by name when it is out of use, or cannot read this', () => {
    expect(refused(() => take(backlash, {}, gauge('beam-wrench'))).message).toContain('beam-wrench')
    expect(pathOf(() => take(backlash, {}, gauge('plunger-dial', { retired: true })))).toBe('gaugeId')
  })
  it('that was used last is taken again though it is not made for this; no other such gauge is taken by itself', () => {
    const feeler = gauge('feeler-set')
    const offered = (last?: string) => offeredGauges(backlash, undefined, [feeler, dial], last)
    expect(offered().taken).toBe(dial)
    expect(offered('feeler-set').taken).toBe(feeler)
    expect(offeredGauges(backlash, undefined, [feeler], undefined).taken).toBeUndefined()
    expect(take(backlash, {}, feeler).how).toEqual({ unsuited: true })
  })
  it('brings the measured length of its own master, within 1 mm of the one that the sheet asks for', () => {
    const drop = method('master-drop')
    const nominal = drop.how.method === 'master-drop' ? drop.how.masterMm : 0
    const master = (id: string, off: number) => ({ id, label: id, lengthMm: nominal + off })
    const near = { name: 'G', masters: [master('far', 20), master('near', 0.003)] }
    expect(masterFor(drop, near)?.id).toBe('near')
    expect(masterLength(drop, near, undefined)).toBeCloseTo(nominal + 0.003, 9)
    expect(pathOf(() => masterLength(drop, near, 'far'))).toBe('masterId')
    expect(pathOf(() => masterLength(drop, near, 'gone'))).toBe('masterId')
    expect(pathOf(() => masterLength(drop, { name: 'G', masters: [] }, undefined))).toBe('masterId')
    expect(masterFor(drop, { masters: [master('far', 20)] })).toBeUndefined()
    expect(masterLength(backlash, near, 'far')).toBeNull()
  })
  it("of an arbor that the shop has not measured leaves the sheet's own diameter", () => {
    const arbor = method('arbor')
    expect(masterLength(arbor, { name: 'G', masters: [] }, undefined)).toBeNull()
  })
})

describe('a reading that looks like a blunder', () => {
  const stands = { window: { min: 0.3, max: 0.5 }, counted: [0.4, 0.41] }
  it('is refused with the question that the page asks, and taken once it is confirmed', () => {
    const typed = { text: '1.40', unit: 'mm' }
    const error = refused(() => takeReading(backlash, typed, dial, stands))
    expect(error.code).toBe('questioned')
    expect(error.message).toContain(questionOf(backlash, 1.4, dial, stands)!)
    expect(error.message).toContain('turn counter')
    expect(takeReading(backlash, { ...typed, confirmed: true }, dial, stands).value).toBe(1.4)
  })
  it('is not looked for where readings differ by what is looked for, or are worked out', () => {
    expect(questionOf(runout, 2, dial, { window: {}, counted: [0, 0.01] })).toBeUndefined()
    expect(questionOf(seat, 9, dial, { window: {}, counted: [1, 1] })).toBeUndefined()
    expect(questionOf(torque, 9, dial, { window: { max: 1 }, counted: [] })).toBeUndefined()
  })
})

describe('a figure that takes the place of a reading', () => {
  it('is read in the same way, from the same master, and without the points that it replaces', () => {
    const drop = method('master-drop')
    const old = {
      masterMm: 50.003,
      how: { swing: { extreme: 'lowest' as const, samples: [[0, 11.6] as [number, number]] } },
    }
    const made = correctReading(drop, { text: '11.6', unit: 'mm' }, gauge('depth-gauge'), old)
    expect(made).toMatchObject({ raw: 11.6, masterMm: 50.003, how: null })
    const again = correctReading(crush, { text: '.10', unit: 'mm' }, dial, {
      masterMm: null,
      how: { as: 'float', unticked: ['gear centred'] },
    })
    expect(again).toMatchObject({ value: -0.1, how: { as: 'float', unticked: ['gear centred'] } })
  })
})
