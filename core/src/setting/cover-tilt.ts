import { coverGap } from './crush.ts'
import { worstGauge, type TakenReading } from './taken.ts'

/** How a cover leans on its shims. */
export interface CoverTilt {
  /** Widest less tightest place, mm. */
  tiltMm: number
  /** What the gauge alone may make of that difference, mm (k = 2). */
  U: number
  /** It leans more than the gauge explains: drawn down like that, the ring is squeezed on one side. */
  leans: boolean
  /** Where the gap is widest, degrees; where nobody said, undefined. */
  widestDeg?: number
}

/**
 * Tilt of a cover from the gaps at its places: max − min (chapter: top-cover and carrier crush). Both ends are read with the same gauge, so its
 * resolution and scatter count twice; its permissible error is common to both.
 * @param taken readings that count; floats say nothing of a tilt
 * @returns undefined below three gaps
 */
export function coverTilt(taken: readonly TakenReading[]): CoverTilt | undefined {
  const gaps = taken.filter((r) => r.how?.as === 'gap')
  if (gaps.length < 3) return undefined
  const { tiltMm } = coverGap(gaps.map((r) => r.value))
  const gauge = worstGauge(gaps)
  const U = 2 * Math.SQRT2 * Math.hypot(gauge.resolution / Math.sqrt(12), gauge.repeatability)
  const widest = gaps.reduce((a, b) => (b.value > a.value ? b : a))
  return {
    tiltMm,
    U,
    leans: tiltMm > U,
    ...(widest.clockDeg === undefined ? {} : { widestDeg: widest.clockDeg }),
  }
}
