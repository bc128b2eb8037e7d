import type { Window } from '../checks/window.ts'

/** A torque wrench: what it reaches, and the lengths that count when something is put on its end. */
export interface Wrench {
  fromNm: number
  toNm: number
  /** From the drive to the middle of the grip, mm. */
  lengthMm?: number
  /** Adapters, each from the drive to the fastener, mm. */
  adapters: { label: string; lengthMm: number }[]
}

/** Below this share of its range a wrench says little: the usual advice of their makers, and of ISO 6789 for what is tested. */
const LEAST_SHARE = 0.2

/** Whether a wrench can be trusted over a window: within its range, and not in the lowest fifth of it. An open side is not looked at. */
export function wrenchSuits(wrench: Pick<Wrench, 'fromNm' | 'toNm'>, { min, max }: Window): boolean {
  const least = Math.max(wrench.fromNm, LEAST_SHARE * wrench.toNm)
  return (
    (min === undefined || min >= least) &&
    (max === undefined || max <= wrench.toNm) &&
    (min ?? max) !== undefined
  )
}
