import { random } from '../tests/refused.ts'
import type { ShimSolveInput } from '../src/setting/shim-problem.ts'
import { shimSolve } from '../src/setting/shim-solve.ts'

/** npm run bench: one JSON line for each figure. Timings are shown here and tested nowhere. */
const ms = (work: () => unknown): number => {
  const started = performance.now()
  work()
  return performance.now() - started
}
const median = (times: number[]) => [...times].sort((a, b) => a - b)[times.length >> 1]!
const round = (v: number) => Math.round(v * 100) / 100

/** A drawer of 40 lines with 2 to 6 pieces each, up to 4 pieces a stack. */
function drawer(seed: number, locations: number): ShimSolveInput {
  const r = random(seed)
  const ids = ['pinion', 'forward', 'reverse', 'upper', 'lower'].slice(0, locations)
  return {
    locations: ids.map((id) => ({ id, currentMm: 0.3 + r() * 0.7, minMm: 0.2, maxMm: 1.4, maxPieces: 4 })),
    quantities: ids.map((id, i) =>
      i === 0
        ? {
            id,
            measured: (r() - 0.5) * 0.3,
            u: 0.01,
            window: { min: -0.03, max: 0.03 },
            target: 0,
            sensitivity: { pinion: -1 },
          }
        : {
            id,
            measured: 0.32 + (r() - 0.5) * 0.5,
            u: 0.012,
            window: { min: 0.25, max: 0.4 },
            target: 0.32,
            sensitivity: { pinion: -0.36, [id]: -0.8 },
          },
    ),
    pieces: Array.from({ length: 40 }, (_, i) => ({
      id: `p${String(i).padStart(2, '0')}`,
      thicknessMm: Math.round((0.05 + r() * 0.9) * 1000) / 1000,
      count: 2 + Math.floor(r() * 5),
    })),
    sensitivityRelU: seed % 2 ? 0.1 : 0,
  }
}

for (const [locations, drawers] of [
  [3, 50],
  [5, 15],
] as const) {
  const nodes: number[] = []
  let proved = 0
  const times = Array.from({ length: drawers }, (_, i) =>
    ms(() => {
      const result = shimSolve(drawer(i + 1, locations))
      nodes.push(result.nodes)
      if (result.provedOptimal) proved++
    }),
  )
  process.stdout.write(
    `${JSON.stringify({
      name: 'shim-solve',
      locations,
      lines: 40,
      piecesPerStack: 4,
      drawers,
      proved,
      medianMs: round(median(times)),
      worstMs: round(Math.max(...times)),
      medianNodes: median(nodes),
      worstNodes: Math.max(...nodes),
    })}\n`,
  )
}
