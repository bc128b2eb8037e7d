import type { DriveSheet, Measure } from '../drives/sheet.ts'
import { solvableAdjusters } from '../drives/sheet.ts'
import { sensitivities, type Sensitivities } from '../gears/train.ts'
import type { BuildState, GaugeSpec, TakenReading } from '../setting/assess.ts'

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
}

/** A standard normal number; Box & Muller 1958. */
export function normal(random: Random): number {
  return Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

const between = (random: Random, low: number, high: number) => low + (high - low) * random()

/** What a measure reads when nothing is wrong: its target, or the middle of its window. */
function nominal(m: Measure): number {
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
  const { machiningMm = 0.15, geometryRelSd = 0.1, depthRelSd = 0.02 } = options
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
  for (const m of sheet.measures) {
    const spread = m.kind === 'depth' ? depthRelSd : geometryRelSd
    truth[m.id] = Object.fromEntries(
      Object.entries(model[m.id]!).map(([s, j]) => [s, j * (1 + spread * normal(random))]),
    )
    let value = nominal(m)
    for (const [s, e] of Object.entries(errors)) value += (truth[m.id]![s] ?? 0) * e
    reads[m.id] = Math.max(0, value)
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
    return { valueMm: Math.round(shown / gauge.resolution) * gauge.resolution, gauge }
  })
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
      gearcase.sheet.measures.map((m) => [
        m.id,
        measureCase(gearcase, m.id, stacks, gauge, m.readings, random),
      ]),
    ),
  }
}

/** Whether every measure truly lies in its window with these stacks. */
export function trulyIn(gearcase: VirtualCase, stacks: Record<string, number>): boolean {
  return gearcase.sheet.measures.every((m) => {
    const value = trueReading(gearcase, m.id, stacks)
    return value >= (m.window.min ?? -Infinity) && value <= (m.window.max ?? Infinity)
  })
}
