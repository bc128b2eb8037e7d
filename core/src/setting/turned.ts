import { lockStepMm, stepsPerTurn, type Adjuster } from '../drives/sheet.ts'

/** A step that misses its end by round-off is a whole one. */
const STEP_SLACK = 1e-9

/** How far a carrier is turned: whole steps of a turn, in when positive. */
export interface Turned {
  steps: number
  perTurn: number
  /** It locks anywhere: its steps are no notches. */
  free?: boolean
}

/** The same in words, with what it is in degrees. */
export function turnedText({ steps, perTurn, free }: Turned): string {
  if (steps === 0) return 'left where it is'
  const n = Math.abs(steps)
  const degrees = `${Math.round((3600 * n) / perTurn) / 10}°`
  const way = steps > 0 ? 'in' : 'out'
  return free ? `${degrees} ${way}` : `${n} ${n === 1 ? 'notch' : 'notches'} ${way} (${degrees})`
}

/** How far a carrier is turned from one place to another: mm as its place is counted, in whole steps. */
export const turnedBetween = (a: Adjuster, fromMm: number, toMm: number): Turned => ({
  steps: Math.round((toMm - fromMm) / lockStepMm(a)),
  perTurn: stepsPerTurn(a),
  ...(a.notches ? {} : { free: true }),
})

/** Whole steps that a carrier still has in its thread, further in and further out. */
export function stepsLeft(a: Adjuster, atMm: number): { in: number; out: number } {
  const left = (toMm: number) => Math.floor(Math.abs(toMm - atMm) / lockStepMm(a) + STEP_SLACK)
  return { in: left(a.maxMm), out: left(a.minMm) }
}
