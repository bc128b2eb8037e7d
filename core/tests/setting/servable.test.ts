import { describe, expect, it } from 'vitest'
import { MOST_CUTS, pieceCuts, servable } from '../../src/setting/shim-problem.ts'
import { shimSolve } from '../../src/setting/shim-solve.ts'

const blank = (id: string, thicknessMm: number, minMm: number, stepMm = 0.01) => ({
  id,
  thicknessMm,
  count: 2,
  cut: { kind: 'ground' as const, stepMm, minMm },
})
const shim = { id: 'd1', thicknessMm: 0.5, count: 2 }

describe('pieces as far as they can serve', () => {
  it('are not asked about where even the thinnest cut is thicker than every stack', () => {
    expect(servable([shim, blank('d2', 6.1, 5)], 1.6)).toEqual([shim])
    expect(servable([shim, blank('d2', 6.1, 5)], 5)).toHaveLength(2)
  })
  it('are offered whole where more can be cut than one search may look at, so that the drawer never shuts a search out', () => {
    const many = Array.from({ length: 8 }, (_, i) => blank(`d${i}`, 1.5, 0.1, 0.0035))
    expect(many.reduce((n, p) => n + pieceCuts(p).length, 0)).toBeGreaterThan(MOST_CUTS)
    const pieces = servable(many, 1.6)
    expect(pieces.map((p) => p.id)).toEqual(many.map((p) => p.id))
    const cuts = pieces.reduce((n, p) => n + pieceCuts(p).length, 0)
    expect(cuts).toBeLessThanOrEqual(MOST_CUTS)
    expect(cuts).toBeGreaterThan(0)
    const locations = [{ id: 'a', currentMm: 0.6, minMm: 0.2, maxMm: 1.6, maxPieces: 2 }]
    const quantities = [
      {
        id: 'q',
        measured: 0.5,
        u: 0.01,
        window: { min: 0.2, max: 0.3 },
        target: 0.25,
        sensitivity: { a: -0.6 },
      },
    ]
    expect(() => shimSolve({ locations, quantities, pieces: many })).toThrow(/coarser steps/)
    expect(shimSolve({ locations, quantities, pieces }).status).toBe('fit')
  })
})
