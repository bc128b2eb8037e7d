import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { TakenReading } from '../../src/setting/taken.ts'
import { RUNOUT_PLACES, runoutMeasures, shaftsOf } from '../../src/setting/shaft-stations.ts'

const twin = demoSheets.find((s) => s.id === 'havsule-duo-lower')!
const gauge = { resolution: 0.001, mpe: 0.002, repeatability: 0.001 }
/** A shaft out by `e` toward `high` degrees, with nicks at some places. */
const round = (e: number, high: number, atMm?: number, nicks: Record<number, number> = {}): TakenReading[] =>
  RUNOUT_PLACES.map((p) => ({
    value: e * Math.cos(((p - high) * Math.PI) / 180) + (nicks[p] ?? 0),
    gauge,
    clockDeg: p,
    ...(atMm === undefined ? {} : { how: { atMm } }),
  }))
const id = (axis: string, zone: number) => `runout:${axis}:${zone}`
const axes = twin.axes.map((a) => a.id)
const [inner, outer] = axes.slice(-2) as [string, string]
const shaft = (axis: string, readings: Record<string, TakenReading[]>) =>
  shaftsOf(twin, { readings }).find((s) => s.axis === axis)!

describe('runout of shafts', () => {
  it('has a station for every shaft and every zone with a limit, shafts in one another each on their own', () => {
    expect(runoutMeasures(twin)).toHaveLength(twin.axes.length * twin.runoutLimits.length)
    expect(new Set(runoutMeasures(twin).map((m) => m.id)).size).toBe(runoutMeasures(twin).length)
  })
  it('is judged once all eight places are read, the newest of a place counting', () => {
    const most = round(0.02, 90).slice(0, 7)
    expect(shaft(inner, { [id(inner, 0)]: most }).stations[0]!.result).toBeUndefined()
    const again = [
      ...round(0.02, 90),
      { value: 0.5, gauge, clockDeg: 45 },
      { value: 0.0141, gauge, clockDeg: 45 },
    ]
    const { result } = shaft(inner, { [id(inner, 0)]: again }).stations[0]!
    expect(result!.tirMm).toBeCloseTo(0.04, 3)
    expect(result!.highAtDeg).toBeCloseTo(90, 0)
    // limit 0.05 of a seal land
    expect(result!.verdict).toBe('in')
  })
  it('judges each of two coaxial shafts by itself', () => {
    const readings = { [id(inner, 0)]: round(0.04, 200), [id(outer, 0)]: round(0.01, 20) }
    expect(shaft(inner, readings).verdict).toBe('out')
    expect(shaft(outer, readings).verdict).toBe('in')
  })
  it('shows what stands out like a nick, and what is left without it', () => {
    const [s] = shaft(inner, { [id(inner, 0)]: round(0.01, 10, undefined, { 135: 0.06 }) }).stations
    expect(s!.result!.blips).toEqual([3])
    expect(s!.result!.verdict).toBe('out')
    expect(s!.withoutBlips).toMatchObject({ verdict: 'in' })
  })
  it.each([
    ['an offset', [0.05, 0.05, 0.05], 'offset'],
    ['a skew', [0.01, 0.04, 0.07], 'skew'],
    ['a bend at the end', [0.002, 0.002, 0.09], 'kink'],
    ['nothing', [0.0004, 0.0004, 0.0004], 'straight'],
  ] as const)('tells %s by its stations, and where to mark it', (_, sizes, shape) => {
    const readings = Object.fromEntries(sizes.map((e, i) => [id(inner, i), round(e, 120, 100 * (i + 1))]))
    const found = shaft(inner, readings).shape!
    expect(found.shape).toBe(shape)
    if (shape !== 'straight') expect(found.markAtDeg).toBeCloseTo(120, 0)
  })
  it('says no shape where two stations stand at one place, or nobody has said where', () => {
    const twice = { [id(inner, 0)]: round(0.02, 0, 100), [id(inner, 1)]: round(0.02, 0, 100) }
    expect(shaft(inner, twice).shape).toBeUndefined()
    const nowhere = { [id(inner, 0)]: round(0.02, 0), [id(inner, 1)]: round(0.02, 0) }
    expect(shaft(inner, nowhere).shape).toBeUndefined()
  })
  it('are the faces of gears too, where the sheet has a limit: judged by that, and no part of the shape of the shaft', () => {
    const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!
    const faces = runoutMeasures(sheet).filter((m) => m.gear)
    expect(faces.map((m) => [m.gear, m.window.max])).toEqual([
      ['forward-gear', 0.05],
      ['reverse-gear', 0.05],
    ])
    const wobble = (tir: number, atMm?: number) =>
      RUNOUT_PLACES.map((deg) => ({
        value: (tir / 2) * Math.cos((deg * Math.PI) / 180),
        clockDeg: deg,
        gauge: { resolution: 0.01, mpe: 0.005, repeatability: 0.002 },
        ...(atMm === undefined ? {} : { how: { atMm } }),
      }))
    const read = (at: number | undefined) => ({
      'runout:propshaft:0': wobble(0.01, 10),
      'runout:propshaft:1': wobble(0.01, 90),
      [faces[0]!.id]: wobble(0.12, at),
    })
    const shaft = (at?: number) =>
      shaftsOf(sheet, { readings: read(at) }).find((s) => s.axis === 'propshaft')!
    const face = shaft().stations.find((s) => s.measure.gear === 'forward-gear')!
    expect(face.result!.tirMm).toBeCloseTo(0.12, 3)
    expect(face.result!.verdict).toBe('out')
    expect(shaft().verdict).toBe('out')
    // said to stand somewhere along the shaft, it still bends nothing
    expect(shaft(50).shape).toEqual(shaft().shape)
    expect(shaft().shape!.shape).toBe('straight')
  })
})
