/** Points of a line closer than this to the last one are left out; in shares of half a flank. */
const NEAR = 0.06
const MOST_POINTS = 58

/** A line on a flank while it is drawn: along and up in turn, thinned, not longer than is kept. */
export class DrawnLine {
  private flat: number[] = []

  begin() {
    this.flat = []
  }
  /** @returns the line so far */
  add([along, up]: [number, number]): number[] {
    const onto = (v: number) => Math.max(-1, Math.min(1, v))
    const [a, u] = [onto(along), onto(up)]
    const n = this.flat.length
    const near = n > 0 && Math.hypot(a - this.flat[n - 2]!, u - this.flat[n - 1]!) < NEAR
    if (!near && n < 2 * MOST_POINTS) this.flat.push(a, u)
    return [...this.flat]
  }
}
