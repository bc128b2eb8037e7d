import { MM_PER_INCH } from '../units/factors.ts'
import type { PredictionCheck } from './assess.ts'

/** What may be behind a build that reads as its stacks cannot make it. */
export type Suspect =
  | {
      kind: 'stack'
      stack: string
      /** So much thicker than recorded it would have to be; thinner when negative. mm */
      byMm: number
      /** A piece of that thickness: `missing` is recorded there and may not be in, `left` was there before and may still be. */
      piece?: { mm: number; is: 'missing' | 'left' }
      /** How well that explains all readings together: their mean square misfit left, in standard uncertainties; 1 is perfect. */
      misfit: number
    }
  | {
      kind: 'unit'
      measure: string
      /** What was read, taken as this unit, is what was promised. */
      as: 'inch' | 'mm' | 'thousandths'
    }
  /** Nothing else is off: look at how this one was read, and at what it alone hangs on. */
  | { kind: 'reading'; measure: string }

export interface SuspectStack {
  id: string
  /** Change of every measure per mm of it. */
  sensitivity: Record<string, number>
  /** How far those are to be trusted, relative standard uncertainty. */
  relU: number
  /** Thicknesses of the pieces that are recorded in it, and of those that were in it in the build before. mm */
  pieces: readonly number[]
  before: readonly number[]
}

/** A misfit beyond this many standard uncertainties is left over. As for a trial that disagrees. */
const BEYOND = 3
/** A piece is taken for another when they differ by less, mm. */
const SAME_PIECE_MM = 0.03

/**
 * Likely causes of a build that disagrees with what was promised, the likeliest first.
 *
 * A stack: off = J δ for all measures at once, δ by weighted least squares (weights 1/s², s from promise and readings); it is suspected when what it leaves is
 * no more than {@link BEYOND} in any measure (what J leaves in doubt included), and δ matches a piece or leaves less than half of the misfit. A unit: the reading times 25.4 or 1/25.4, or read as
 * thousandths for hundredths (2.54), lands on the promise. A single reading: nothing else is off.
 * @param checks of every measure that was promised and read
 * @returns nothing where no measure disagrees
 */
export function suspects(checks: readonly PredictionCheck[], stacks: readonly SuspectStack[]): Suspect[] {
  const wrong = checks.filter((c) => c.disagrees)
  if (!wrong.length) return []
  const s = (c: PredictionCheck) => Math.hypot(c.predictedU / 2, c.measuredU / 2)
  const square = (left: (c: PredictionCheck) => number) =>
    checks.reduce((sum, c) => sum + (left(c) / s(c)) ** 2, 0) / checks.length
  const whole = square((c) => c.off)
  const found: (Extract<Suspect, { kind: 'stack' }> & { rank: number })[] = []
  for (const { id, sensitivity, relU, pieces, before } of stacks) {
    const j = (c: PredictionCheck) => sensitivity[c.measure] ?? 0
    const weight = checks.reduce((sum, c) => sum + (j(c) / s(c)) ** 2, 0)
    if (weight === 0) continue
    const byMm = checks.reduce((sum, c) => sum + (j(c) * c.off) / s(c) ** 2, 0) / weight
    const left = (c: PredictionCheck) => c.off - j(c) * byMm
    const misfit = square(left)
    // the answer of the case is known only so well
    const allowed = (c: PredictionCheck) => BEYOND * Math.hypot(s(c), relU * j(c) * byMm)
    if (checks.some((c) => Math.abs(left(c)) > allowed(c))) continue
    const piece = pieceOf(byMm, pieces, before)
    if (!piece && misfit > whole / 2) continue
    found.push({
      kind: 'stack',
      stack: id,
      byMm,
      misfit,
      ...(piece ? { piece } : {}),
      rank: misfit / (piece ? 4 : 1),
    })
  }
  const byStack = found.sort((a, b) => a.rank - b.rank).map(({ rank: _, ...f }): Suspect => f)
  const byUnit = wrong.flatMap((c): Suspect[] => {
    const near = (v: number) => Math.abs(v - c.predicted) <= BEYOND * s(c) + 0.05 * Math.abs(c.predicted)
    if (near(c.measured * MM_PER_INCH)) return [{ kind: 'unit', measure: c.measure, as: 'inch' }]
    if (near(c.measured / MM_PER_INCH)) return [{ kind: 'unit', measure: c.measure, as: 'mm' }]
    if (near(c.measured * (MM_PER_INCH / 10)))
      return [{ kind: 'unit', measure: c.measure, as: 'thousandths' }]
    return []
  })
  const alone: Suspect[] =
    wrong.length === 1 && checks.length > 1 ? [{ kind: 'reading', measure: wrong[0]!.measure }] : []
  // a unit explains one measure; where several are off, a stack explains more
  return wrong.length > 1 ? [...byStack, ...byUnit] : [...byUnit, ...byStack, ...alone]
}

/** A piece whose absence or presence makes that difference. */
function pieceOf(
  byMm: number,
  pieces: readonly number[],
  before: readonly number[],
): { mm: number; is: 'missing' | 'left' } | undefined {
  const nearest = (list: readonly number[]) =>
    [...list].sort((a, b) => Math.abs(a - Math.abs(byMm)) - Math.abs(b - Math.abs(byMm)))[0]
  const candidate = byMm < 0 ? nearest(pieces) : nearest(before)
  if (candidate === undefined || Math.abs(candidate - Math.abs(byMm)) > SAME_PIECE_MM) return undefined
  return { mm: candidate, is: byMm < 0 ? 'missing' : 'left' }
}
