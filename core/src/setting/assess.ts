import type { DriveSheet, Measure } from '../drives/sheet.ts'
import {
  isCarrier,
  lockStepMm,
  settableAdjusters,
  shimAdjusters,
  solvableAdjusters,
  withCarriers,
} from '../drives/sheet.ts'
import { sensitivities, sensitivityTrust } from '../gears/train.ts'
import { depth } from '../measuring/depth.ts'
import { judge, uncertaintyOfMean, type Judgement } from '../measuring/judge.ts'
import { outlier, spread, type Spread } from '../measuring/reading-set.ts'
import type { Window } from '../measuring/window.ts'
import type { PlausibleKind } from '../units/plausible.ts'
import { refuse } from '../checks/input-error.ts'
import type { Prediction } from './shim-solve.ts'
import type { ShimPiece, ShimSolveInput } from './shim-problem.ts'

/** What a gauge is worth. mm. */
export interface GaugeSpec {
  resolution: number
  mpe: number
  repeatability: number
}

/** A reading that counts (not superseded). */
export interface TakenReading {
  /** The value that is judged, mm: a depth, or the reading itself. */
  valueMm: number
  gauge: GaugeSpec
}

/** One state of the gearcase: as found, or a trial build. Keyed by stack id and measure id. */
export interface BuildState {
  stacks: Record<string, number>
  readings: Record<string, TakenReading[]>
  /** Ids of the pieces that each stack holds, where they are known. */
  pieces?: Record<string, string[]>
}

/** What readings come to against no window: the sheet has none yet. */
export type Unjudged = Omit<Judgement, 'verdict' | 'readingsNeeded'> & {
  verdict: 'no-window'
  readingsNeeded: null
}

export interface MeasureState extends Spread {
  measure: string
  judgement?: Judgement | Unjudged
  /** Index of a reading that does not belong to the others, −1 for none. */
  outlier: number
  /** Readings still to take before the set is judged as final. */
  missing: number
}

export type DueStep =
  | { kind: 'stack'; stack: string }
  | { kind: 'reading'; measure: string; missing: number }
  | { kind: 'decide' }

export interface Assessment {
  measures: Record<string, MeasureState>
  due: DueStep[]
  /** Every stack entered and every measure taken as often as the sheet asks. */
  complete: boolean
  /** Complete, and every measure in its window beyond doubt. */
  allIn: boolean
}

/** Which plausibility range a raw reading of the measure belongs to. */
export function plausibleKind(measure: Measure): PlausibleKind {
  if (measure.kind === 'backlash') return 'backlash'
  if (measure.kind === 'end-play') return 'end-play'
  return measure.how.method === 'master-drop'
    ? 'drop'
    : measure.how.method === 'arbor'
      ? 'depth'
      : 'clearance'
}

/**
 * The judged value of a raw reading: backlash and end play are read directly, a depth through its method.
 * @param rawMm what the gauge showed
 * @param masterMm measured length of the setting master, or diameter of the arbor, that was used; the sheet's when left out
 */
export function valueOf(measure: Measure, rawMm: number, masterMm?: number): number {
  if (measure.kind !== 'depth') return rawMm
  const { how } = measure
  const result =
    how.method === 'master-drop'
      ? depth({ ...how, masterMm: masterMm ?? how.masterMm, dropMm: rawMm })
      : how.method === 'arbor'
        ? depth({ ...how, arborDiameterMm: masterMm ?? how.arborDiameterMm, readingMm: rawMm })
        : depth({ ...how, clearanceMm: rawMm })
  if (!('depthMm' in result)) refuse('method', 'gives a shim, not a depth')
  return result.depthMm
}

/**
 * Several gauges may have been used on one measure; the set is only as good as the worst of them.
 */
export function worstGauge(readings: readonly TakenReading[]): GaugeSpec {
  return {
    resolution: Math.max(0, ...readings.map((r) => r.gauge.resolution)),
    mpe: Math.max(0, ...readings.map((r) => r.gauge.mpe)),
    repeatability: Math.max(0, ...readings.map((r) => r.gauge.repeatability)),
  }
}

function judged(readings: number[], gauge: GaugeSpec, window: Window): Judgement | Unjudged {
  if (hasLimit(window)) return judge({ readings, ...gauge, window })
  const { mean, sd, count } = spread(readings)
  const u = uncertaintyOfMean(sd, count, gauge)
  return { mean, u, U: 2 * u, verdict: 'no-window', readingsNeeded: null }
}

/** A depth can be read only once the sheet says how: the same reading means another depth with another gauge. */
export const isReadable = (sheet: DriveSheet, measure: Measure): boolean =>
  measure.kind !== 'depth' || !sheet.lacks?.some((l) => l.startsWith(`measures.${measure.id}.how.`))

/** Where one build stands: what is known, what verdicts it has, what is due next in the sheet's order. */
export function assess(sheet: DriveSheet, build: BuildState): Assessment {
  const due: DueStep[] = []
  for (const stack of shimAdjusters(sheet))
    if (build.stacks[stack.id] === undefined) due.push({ kind: 'stack', stack: stack.id })
  const measures: Record<string, MeasureState> = {}
  for (const measure of sheet.measures) {
    const taken = build.readings[measure.id] ?? []
    const values = taken.map((r) => r.valueMm)
    const gauge = worstGauge(taken)
    const missing = Math.max(0, measure.readings - taken.length)
    measures[measure.id] = {
      measure: measure.id,
      ...spread(values),
      ...(taken.length ? { judgement: judged(values, gauge, measure.window) } : {}),
      outlier: outlier(values, gauge.resolution),
      missing: isReadable(sheet, measure) ? missing : 0,
    }
    if (missing && isReadable(sheet, measure)) due.push({ kind: 'reading', measure: measure.id, missing })
  }
  const complete = due.length === 0
  const allIn = complete && Object.values(measures).every((m) => m.judgement?.verdict === 'in')
  if (complete) due.push({ kind: 'decide' })
  return { measures, due, complete, allIn }
}

/** A measure whose sheet gives no limit yet is read and kept, and judged against nothing. */
export const hasLimit = ({ min, max }: Window): boolean => min !== undefined || max !== undefined

/** Whether a stack or a carrier can change anything that is measured on this drive. */
export function isSettable(sheet: DriveSheet): boolean {
  const table = sensitivities(sheet)
  return solvableAdjusters(sheet).some((a) => Object.values(table).some((row) => row[a.id] !== undefined))
}

/**
 * The question to the solver: from where this build stands, which stacks, and which turns of a carrier, bring every measure into its window?
 * Measures that no stack moves are left out. Stacks that are set another way stay as they are.
 * @param build a complete build
 * @param pieces all that the drawer and the case hold, those that sit in the stacks now included; what sits in a stack that
 *   stays as it is is not offered a second time
 * @param free restrict the answer to these stacks; all when left out
 * @throws InputError when a stack or a needed measure is missing
 */
export function solverInput(
  sheet: DriveSheet,
  build: BuildState,
  pieces: ShimPiece[],
  free?: string[],
): ShimSolveInput {
  const table = sensitivities(sheet)
  const trusts = sensitivityTrust(sheet)
  const solvable = new Set(solvableAdjusters(sheet).map((a) => a.id))
  const state = assess(sheet, build)
  const stacks = withCarriers(sheet, build.stacks)
  const locations = settableAdjusters(sheet).map((a) => ({
    id: a.id,
    ...(isCarrier(a) ? { stepMm: lockStepMm(a) } : {}),
    currentMm:
      stacks[a.id] ?? refuse(a.id, 'has no stack entered yet; enter what is in the case', 'stack-missing'),
    minMm: a.minMm,
    maxMm: a.maxMm,
    maxPieces: a.maxPieces,
    fixed: !solvable.has(a.id) || (free !== undefined && !free.includes(a.id)),
  }))
  const quantities = sheet.measures
    .filter((m) => Object.keys(table[m.id]!).length > 0 && hasLimit(m.window))
    .map((m) => {
      const judgement = state.measures[m.id]!.judgement
      if (!judgement) refuse(m.id, 'has not been measured in this build yet', 'reading-missing')
      const { min, max } = m.window
      if (min === undefined || max === undefined)
        refuse(m.id, 'has a one-sided window; stacks need both limits', 'one-sided')
      return {
        id: m.id,
        measured: judgement.mean,
        u: judgement.u,
        window: { min, max },
        target: m.target ?? (min + max) / 2,
        sensitivity: table[m.id]!,
        relU: Math.max(...Object.values(trusts[m.id]!).map((t) => t.relU)),
        relUByStack: Object.fromEntries(Object.entries(trusts[m.id]!).map(([id, t]) => [id, t.relU])),
      }
    })
  const staying = locations.flatMap((l) => (l.fixed ? (build.pieces?.[l.id] ?? []) : []))
  const offered = pieces.map((p) => {
    const held = staying.filter((id) => id === p.id).length
    return held ? { ...p, count: Math.max(0, p.count - held) } : p
  })
  return { locations, quantities, pieces: offered, plans: 3 }
}

export interface PredictionCheck {
  measure: string
  predicted: number
  predictedU: number
  measured: number
  measuredU: number
  off: number
  /** Beyond three combined standard uncertainties: something else than the shims has changed. */
  disagrees: boolean
}

/** What was promised against what was read, for every measure that has both. */
export function checkPrediction(predicted: Record<string, Prediction>, state: Assessment): PredictionCheck[] {
  return Object.entries(predicted).flatMap(([measure, p]) => {
    const judgement = state.measures[measure]?.judgement
    if (!judgement) return []
    const off = judgement.mean - p.value
    const s = Math.hypot(p.U / 2, judgement.u)
    return [
      {
        measure,
        predicted: p.value,
        predictedU: p.U,
        measured: judgement.mean,
        measuredU: judgement.U,
        off,
        disagrees: Math.abs(off) > 3 * s,
      },
    ]
  })
}
