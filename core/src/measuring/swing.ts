import { refuse } from '../checks/input-error.ts'
import { finite } from '../checks/numbers.ts'
import { parabola } from '../numbers/parabola.ts'

export interface SwingInput {
  /** Readings along a sweep: where the gauge stood (any unit of length or angle), and what it read, mm. At least 3. */
  samples: { at: number; readingMm: number }[]
  /** Which turning point is the measure: the highest of a sweep over a crown, the lowest of one through a bore. */
  extreme: 'highest' | 'lowest'
}

export interface Swing {
  /** Where the sweep turns, in the units of `at`. */
  atVertex: number
  /** What the gauge reads there, mm. */
  valueMm: number
  /** Expanded uncertainty (k = 2) of the value from the scatter; with more than three samples. */
  valueUMm?: number
  /** It curves the way that was asked for, and turns among the samples: otherwise the sweep has not passed the vertex. */
  trusted: boolean
}

/**
 * The reading at the turning point of a swung gauge, by a parabola through the samples (least squares, centred).
 * @throws InputError on fewer than 3 samples or places, or a sweep that does not curve
 */
export function swing({ samples, extreme }: SwingInput): Swing {
  if (extreme !== 'highest' && extreme !== 'lowest') refuse('extreme', 'is highest or lowest')
  if (samples.length < 3) refuse('samples', `holds ${samples.length}; at least 3 are needed`)
  samples.forEach((s, i) => {
    finite(`samples[${i}].at`, s.at)
    finite(`samples[${i}].readingMm`, s.readingMm)
  })
  if (new Set(samples.map((s) => s.at)).size < 3)
    refuse('samples', 'stand at fewer than three places; swing the gauge farther')
  const fit = parabola(
    samples.map((s) => s.at),
    samples.map((s) => s.readingMm),
  )
  if (fit === 'close') return refuse('samples', 'stand too close together; swing the gauge farther')
  if (fit === 'straight')
    return refuse('samples', 'do not curve; swing the gauge over its turning point', 'no-curvature')
  return {
    atVertex: fit.vertex,
    valueMm: fit.value,
    ...(samples.length > 3 ? { valueUMm: 2 * fit.valueSd } : {}),
    trusted: fit.opensUp === (extreme === 'lowest') && fit.inside,
  }
}
