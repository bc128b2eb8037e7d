/** Summary of repeated readings of one thing. */
export interface Spread {
  count: number
  mean: number
  min: number
  max: number
  /** max − min */
  range: number
  /** Sample standard deviation (n − 1); 0 for a single reading. */
  sd: number
}

/**
 * Mean, range and sample standard deviation. Two passes, centred: readings differ in the third
 * decimal while the mean may be 40 mm, and a one-pass sum of squares would lose the spread.
 * @param readings not empty, finite
 */
export function spread(readings: readonly number[]): Spread {
  const count = readings.length
  if (count === 0) return { count: 0, mean: NaN, min: NaN, max: NaN, range: NaN, sd: NaN }
  const first = readings[0]!
  let sum = 0
  for (const r of readings) sum += r - first
  const mean = first + sum / count
  let squares = 0
  let min = Infinity
  let max = -Infinity
  for (const r of readings) {
    squares += (r - mean) * (r - mean)
    if (r < min) min = r
    if (r > max) max = r
  }
  return { count, mean, min, max, range: max - min, sd: count > 1 ? Math.sqrt(squares / (count - 1)) : 0 }
}

/**
 * Index of the reading that does not belong: it lies outside the range of the others by more than five times
 * that range and by more than four steps of the gauge. Shown to the technician, never dropped.
 * @returns the index, or −1 when all agree or fewer than three readings exist
 */
export function outlier(readings: readonly number[], resolution: number): number {
  if (readings.length < 3) return -1
  let worst = -1
  let excess = 0
  readings.forEach((r, i) => {
    const others = spread(readings.filter((_, k) => k !== i))
    const away = Math.max(others.min - r, r - others.max)
    const limit = Math.max(5 * others.range, 4 * resolution)
    if (away > limit && away - limit > excess) {
      excess = away - limit
      worst = i
    }
  })
  return worst
}
