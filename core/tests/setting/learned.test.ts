import { describe, expect, it } from 'vitest'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { alke2Upper, havsuleDuoLower, lomvi90 } from '../../src/drives/sheets/index.ts'
import { assess, solverInput } from '../../src/setting/assess.ts'
import type { BuildState } from '../../src/setting/taken.ts'
import { learnedSolverInput, learnFrom } from '../../src/setting/learned.ts'
import { shimSolve, type ShimPlan } from '../../src/setting/shim-solve.ts'
import { measureBuild, virtualCase } from '../../src/simulation/virtual-case.ts'
import { times } from '../long.ts'
import { random } from '../refused.ts'

const gauge = { resolution: 0.005, mpe: 0.006, repeatability: 0.004 }
const drawer = Array.from({ length: 60 }, (_, i) => ({
  id: `d${String(i).padStart(2, '0')}`,
  thicknessMm: (i + 1) / 50,
  count: 6,
}))
const stacksOf = (plan: ShimPlan) =>
  Object.fromEntries(Object.entries(plan.stacks).map(([id, s]) => [id, s.thicknessMm]))
const MOST = 8

/** The sheet with every closed backlash window narrowed about its middle. */
function narrowed(sheet: DriveSheet, share: number): DriveSheet {
  return {
    ...sheet,
    // how gears answer is what is asked here; a crush answers mm for mm whatever was learned
    bearings: sheet.bearings.map(({ setting: _, ...b }) => b),
    measures: sheet.measures.map((m) => {
      const { min, max } = m.window
      if (m.kind !== 'backlash' || min === undefined || max === undefined) return m
      const [middle, half] = [(min + max) / 2, (share * (max - min)) / 2]
      return { ...m, window: { min: middle - half, max: middle + half }, target: middle }
    }),
  }
}

/** Builds until every measure is in its window beyond doubt, over many virtual cases. */
function buildsNeeded(sheet: DriveSheet, geometryRelSd: number, learning: boolean, seeds: number): number {
  let total = 0
  for (let seed = 1; seed <= seeds; seed++) {
    const r = random(seed)
    const gearcase = virtualCase(sheet, r, { geometryRelSd, machiningMm: 0.3 })
    const builds: BuildState[] = []
    let stacks = gearcase.stacks
    for (let made = 0; made < MOST; made++) {
      builds.push(measureBuild(gearcase, stacks, gauge, r))
      if (assess(sheet, builds.at(-1)!).allIn) break
      const input = learning
        ? learnedSolverInput(sheet, builds, drawer)
        : solverInput(sheet, builds.at(-1)!, drawer)
      stacks = stacksOf(shimSolve({ ...input, plans: 1 }).plans[0]!)
      total++
    }
  }
  return total
}

describe('learning over the builds of a job', () => {
  it.each([alke2Upper, havsuleDuoLower].map((s) => [s.id, narrowed(s, 0.6)] as const))(
    '%s, answering unlike its geometry: fewer builds than solving each time from the newest readings alone',
    (_, sheet) => {
      const [without, learned] = [buildsNeeded(sheet, 0.3, false, 60), buildsNeeded(sheet, 0.3, true, 60)]
      expect(without).toBeGreaterThan(60)
      expect(learned).toBeLessThanOrEqual(0.95 * without)
    },
  )
  it('needs no more where the geometry is right anyhow', () => {
    const seeds = times(25, 60)
    const [without, learned] = [
      buildsNeeded(lomvi90, 0.1, false, seeds),
      buildsNeeded(lomvi90, 0.1, true, seeds),
    ]
    expect(learned).toBeLessThanOrEqual(without + 1)
  })

  const r = random(5)
  const gearcase = virtualCase(lomvi90, r, { geometryRelSd: 0.3 })
  const first = measureBuild(gearcase, gearcase.stacks, gauge, r)
  const moved = { ...gearcase.stacks, forward: gearcase.stacks.forward! + 0.2 }
  const second = measureBuild(gearcase, moved, gauge, r)
  it('is the plain question as long as there is one build', () => {
    expect(learnFrom(lomvi90, [first])).toBeUndefined()
    expect(learnedSolverInput(lomvi90, [first], drawer)).toEqual(solverInput(lomvi90, first, drawer))
  })
  it('moves the sensitivity of the stack that was changed toward the truth, and is surer of it', () => {
    const prior = solverInput(lomvi90, second, []).quantities.find((q) => q.id === 'backlash-forward')!
    const learned = learnedSolverInput(lomvi90, [first, second], []).quantities.find(
      (q) => q.id === 'backlash-forward',
    )!
    const truth = gearcase.sensitivities['backlash-forward']!.forward!
    expect(Math.abs(learned.sensitivity.forward! - truth)).toBeLessThan(
      Math.abs(prior.sensitivity.forward! - truth),
    )
    expect(learned.relUByStack!.forward).toBeLessThan(0.09)
  })
  it('leaves out a build that was never measured to the end', () => {
    const left: BuildState = { stacks: moved, readings: {} }
    expect(learnFrom(lomvi90, [first, left, second])).toEqual(learnFrom(lomvi90, [first, second]))
  })
  it('says when a build answers as no shim could make it', () => {
    const wrong = measureBuild(gearcase, { ...moved, forward: moved.forward! + 0.3 }, gauge, r)
    const learned = learnFrom(lomvi90, [first, second, { ...wrong, stacks: moved }])!
    expect(learned.warnings.map((w) => w.quantity)).toContain('backlash-forward')
  })
})
