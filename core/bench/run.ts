import { random } from '../tests/refused.ts'
import type { ShimSolveInput } from '../src/setting/shim-problem.ts'
import { patternRead } from '../src/contact/pattern-read.ts'
import { closeTeethInPlace, contactSolver, patchOf, toothContact } from '../src/contact/tooth-contact.ts'
import { leakTest } from '../src/leak/leak-test.ts'
import { trialUpdate } from '../src/setting/trial-update.ts'
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

/** Median over `runs` after a warm-up of the same length. */
function report(name: string, facts: object, runs: number, work: () => unknown) {
  for (let i = 0; i < runs; i++) work()
  const times = Array.from({ length: runs }, () => ms(work))
  process.stdout.write(
    `${JSON.stringify({ name, ...facts, runs, medianMs: round(median(times)), worstMs: round(Math.max(...times)) })}\n`,
  )
}

const mesh = {
  pinionTeeth: 13,
  gearTeeth: 28,
  moduleMm: 4.2,
  faceWidthMm: 17,
  spiralAngleDeg: 35,
  cutterRadiusMm: 50.7,
  gearAddendumMm: 2.4,
  pinionAddendumMm: 4.7,
}
const crown = { crownLengthMm: 0.02, crownProfileMm: 0.015, centreLength: 0, centreProfile: 0, filmMm: 0.006 }
const setting = { pinionMm: 0.03, gearMm: -0.04, offsetMm: 0.01, shaftAngleErrorDeg: 0.02 }
report('tooth-contact', { samples: '161x81', with: 'raster and outline, from scratch' }, 60, () =>
  toothContact({ mesh, side: 1, ...setting, ...crown, raster: true }),
)
const solver = contactSolver(mesh, 1)
report('tooth-contact', { samples: '161x81', with: 'a new setting on a known pair' }, 60, () => {
  closeTeethInPlace(solver, setting, crown)
  return patchOf(solver, crown.filmMm)
})
report('pattern-read', {}, 20, () =>
  patternRead({
    mesh,
    ...crown,
    drive: { length: 0.2, profile: -0.15 },
    coast: { length: 0.1, profile: -0.2 },
  }),
)
const r = random(12)
report('trial-update', { trials: 12, quantities: 4, stacks: 3 }, 50, () =>
  trialUpdate({
    locations: ['a', 'b', 'c'],
    quantities: ['p', 'q', 'r', 's'].map((id) => ({
      id,
      sensitivity: { a: 0.6, b: -1.2, c: 0.3 },
      relSd: 0.1,
      u: 0.01,
    })),
    trials: Array.from({ length: 12 }, () => ({
      stacks: { a: r(), b: r(), c: r() },
      readings: { p: r(), q: r(), r: r(), s: r() },
    })),
  }),
)
const readings = Array.from({ length: 10_000 }, (_, i) => ({
  s: i * 2,
  gaugeKpa: 70 - i * 1e-5 + 0.05 * r(),
  tempC: 20 + 0.1 * r(),
}))
report('leak-test', { readings: 10_000 }, 30, () =>
  leakTest({ readings, atmosphereKpa: 101.3, volumeMl: 650, allowedMlPerMin: 0.25, gaugeResolutionKpa: 0.1 }),
)
