import { random } from '../tests/refused.ts'
import type { Act } from '../src/assembly/act.ts'
import { assemblyIndex } from '../src/assembly/assembly-index.ts'
import { fold } from '../src/assembly/fold.ts'
import { invariants } from '../src/assembly/invariants.ts'
import { demoSheets } from '../src/drives/sheets/index.ts'
import type { ShimSolveInput } from '../src/setting/shim-problem.ts'
import { patternRead } from '../src/contact/pattern-read.ts'
import { closeTeethInPlace, contactSolver, patchOf, toothContact } from '../src/contact/tooth-contact.ts'
import { leakTest } from '../src/leak/leak-test.ts'
import { pairsTold } from './pattern-pairs.ts'
import { trialUpdate } from '../src/setting/trial-update.ts'
import { shimSolveSteps } from '../src/setting/shim-solve.ts'

/** npm run bench: one JSON line for each figure. Timings are shown here and tested nowhere. */
const ms = (work: () => unknown): number => {
  const started = performance.now()
  work()
  return performance.now() - started
}
const median = (times: number[]) => [...times].sort((a, b) => a - b)[times.length >> 1]!
const round = (v: number) => Math.round(v * 100) / 100

/**
 * A drawer of 60 lines with 2 to 6 pieces each, up to 4 pieces a stack.
 * @param train the pinion's stack moves every backlash, each other one its own: a gear train. Otherwise everything moves everything a little
 */
function drawer(seed: number, locations: number, train: boolean): ShimSolveInput {
  const r = random(seed)
  const ids = ['pinion', 'forward', 'reverse', 'upper', 'lower', 'input'].slice(0, locations)
  const answers = (i: number): Record<string, number> =>
    train
      ? i === 0
        ? { pinion: -1 }
        : { pinion: -0.36, [ids[i]!]: -0.8 }
      : Object.fromEntries(ids.map((id, k) => [id, k === i ? -0.8 : (r() - 0.5) * 0.4]))
  return {
    locations: ids.map((id) => ({ id, currentMm: 0.3 + r() * 0.7, minMm: 0.2, maxMm: 1.4, maxPieces: 4 })),
    quantities: ids.map((id, i) => ({
      id,
      ...(i === 0
        ? { measured: (r() - 0.5) * 0.3, u: 0.01, window: { min: -0.03, max: 0.03 }, target: 0 }
        : { measured: 0.32 + (r() - 0.5) * 0.5, u: 0.012, window: { min: 0.25, max: 0.4 }, target: 0.32 }),
      sensitivity: answers(i),
    })),
    pieces: Array.from({ length: 60 }, (_, i) => ({
      id: `p${String(i).padStart(2, '0')}`,
      thicknessMm: Math.round((0.05 + r() * 0.9) * 1000) / 1000,
      count: 2 + Math.floor(r() * 5),
    })),
    sensitivityRelU: seed % 2 ? 0.1 : 0,
  }
}

for (const [locations, drawers, train] of [
  [3, 50, true],
  [5, 50, true],
  [6, 50, true],
  [5, 15, false],
] as const) {
  const nodes: number[] = []
  /** Until there is a plan that could be built. */
  const first: number[] = []
  let proved = 0
  const times = Array.from({ length: drawers }, (_, i) =>
    ms(() => {
      const started = performance.now()
      const steps = shimSolveSteps(drawer(i + 1, locations, train))
      let seen = false
      for (let step = steps.next(); ; step = steps.next()) {
        if (!seen && (step.done || step.value.plan)) {
          seen = true
          first.push(performance.now() - started)
        }
        if (!step.done) continue
        nodes.push(step.value.nodes)
        if (step.value.provedOptimal) proved++
        return
      }
    }),
  )
  process.stdout.write(
    `${JSON.stringify({
      name: 'shim-solve',
      coupled: train ? 'as a gear train' : 'everything with everything',
      locations,
      lines: 60,
      piecesPerStack: 4,
      drawers,
      proved,
      firstPlanWorstMs: round(Math.max(...first)),
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
for (const straight of [true, false])
  process.stdout.write(
    `${JSON.stringify({ name: 'pattern-read', teeth: straight ? 'straight' : 'spiral', ...pairsTold(500, straight, 24) })}\n`,
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
/** Everything off and on again, over and over: what a unit of two cases has in its log after some repairs. */
for (const acts of [600, 1200]) {
  const cases = ['alke-2-upper', 'alke-2-lower'].map((id) => {
    const ix = assemblyIndex(demoSheets.find((s) => s.id === id)!)
    const ids = [...ix.parts.keys()]
    const log = Array.from({ length: acts / 2 }, (_, i): Act => {
      const on = ids[i % ids.length]!
      const out = Math.floor(i / ids.length) % 2 === 0
      return {
        n: i + 1,
        do: out ? 'remove' : 'fit',
        on,
        by: '',
        entered: '',
        at: '',
        sure: 'seen',
        from: 'row',
      }
    })
    return { ix, log }
  })
  report('assembly', { acts, cases: 2, with: 'fold and invariants' }, 50, () =>
    cases.map(({ ix, log }) => invariants(ix, fold(ix, log).state)),
  )
}
