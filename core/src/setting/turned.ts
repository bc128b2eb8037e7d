import { stepsPerTurn, type Adjuster } from '../drives/sheet.ts'

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
  steps: Math.round(((toMm - fromMm) / a.leadMm!) * stepsPerTurn(a)),
  perTurn: stepsPerTurn(a),
  ...(a.notches ? {} : { free: true }),
})
