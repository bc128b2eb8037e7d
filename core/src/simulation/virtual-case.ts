import type { DriveSheet } from '../drives/sheet.ts'
import { solvableAdjusters } from '../drives/sheet.ts'
import { sensitivities, type Sensitivities } from '../setting/train.ts'
import { valueOf } from '../reading/kinds.ts'
import type { BuildState, GaugeSpec, TakenReading } from '../setting/taken.ts'
import {
  isBearingMeasure,
  isDerived,
  settingMeasures,
  type SeatMeasure,
  type SetMeasure,
} from '../setting/measures.ts'

/** A source of numbers in [0, 1), passed in so that the same seed gives the same case everywhere. */
export type Random = () => number

/** A gearcase whose truth is known: what its maker's tolerances made of the sheet. mm. */
export interface VirtualCase {
  sheet: DriveSheet
  /** Stacks (and how far threaded carriers are turned in, mm) at which `reads` holds. */
  stacks: Record<string, number>
  /** What every measure would truly read with those stacks. */
  reads: Record<string, number>
  /** How every measure truly answers to every stack. */
  sensitivities: Sensitivities
}

export interface VirtualCaseOptions {
  /** Half range of the machining and bearing errors, as a gear's place on its axis. @default 0.15 */
  machiningMm?: number
  /** Relative standard deviation of how backlash answers, round the geometry. @default 0.1 */
  geometryRelSd?: number
  /** The same for depth, which answers mm for mm but for dirt and seating. @default 0.02 */
  depthRelSd?: number
  /** The same for a rolling torque: bearings differ. @default 0.2 */
  torqueRelSd?: number
}

/** A small beam wrench that a rolling torque is read with, Nm. */
const WRENCH: GaugeSpec = { resolution: 0.02, mpe: 0.02, repeatability: 0.01 }

/** A standard normal number; Box & Muller 1958. */
export function normal(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

const between = (random: Random, low: number, high: number) => low + (high - low) * random()

/** What a measure reads when nothing is wrong: its target, or the middle of its window. */
function nominal(m: SetMeasure): number {
  const { min, max } = m.window
  if (m.target !== undefined) return m.target
  return min === undefined ? (max ?? 0) / 2 : max === undefined ? min * 1.5 : (min + max) / 2
}

/**
 * Draws a case of this sheet: every stack that can be solved, and every threaded carrier, sits in a bore whose error moves its gear, each measure has
 * a little error of its own, and every sensitivity is off from the geometry. Works for every family; a drive without
 * shims has only the errors of its measures.
 */
export function virtualCase(
  sheet: DriveSheet,
  random: Random,
  options: VirtualCaseOptions = {},
): VirtualCase {
  const { machiningMm = 0.15, geometryRelSd = 0.1, depthRelSd = 0.02, torqueRelSd = 0.2 } = options
  const spreadOf = (m: SetMeasure) =>
    m.kind === 'depth' || m.kind === 'crush' || m.kind === 'seat'
      ? depthRelSd
      : m.kind === 'rolling-torque'
        ? torqueRelSd
        : geometryRelSd
  const model = sensitivities(sheet, sheet.adjusters)
  const stacks = Object.fromEntries(
    sheet.adjusters.map((a) => [
      a.id,
      a.kind === 'threaded' ? a.startMm : between(random, a.minMm + 0.25, Math.min(a.maxMm, a.minMm + 0.9)),
    ]),
  )
  const movers = [
    ...new Set([...solvableAdjusters(sheet), ...sheet.adjusters.filter((a) => a.kind === 'threaded')]),
  ]
  const errors = Object.fromEntries(movers.map((a) => [a.id, between(random, -machiningMm, machiningMm)]))
  const truth: Sensitivities = {}
  const reads: Record<string, number> = {}
  for (const m of settingMeasures(sheet)) {
    const spread = spreadOf(m)
    truth[m.id] = Object.fromEntries(
      Object.entries(model[m.id]!).map(([s, j]) => [s, j * (1 + spread * normal(random))]),
    )
    let value = nominal(m)
    for (const [s, e] of Object.entries(errors)) value += (truth[m.id]![s] ?? 0) * e
    // a bearing may have play, a cover no crush, a seat too much: that reads below nothing
    reads[m.id] = isDerived(m) ? value : Math.max(0, value)
  }
  return { sheet, stacks, reads, sensitivities: truth }
}

/** What a measure truly reads with other stacks. */
export function trueReading(
  gearcase: VirtualCase,
  measureId: string,
  stacks: Record<string, number>,
): number {
  let value = gearcase.reads[measureId]!
  for (const [s, j] of Object.entries(gearcase.sensitivities[measureId]!))
    value += j * (stacks[s]! - gearcase.stacks[s]!)
  return value
}

/**
 * Readings as a gauge would show them: its own error (the same for the whole set, within its permissible error), scatter
 * by its repeatability, and its steps.
 */
export function measureCase(
  gearcase: VirtualCase,
  measureId: string,
  stacks: Record<string, number>,
  gauge: GaugeSpec,
  count: number,
  random: Random,
): TakenReading[] {
  const truth = trueReading(gearcase, measureId, stacks) + between(random, -gauge.mpe, gauge.mpe)
  return Array.from({ length: count }, () => {
    const shown = truth + gauge.repeatability * normal(random)
    return { value: Math.round(shown / gauge.resolution) * gauge.resolution, gauge }
  })
}

/** What a bearing shows: a torque, or its play where it has no preload; the gap under a cover, or the float of the ring. */
function measureBearing(
  gearcase: VirtualCase,
  m: Extract<SetMeasure, { bearing: string }>,
  stacks: Record<string, number>,
  gauge: GaugeSpec,
  random: Random,
): TakenReading[] {
  const truth = trueReading(gearcase, m.id, stacks)
  if (m.kind === 'rolling-torque' && truth > 0)
    return measureCase(gearcase, m.id, stacks, WRENCH, m.readings, random)
  const as = m.kind === 'rolling-torque' ? 'play' : truth < 0 ? 'float' : 'gap'
  // nobody can read a play where the sheet has no slope to say what it means
  if (m.kind === 'rolling-torque' && !m.nmPerMm) return []
  const raw = m.kind === 'rolling-torque' ? truth / -Math.abs(m.nmPerMm!) : Math.abs(truth)
  const offset = between(random, -gauge.mpe, gauge.mpe)
  return Array.from({ length: m.readings }, () => {
    const shown = Math.max(0, raw + offset + gauge.repeatability * normal(random))
    const read = Math.round(shown / gauge.resolution) * gauge.resolution
    return { value: valueOf(m, read, undefined, { as }), gauge, how: { as } }
  })
}

/** The stack that case and gear ask for: what is built in, and by how much that falls short. */
function measureSeat(
  gearcase: VirtualCase,
  m: SeatMeasure,
  stacks: Record<string, number>,
  gauge: GaugeSpec,
  random: Random,
): TakenReading[] {
  const short = measureCase(gearcase, m.id, stacks, gauge, m.readings, random)
  return short.map((r) => ({ ...r, value: stacks[m.by]! + r.value }))
}

/** A whole build measured as the sheet asks. */
export function measureBuild(
  gearcase: VirtualCase,
  stacks: Record<string, number>,
  gauge: GaugeSpec,
  random: Random,
): BuildState {
  return {
    stacks: { ...stacks },
    readings: Object.fromEntries(
      settingMeasures(gearcase.sheet).map((m) => [
        m.id,
        m.kind === 'seat'
          ? measureSeat(gearcase, m, stacks, gauge, random)
          : isBearingMeasure(m)
            ? measureBearing(gearcase, m, stacks, gauge, random)
            : measureCase(gearcase, m.id, stacks, gauge, m.readings, random),
      ]),
    ),
  }
}

/** Whether every measure, or every one of these, truly lies in its window with these stacks. */
export function trulyIn(
  gearcase: VirtualCase,
  stacks: Record<string, number>,
  measures: readonly SetMeasure[] = settingMeasures(gearcase.sheet),
): boolean {
  return measures.every((m) => {
    const value = trueReading(gearcase, m.id, stacks)
    return value >= (m.window.min ?? -Infinity) && value <= (m.window.max ?? Infinity)
  })
}
