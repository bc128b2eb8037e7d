import { describe, expect, it } from 'vitest'
import { probabilityInWindow } from '../../src/numbers/normal.ts'
import { couplings, LandingBox } from '../../src/setting/landing-box.ts'
import { bestLanding, closenessBound, landingBound, predict } from '../../src/setting/landing.ts'
import { resolveShimProblem, type ShimProblem } from '../../src/setting/shim-problem.ts'
import { random } from '../refused.ts'

/** A pinion that works on every quantity, two stacks with one of their own each, and one that moves nothing. */
function problem(seed: number, relU: number): ShimProblem {
  const r = random(seed)
  const ids = ['pinion', 'forward', 'reverse', 'idle']
  return resolveShimProblem({
    locations: ids.map((id) => ({ id, currentMm: 0.3 + r() * 0.6, minMm: 0.1, maxMm: 1.4, maxPieces: 3 })),
    quantities: [
      {
        id: 'depth',
        measured: (r() - 0.5) * 0.3,
        u: 0.01,
        window: { min: -0.03, max: 0.03 },
        target: 0,
        sensitivity: { pinion: -1 },
      },
      ...['forward', 'reverse'].map((id) => ({
        id,
        measured: 0.32 + (r() - 0.5) * 0.4,
        u: 0.012,
        window: { min: 0.25, max: 0.4 },
        target: 0.31,
        sensitivity: { pinion: -0.36, [id]: -0.8 } as Record<string, number>,
      })),
    ],
    pieces: [],
    sensitivityRelU: relU,
  })
}
const values = (r: () => number, n: number) => Float64Array.from({ length: n }, () => 0.1 + r() * 1.3).sort()
const probabilityOf = (p: ShimProblem, t: ArrayLike<number>) =>
  p.quantities.reduce((all, q, i) => {
    const { value, sigma } = predict(p, i, t)
    return all * probabilityInWindow(value, sigma, q.window.min, q.window.max)
  }, 1)
const closenessOf = (p: ShimProblem, t: ArrayLike<number>) =>
  -p.quantities.reduce((all, q, i) => {
    const off = (predict(p, i, t).value - q.target) / ((q.window.max - q.window.min) / 2)
    return all + off * off
  }, 0)

describe('the best landing over a range of means and spreads', () => {
  it.each(Array.from({ length: 40 }, (_, i) => [i + 1]))('is the highest of a fine grid (%i)', (seed) => {
    const r = random(seed)
    const [muLo, width] = [(r() - 0.5) * 0.6, r() * 0.2]
    const [sLo, spread] = [0.002 + r() * 0.05, r() * 0.1]
    const got = bestLanding(muLo, muLo + width, sLo, sLo + spread, -0.05, 0.08)
    let most = 0
    for (let i = 0; i <= 60; i++)
      for (let k = 0; k <= 60; k++)
        most = Math.max(
          most,
          probabilityInWindow(muLo + (width * i) / 60, sLo + (spread * k) / 60, -0.05, 0.08),
        )
    expect(got).toBeGreaterThanOrEqual(most - 1e-12)
    expect(got).toBeLessThanOrEqual(most + 0.004)
  })
  it('at one point is that point', () => {
    expect(bestLanding(0.02, 0.02, 0.03, 0.03, -0.05, 0.08)).toBe(
      probabilityInWindow(0.02, 0.03, -0.05, 0.08),
    )
    expect(bestLanding(0.2, 0.2, 0.03, 0.03, -0.05, 0.08)).toBe(probabilityInWindow(0.2, 0.03, -0.05, 0.08))
  })
})

describe.each([0, 0.1])('a box of stacks, relative uncertainty %d', (relU) => {
  it('is bounded above every point in it, and exactly at a point', () => {
    for (let seed = 1; seed <= 20; seed++) {
      const p = problem(seed, relU)
      const r = random(seed + 100)
      const lo = Float64Array.from({ length: 4 }, () => 0.2 + r() * 0.6)
      const hi = lo.map((v) => v + r() * 0.3)
      const [landing, closeness] = [landingBound(p)(lo, hi), closenessBound(p)(lo, hi)]
      for (let k = 0; k < 60; k++) {
        const t = lo.map((v, i) => v + r() * (hi[i]! - v))
        expect(landing).toBeGreaterThanOrEqual(probabilityOf(p, t) - 1e-12)
        expect(closeness).toBeGreaterThanOrEqual(closenessOf(p, t) - 1e-12)
        expect(landingBound(p)(t, t)).toBeCloseTo(probabilityOf(p, t), 12)
        expect(closenessBound(p)(t, t)).toBeCloseTo(closenessOf(p, t), 9)
      }
    }
  })

  it('of thicknesses on offer is bounded, and where it calls itself exact it is the best there is, at the place it names', () => {
    let exact = 0
    for (let seed = 1; seed <= 40; seed++) {
      const p = problem(seed, relU)
      const r = random(seed + 500)
      const offer = [values(r, 9), values(r, 12), values(r, 30), values(r, 3)]
      const box = new LandingBox(p, offer)
      // any range at each location; every other time the pinion is chosen
      const ranges = offer.map((t, l) => {
        const a = Math.floor(r() * t.length)
        const b = Math.min(t.length - 1, a + Math.floor(r() * t.length))
        return l === 0 && seed % 2 ? [a, a] : [a, b]
      })
      const score = box.score(Int32Array.from(ranges.flat()))
      const [named, claims] = [box.at.slice(), box.exact]
      let best = 0
      const each = (l: number, at: number[]) => {
        if (l === 4) {
          best = Math.max(
            best,
            probabilityOf(
              p,
              at.map((k, i) => offer[i]![k]!),
            ),
          )
          return
        }
        for (let k = ranges[l]![0]!; k <= ranges[l]![1]!; k++) each(l + 1, [...at, k])
      }
      each(0, [])
      expect(score).toBeGreaterThanOrEqual(best - 1e-12)
      if (!claims) continue
      exact++
      expect(score).toBeCloseTo(best, 12)
      expect(
        probabilityOf(
          p,
          Float64Array.from(named, (k, i) => offer[i]![k]!),
        ),
      ).toBeCloseTo(best, 12)
      named.forEach((k, l) => {
        expect(k).toBeGreaterThanOrEqual(ranges[l]![0]!)
        expect(k).toBeLessThanOrEqual(ranges[l]![1]!)
      })
    }
    // with the pinion chosen the others no longer compete
    expect(exact).toBeGreaterThanOrEqual(20)
  })

  it('is not exact while two open stacks work on one quantity, nor while one works on several', () => {
    const p = problem(3, relU)
    const offer = [values(random(1), 5), values(random(2), 5), values(random(3), 5), values(random(4), 5)]
    const box = new LandingBox(p, offer)
    const exactAt = (...ranges: number[]) => {
      box.score(Int32Array.from(ranges))
      return box.exact
    }
    expect(exactAt(0, 4, 0, 4, 0, 0, 0, 0)).toBe(false)
    expect(exactAt(0, 4, 2, 2, 0, 0, 0, 0)).toBe(false)
    expect(exactAt(1, 1, 0, 4, 0, 4, 0, 4)).toBe(true)
    expect(exactAt(1, 1, 2, 2, 3, 3, 0, 0)).toBe(true)
  })
})

describe('where a box is cut', () => {
  const p = problem(2, 0)
  const offer = [values(random(1), 8), values(random(2), 8), values(random(3), 8), values(random(4), 8)]
  const weight = Float64Array.of(1, 50, 2, 1e-9)
  const cut = couplings(p, offer, weight)
  it('at the stack on which most quantities hang together with another', () => {
    expect(cut(Int32Array.of(0, 7, 0, 7, 0, 7, 0, 7))).toBe(0)
    expect(cut(Int32Array.of(0, 1, 0, 7, 0, 7, 0, 0))).toBe(0)
  })
  it('once that is chosen, where the range moves most', () => {
    expect(cut(Int32Array.of(3, 3, 0, 7, 0, 7, 0, 7))).toBe(1)
    expect(cut(Int32Array.of(3, 3, 4, 4, 0, 7, 0, 7))).toBe(2)
    expect(cut(Int32Array.of(3, 3, 4, 4, 5, 5, 0, 7))).toBe(3)
    // a narrow range of what matters much, against a wide one of what matters little
    expect(
      couplings(
        p,
        [offer[0]!, Float64Array.of(0.5, 0.501), offer[2]!, offer[3]!],
        weight,
      )(Int32Array.of(3, 3, 0, 1, 0, 7, 0, 0)),
    ).toBe(2)
  })
  it('nowhere when all is chosen', () => {
    expect(cut(Int32Array.of(3, 3, 4, 4, 5, 5, 6, 6))).toBe(-1)
  })
})
