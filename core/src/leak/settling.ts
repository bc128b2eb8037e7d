/** Fewer readings than this say nothing about settling. */
const LEAST = 8
/** How much worse than the later half (or than the gauge) the whole may fit a line and still count as settled. */
const SLACK = 1.5

/**
 * From which reading on the pressure has settled. While seals seat and pumped air cools the pressure falls faster than the
 * leak lets it; after that it follows a line. The first reading from which the rest fits a line about as well as its
 * later half does (or as well as the gauge can show). At least half of the readings are kept.
 * Sums from the end make every start a constant-time question.
 * @param up standard uncertainty of one reading, kPa
 * @returns its index; 0 when it had settled from the start, or when there are fewer than eight readings
 */
export function settledFrom(minutes: Float64Array, pressure: Float64Array, up: number): number {
  const n = minutes.length
  if (n < LEAST) return 0
  const half = n >> 1
  // about the middle, so that the sums of squares keep their digits
  const [x0, y0] = [minutes[half]!, pressure[half]!]
  const meanSquare = new Float64Array(half + 1)
  let [m, sx, sy, sxx, sxy, syy] = [0, 0, 0, 0, 0, 0]
  for (let i = n - 1; i >= 0; i--) {
    const [x, y] = [minutes[i]! - x0, pressure[i]! - y0]
    m++
    sx += x
    sy += y
    sxx += x * x
    sxy += x * y
    syy += y * y
    if (i > half) continue
    const xx = sxx - (sx * sx) / m
    const xy = sxy - (sx * sy) / m
    const yy = syy - (sy * sy) / m
    meanSquare[i] = Math.max(0, yy - (xy * xy) / xx) / (m - 2)
  }
  const enough = Math.max(SLACK * SLACK * meanSquare[half]!, SLACK * SLACK * up * up)
  for (let i = 0; i < half; i++) if (meanSquare[i]! <= enough) return i
  return half
}
