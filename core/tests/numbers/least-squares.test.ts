import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  gaussNewton,
  leastSquares,
  lineFit,
  unitCovariance,
  dampedLeastSquares,
} from '../../src/numbers/least-squares.ts'

const small = fc.double({ min: -10, max: 10, noNaN: true })

describe('a linear fit', () => {
  it('finds what the values were made of, with nothing left', () => {
    fc.assert(
      fc.property(small, small, small, (a, b, c) => {
        const rows = [-1, -0.4, 0.1, 0.6, 1].map((x) => [1, x, x * x])
        const fit = leastSquares(
          rows,
          rows.map(([, x, xx]) => a + b * x! + c * xx!),
        )!
        ;[a, b, c].forEach((v, k) => expect(fit.x[k]).toBeCloseTo(v, 8))
        expect(fit.squares).toBeLessThan(1e-16 + 1e-20)
      }),
    )
  })
  it('leaves residuals at right angles to every column', () => {
    const rows = [
      [1, 0],
      [1, 1],
      [1, 2],
      [1, 4],
    ]
    const y = [1, 0, 5, 2]
    const { x, squares } = leastSquares(rows, y)!
    const rest = rows.map((r, i) => y[i]! - r[0]! * x[0]! - r[1]! * x[1]!)
    for (const k of [0, 1]) expect(rest.reduce((s, v, i) => s + v * rows[i]![k]!, 0)).toBeCloseTo(0, 10)
    expect(squares).toBeCloseTo(
      rest.reduce((s, v) => s + v * v, 0),
      12,
    )
  })
  it.each([
    [
      'columns that are the same',
      [
        [1, 1],
        [2, 2],
        [3, 3],
      ],
      [1, 2, 3],
    ],
    ['fewer rows than unknowns', [[1, 2]], [1]],
    [
      'nothing but zeros',
      [
        [0, 0],
        [0, 0],
        [0, 0],
      ],
      [1, 2, 3],
    ],
  ])('is none of %s', (_, rows, y) => {
    expect(leastSquares(rows, y)).toBeUndefined()
  })
  it('gives the inverse of the normal equations', () => {
    const rows = [
      [1, -1],
      [1, 0],
      [1, 1],
      [1, 3],
    ]
    const c = unitCovariance(rows)!
    // n = 4, Σx = 3, Σx² = 11: the inverse of [[4, 3], [3, 11]]
    expect(c[0]![0]).toBeCloseTo(11 / 35, 12)
    expect(c[1]![1]).toBeCloseTo(4 / 35, 12)
    expect(c[0]![1]).toBeCloseTo(-3 / 35, 12)
    expect(
      unitCovariance([
        [1, 1],
        [1, 1],
      ]),
    ).toBeUndefined()
  })
})

describe('a line', () => {
  it('agrees with the plain formula, also far from zero', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(small, small), { minLength: 3, maxLength: 20 }),
        fc.constantFrom(0, 1e6),
        (points, far) => {
          const [x, y] = [points.map((p) => p[0] + far), points.map((p) => p[1] + far)]
          const spread = Math.max(...x) - Math.min(...x)
          fc.pre(spread > 0.5)
          const mean = (v: number[]) => v.reduce((s, w) => s + w, 0) / v.length
          const [mx, my] = [mean(x), mean(y)]
          const slope =
            x.reduce((s, v, i) => s + (v - mx) * (y[i]! - my), 0) / x.reduce((s, v) => s + (v - mx) ** 2, 0)
          const fit = lineFit(x, y)!
          expect(fit.slope).toBeCloseTo(slope, 5)
          expect(fit.middle).toBeCloseTo(my, 5)
          expect(fit.meanX).toBeCloseTo(mx, 5)
        },
      ),
    )
  })
  it('through one x is none', () => expect(lineFit([2, 2, 2], [1, 2, 3])).toBeUndefined())
})

describe('Gauss-Newton', () => {
  const minutes = [0, 1, 2, 4, 7, 11]
  const decay = (y: number[]) => (p: readonly number[]) => {
    const [a, r] = p as [number, number]
    const e = minutes.map((t) => Math.exp(-r * t))
    return { rest: e.map((v, i) => y[i]! - a * v), rows: e.map((v, i) => [v, -a * minutes[i]! * v]) }
  }
  const small = (x: readonly number[], d: readonly number[]) => Math.abs(d[1]!) < 1e-9 * Math.abs(x[1]!)
  const made = minutes.map((t) => 50 * Math.exp(-0.13 * t))

  it('walks from a poor guess to what the values were made of, in more than one step', () => {
    const fit = gaussNewton([30, 0.3], decay(made), small, 30)
    expect(fit.status).toBe('converged')
    expect(fit.x[0]).toBeCloseTo(50, 6)
    expect(fit.x[1]).toBeCloseTo(0.13, 8)
    expect(fit.steps).toBeGreaterThan(2)
    expect(fit.squares).toBeLessThan(1e-12)
  })
  it('says that it was still moving at its cap', () => {
    const fit = gaussNewton([30, 0.3], decay(made), small, 2)
    expect(fit).toMatchObject({ status: 'capped', steps: 2 })
    expect(fit.squares).toBeGreaterThan(1e-6)
  })
  it('says that it failed where the model has no meaning, or the unknowns cannot be told apart', () => {
    expect(gaussNewton([1, 1], () => undefined, small, 5).status).toBe('failed')
    expect(gaussNewton([0, 0.1], decay(made), small, 5).status).toBe('failed')
  })
})

describe('damped least squares within bounds', () => {
  // y = a (1 − e^(−b t)): steep for small b, flat for large ones
  const t = [0.5, 1, 2, 3, 5, 8]
  const made = t.map((v) => 4 * (1 - Math.exp(-0.6 * v)))
  const misfit = ([a, b]: readonly number[]) => t.map((v, i) => made[i]! - a! * (1 - Math.exp(-b! * v)))
  const slopes = ([a, b]: readonly number[]) => [
    t.map((v) => 1 - Math.exp(-b! * v)),
    t.map((v) => a! * v * Math.exp(-b! * v)),
  ]
  it('finds what the values were made of from a poor start, and says that it has settled', () => {
    const fit = dampedLeastSquares([0.5, 3], misfit, slopes, [10, 10], 1e-9, 100)
    expect(fit.status).toBe('converged')
    expect(fit.x[0]).toBeCloseTo(4, 6)
    expect(fit.x[1]).toBeCloseTo(0.6, 6)
    expect(fit.squares).toBeLessThan(1e-12)
    expect(fit.rest).toEqual(misfit(fit.x))
  })
  it('never leaves its bounds, and stops at one when the answer lies beyond', () => {
    const fit = dampedLeastSquares([0.5, 0.5], misfit, slopes, [3, 10], 1e-9, 200)
    expect(Math.abs(fit.x[0]!)).toBeLessThanOrEqual(3)
    expect(fit.x[0]).toBeCloseTo(3, 6)
    expect(fit.squares).toBeGreaterThan(0.1)
  })
  it('never makes the fit worse than where it began', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (a, b) => {
          const before = misfit([a, b]).reduce((s, v) => s + v * v, 0)
          expect(dampedLeastSquares([a, b], misfit, slopes, [10, 10], 1e-6, 20).squares).toBeLessThanOrEqual(
            before,
          )
        },
      ),
    )
  })
  it('says that it was still moving at its cap, and that nothing helps where nothing can', () => {
    expect(dampedLeastSquares([0.5, 3], misfit, slopes, [10, 10], 1e-12, 1)).toMatchObject({
      status: 'capped',
      steps: 1,
    })
    const flat = () => [1, 1, 1]
    const stuck = dampedLeastSquares([1], flat, () => [[0, 0, 0]], [10], 1e-9, 10)
    expect(stuck).toMatchObject({ status: 'converged', x: [1], steps: 1 })
  })
})
