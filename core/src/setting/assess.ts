import type { Adjuster, DepthMeasure, DriveSheet } from '../drives/sheet.ts'
import {
  isCarrier,
  lockStepMm,
  settableAdjusters,
  shimAdjusters,
  solvableAdjusters,
  withCarriers,
} from '../drives/sheet.ts'
import { sensitivities, sensitivityTrust } from './train.ts'
import { judge, uncertaintyOfMean, type Judgement } from '../measuring/judge.ts'
import { outlier, spread, type Spread } from '../measuring/reading-set.ts'
import { backlashRound, type BacklashRound } from '../measuring/backlash-round.ts'
import type { ClosedWindow, Window } from '../checks/window.ts'
import { refuse } from '../checks/input-error.ts'
import { isDerived, settingMeasures, windowOf, type SetMeasure } from './measures.ts'
import type { RunoutMeasure } from './shaft-stations.ts'
import type { Prediction } from './shim-solve.ts'
import { pairDepthOf, wantedBy } from './pair-depth.ts'
import { worstGauge, type BuildState, type GaugeSpec, type ReadingHow, type TakenReading } from './taken.ts'
import { servable, type ShimPiece, type ShimSolveInput } from './shim-problem.ts'

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
  /** What it is judged against: of a torque the one for these bearings. */
  window: Window
  /** Taken over from an earlier build. */
  carried: boolean
  /** Backlash at three or more places round the gear: the tightest is judged against the lower limit, the widest against the upper. */
  round?: BacklashRound
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
  /**
   * Nothing is missing but what sets a bearing: the next stacks can be chosen, the bearings left as they are; and it can be accepted with a reason, since
   * nobody may be able to read them here.
   */
  decidable: boolean
  /** Complete, and every measure in its window beyond doubt. */
  allIn: boolean
}

function judged(readings: number[], gauge: GaugeSpec, window: Window): Judgement | Unjudged {
  if (hasLimit(window)) return judge({ readings, ...gauge, window })
  const { mean, sd, count } = spread(readings)
  const u = uncertaintyOfMean(sd, count, gauge)
  return { mean, u, U: 2 * u, verdict: 'no-window', readingsNeeded: null }
}

/** Places round the gear that say something of its runout: at least three, and no reading without its place. */
function roundOf(
  taken: readonly TakenReading[],
  gauge: GaugeSpec,
  window: Window,
): BacklashRound | undefined {
  const places = new Map<number, number[]>()
  for (const { clockDeg, value } of taken) {
    if (clockDeg === undefined) return undefined
    const deg = clockDeg % 360
    places.set(deg, [...(places.get(deg) ?? []), value])
  }
  if (places.size < 3) return undefined
  return backlashRound({
    places: [...places].map(([deg, readings]) => ({ deg, readings })),
    ...gauge,
    window: hasLimit(window) ? window : { min: 0 },
  })
}

/** A shim moves all places alike: their mean is what is set. The places differ by the gear, not by chance, so their spread is no doubt of the mean. */
function judgedRound(round: BacklashRound, readings: number, gauge: GaugeSpec): Judgement {
  const u = uncertaintyOfMean(0, readings, gauge)
  return { mean: round.meanMm, u, U: 2 * u, verdict: round.verdict, readingsNeeded: null }
}

/** A depth can be read only once the sheet says how: the same reading means another depth with another gauge. */
export const isReadable = (sheet: DriveSheet, measure: SetMeasure | RunoutMeasure): boolean =>
  measure.kind !== 'depth' || !sheet.lacks?.some((l) => l.startsWith(`measures.${measure.id}.how.`))

/** What the pair wants of this depth, where nobody prints it and it was found. */
const wantedDepth = (sheet: DriveSheet, measure: DepthMeasure, build: BuildState) => {
  const pair = pairDepthOf(sheet, measure)
  return pair && wantedBy(build.readings[pair.id] ?? [])
}

/** A window that is itself in doubt makes every verdict by it as doubtful: u is taken into the gauge's permissible error, which no repetition lessens. */
const withDoubt = (gauge: GaugeSpec, u = 0): GaugeSpec =>
  u === 0 ? gauge : { ...gauge, mpe: Math.sqrt(3) * Math.hypot(gauge.mpe / Math.sqrt(3), u) }

/** What is held against the window. Of a seat: by how much its stack falls short, once it is known what is built in. */
function judgedValues(
  measure: SetMeasure,
  taken: readonly TakenReading[],
  stacks: BuildState['stacks'],
): number[] {
  if (measure.kind !== 'seat') return taken.map((r) => r.value)
  const built = stacks[measure.by]
  return built === undefined ? [] : taken.map((r) => r.value - built)
}

/** What the gauges are worth in the unit that is judged: a play is read in mm, and stands for so much torque by the slope. */
function gaugeOf(measure: SetMeasure, taken: readonly TakenReading[]): GaugeSpec {
  const slope = measure.kind === 'rolling-torque' ? Math.abs(measure.nmPerMm ?? 1) : 1
  return worstGauge(
    taken.map((r) =>
      r.how?.as === 'play'
        ? {
            ...r,
            gauge: {
              resolution: slope * r.gauge.resolution,
              mpe: slope * r.gauge.mpe,
              repeatability: slope * r.gauge.repeatability,
            },
          }
        : r,
    ),
  )
}

/**
 * Where one build stands: what is known, what verdicts it has, what is due next in the sheet's order.
 * @param asked what has to be read before it can be decided; what else was read is judged as well
 */
export function assess(
  sheet: DriveSheet,
  build: BuildState,
  asked: readonly SetMeasure[] = sheet.measures,
  /** Stacks that come out are entered; where none does, nobody can know them. */
  stacksOut = true,
): Assessment {
  const due: DueStep[] = []
  for (const stack of stacksOut ? shimAdjusters(sheet) : [])
    if (build.stacks[stack.id] === undefined) due.push({ kind: 'stack', stack: stack.id })
  const measures: Record<string, MeasureState> = {}
  for (const measure of settingMeasures(sheet)) {
    const taken = build.readings[measure.id] ?? []
    const values = judgedValues(measure, taken, build.stacks)
    const wanted = measure.kind === 'depth' ? wantedDepth(sheet, measure, build) : undefined
    const gauge = withDoubt(gaugeOf(measure, taken), wanted?.u)
    const carried = build.carried?.includes(measure.id) ?? false
    const due = asked.includes(measure) && isReadable(sheet, measure) && !carried
    const window = wanted?.window ?? windowOf(measure, taken.at(-1)?.how?.runIn)
    const round = measure.kind === 'backlash' ? roundOf(taken, gauge, window) : undefined
    measures[measure.id] = {
      measure: measure.id,
      ...spread(values),
      ...(values.length
        ? { judgement: round ? judgedRound(round, taken.length, gauge) : judged(values, gauge, window) }
        : {}),
      ...(round ? { round } : {}),
      // places round a gear differ by its runout; that makes none of them a slip
      outlier: round ? -1 : outlier(values, gauge.resolution),
      missing: due ? Math.max(0, measure.readings - taken.length) : 0,
      window,
      carried,
    }
  }
  // what is set last by a nut is read once it is worth it: before, the carrier is turned again
  const settled = sheet.measures.every((m) => measures[m.id]!.judgement?.verdict === 'in')
  for (const m of asked) if (m.kind === 'rolling-torque' && m.last && !settled) measures[m.id]!.missing = 0
  for (const { measure, missing } of Object.values(measures))
    if (missing) due.push({ kind: 'reading', measure, missing })
  const complete = due.length === 0
  const gears = new Set(sheet.measures.map((m) => m.id))
  const decidable = due.every((d) => d.kind === 'reading' && !gears.has(d.measure))
  const judgedIn = Object.values(measures).every(
    (m) => m.judgement?.verdict === 'in' || (!m.judgement && !asked.some((a) => a.id === m.measure)),
  )
  const allIn = complete && judgedIn
  if (complete) due.push({ kind: 'decide' })
  return { measures, due, complete, decidable, allIn }
}

/** What was read, and is not in its window beyond doubt; and what was asked and never read. */
export const notIn = (sheet: DriveSheet, state: Assessment, asked: readonly SetMeasure[] = sheet.measures) =>
  settingMeasures(sheet).filter((m) => {
    const { judgement } = state.measures[m.id]!
    return judgement ? judgement.verdict !== 'in' : asked.includes(m)
  })

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
  const quantities = settingMeasures(sheet)
    .filter((m) => Object.keys(table[m.id]!).length > 0 && hasLimit(state.measures[m.id]!.window))
    // what sets a bearing may stay as it is, unread; its stack stays then too
    .filter((m) => !isDerived(m) || tellsItsStack(m, state.measures[m.id]!, build.readings[m.id] ?? []))
    .map((m) => {
      const { judgement, window } = state.measures[m.id]!
      if (!judgement) refuse(m.id, 'has not been measured in this build yet', 'reading-missing')
      const { min, max } = leftByRound(window, state.measures[m.id]!.round)
      if (min === undefined || max === undefined)
        refuse(m.id, 'has a one-sided window; stacks need both limits', 'one-sided')
      return {
        id: m.id,
        measured: judgement.mean,
        u: judgement.u,
        window: { min, max },
        target: targetIn(m, window, { min, max }),
        sensitivity: table[m.id]!,
        relU: Math.max(...Object.values(trusts[m.id]!).map((t) => t.relU)),
        relUByStack: Object.fromEntries(Object.entries(trusts[m.id]!).map(([id, t]) => [id, t.relU])),
      }
    })
  const answered = new Set(quantities.map((q) => q.id))
  for (const l of locations) l.fixed ||= !isFoundBy(sheet, l.id, answered)
  const staying = locations.flatMap((l) => (l.fixed ? (build.pieces?.[l.id] ?? []) : []))
  const offered = pieces.map((p) => {
    const held = staying.filter((id) => id === p.id).length
    return held ? { ...p, count: Math.max(0, p.count - held) } : p
  })
  const largest = Math.max(0, ...locations.flatMap((l) => (l.fixed ? [] : l.maxMm)))
  return { locations, quantities, pieces: servable(offered, largest), plans: 3 }
}

/** The sheet's target where it is one of this window, and still lies in what is left of it; otherwise the middle. */
function targetIn(m: SetMeasure, window: Window, left: ClosedWindow): number {
  const { target } = m
  const holds = window === m.window && target !== undefined && target >= left.min && target <= left.max
  return holds ? target : (left.min + left.max) / 2
}

/** What is left of a window for the mean when the tightest and the widest place round the gear shall both be in it; all of it where none can. */
function leftByRound(window: Window, round: BacklashRound | undefined): Window {
  const { min, max } = window
  if (!round || min === undefined || max === undefined) return window
  const left = { min: min + round.meanMm - round.smallestMm, max: max - (round.largestMm - round.meanMm) }
  return left.min < left.max ? left : window
}

/** Whether a stack can be solved for: one that gears are set with always, one that sets a bearing or a seat only once that was read. */
function isFoundBy(sheet: DriveSheet, stack: string, answered: ReadonlySet<string>): boolean {
  const setBy = sheet.adjusters.find((a) => a.id === stack)!.setBy ?? 'readings'
  return (
    setBy === 'readings' ||
    settingMeasures(sheet).some((m) => isDerived(m) && m.by === stack && answered.has(m.id))
  )
}

/** Stacks that the solver may change in this build. */
export function changeableIn(sheet: DriveSheet, build: BuildState): Adjuster[] {
  const read = new Set(
    settingMeasures(sheet).flatMap((m) => ((build.readings[m.id]?.length ?? 0) > 0 ? [m.id] : [])),
  )
  return solvableAdjusters(sheet).filter((a) => isFoundBy(sheet, a.id, read))
}

/**
 * A bearing's reading says what its stack has to be when its window is closed and it says more than "no preload": a torque at or below the drag of
 * the seals tells nothing of how much play there is.
 */
function tellsItsStack(
  m: SetMeasure,
  { judgement, window }: MeasureState,
  taken: readonly TakenReading[],
): boolean {
  return (
    judgement !== undefined &&
    window.min !== undefined &&
    window.max !== undefined &&
    !(m.kind === 'rolling-torque' && taken.some(isNoPreload))
  )
}

/** A torque of nothing, or of what the lips alone account for; a play is read as such. */
export const isNoPreload = ({ value, how }: { value: number; how?: ReadingHow | null }): boolean =>
  how?.as === undefined && value <= 0

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
