import { refuse } from '../checks/input-error.ts'
import type { Window } from '../checks/window.ts'
import { doubtOf, doubtWords } from '../measuring/doubt.ts'
import { suits } from '../measuring/suiting.ts'
import { wayOf, type Measured } from '../setting/measured.ts'
import { unitOf } from '../setting/measures.ts'
import type { ReadingHow } from '../setting/taken.ts'
import { asTyped, readOne } from './kinds/plain.ts'
import { masterLength, mustRead, type ReadingGauge } from './gauges.ts'
import type { TypedReading } from './kind.ts'
import { checkExtras, figureKind, kindOf } from './kinds.ts'

/** A reading as it is kept. */
export interface Reading {
  /** What the gauge showed, and what is judged; in mm or Nm. */
  raw: number
  value: number
  text: string
  unit: string
  /** Measured length of the master that was used, mm. */
  masterMm: number | null
  /** Null where there is nothing to say of it. */
  how: ReadingHow | null
  /** Of the gauge, or what the points of this reading leave in doubt where that is more. */
  repeatability: number
}

/** How a measure stands before a reading is added. */
export interface Standing {
  /** What it is judged against as the build stands. */
  window: Window
  /** Values that count already, in the unit of the measure. */
  counted: readonly number[]
}

/**
 * Takes a reading as it was typed: of its kind, with a gauge that can read it, and questioned where it looks like a blunder.
 * @param typed.masterId the setting master that was used; the gauge's nearest when none is named
 * @param typed.ticked what was ticked before it, `unticked` what was not, in words
 * @throws InputError naming the place: what is missing, is not understood, cannot be; code `questioned` where it is only unlikely and not confirmed
 */
export function takeReading(
  measure: Measured,
  typed: TypedReading & { masterId?: string; ticked?: readonly string[]; unticked?: string[] },
  gauge: ReadingGauge,
  { window, counted }: Standing,
): Reading {
  const kind = kindOf(measure, typed)
  mustRead(measure, typed.as, gauge)
  checkExtras(kind, typed)
  const masterMm = masterLength(measure, gauge, typed.masterId)
  const shown = kind.parse(measure, typed, gauge.perTurnMm)
  const how: ReadingHow = {
    ...(typed.as === undefined ? {} : { as: typed.as }),
    ...shown.how,
    ...(typed.ticked?.length ? { ticked: typed.ticked.length } : {}),
    ...(typed.unticked?.length ? { unticked: typed.unticked } : {}),
    ...(suits(gauge.kind, wayOf(measure, typed.as)) ? {} : { unsuited: true }),
  }
  const value = kind.value(measure, { raw: shown.raw, how }, masterMm ?? undefined)
  kind.check(measure, { ...shown, how }, value)
  const question = typed.confirmed ? undefined : questionOf(measure, value, gauge, { window, counted })
  if (question)
    refuse('text', `${asTyped(shown.text, shown.raw, kind.figure(measure))}. ${question}`, 'questioned')
  return {
    raw: shown.raw,
    value,
    text: shown.text,
    unit: shown.unit,
    masterMm,
    how: Object.keys(how).length ? how : null,
    repeatability: Math.max(gauge.repeatability, shown.u),
  }
}

/**
 * A figure that takes the place of an earlier reading, taken in the same way. It is meant, so nothing is asked.
 * @param old the reading that it replaces; of a swing or a search only the way stays, for one figure takes the place of its points
 * @throws InputError where it is not understood, or cannot be
 */
export function correctReading(
  measure: Measured,
  typed: { text: string; unit: string },
  gauge: ReadingGauge,
  old: Pick<Reading, 'masterMm' | 'how'>,
): Reading {
  const { swing: _swing, rides: _rides, ...how } = old.how ?? {}
  const kind = kindOf(measure, how.as === undefined ? {} : { as: how.as })
  const shown = readOne(figureKind(measure, how.as), typed, gauge.perTurnMm)
  const value = kind.value(measure, { raw: shown.raw, how }, old.masterMm ?? undefined)
  kind.check(measure, { ...shown, how }, value)
  return {
    raw: shown.raw,
    value,
    text: shown.text,
    unit: shown.unit,
    masterMm: old.masterMm,
    how: Object.keys(how).length ? how : null,
    repeatability: gauge.repeatability,
  }
}

/** Round a shaft readings differ by what is looked for; a seat, and what a pair wants, is worked out whatever else was read. */
const ALONE: ReadonlySet<Measured['kind']> = new Set(['seat', 'pair-depth', 'runout'])

/**
 * What is asked before a reading is taken, in words; undefined where nothing is odd about it. The page asks it while it is typed, the server refuses
 * by it what nobody was asked about.
 * @param value what would be judged
 * @param show lengths as the reader has them; in both systems where left out
 */
export function questionOf(
  measure: Measured,
  value: number,
  gauge: ReadingGauge,
  { window, counted }: Standing,
  show?: (mm: number) => string,
): string | undefined {
  if (unitOf(measure) !== 'mm' || ALONE.has(measure.kind)) return undefined
  const doubt = doubtOf(value, counted, gauge, window)
  return doubt && doubtWords(doubt, gauge.perTurnMm !== null, show)
}
