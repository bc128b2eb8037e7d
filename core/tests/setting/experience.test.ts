import { describe, expect, it } from 'vitest'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { shimAdjusters } from '../../src/drives/sheet.ts'
import { alke2Lower, lomvi90 } from '../../src/drives/sheets/index.ts'
import { assess } from '../../src/setting/assess.ts'
import type { BuildState } from '../../src/setting/taken.ts'
import { experienceOf, FEWEST_UNITS, firstQuestion } from '../../src/setting/experience.ts'
import { withExperience, type Experience } from '../../src/setting/with-experience.ts'
import { learnedSolverInput } from '../../src/setting/learned.ts'
import { shimSolve, type ShimPlan } from '../../src/setting/shim-solve.ts'
import { measureBuild, trulyIn, virtualCase, type VirtualCase } from '../../src/simulation/virtual-case.ts'
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

/** Units of one sheet: what is right for the kind is not what the manual begins with, and each unit differs a little from its kind. */
function kindOf(sheet: DriveSheet, seed: number) {
  const r = random(seed)
  const right = Object.fromEntries(
    shimAdjusters(sheet).map((a) => [
      a.id,
      Math.min(a.maxMm - 0.2, Math.max(a.minMm + 0.2, a.startMm + 0.5 * (r() - 0.5))),
    ]),
  )
  return {
    unit: (): VirtualCase => ({ ...virtualCase(sheet, r, { machiningMm: 0.05 }), stacks: right }),
    random: r,
  }
}

/** Builds one unit until everything is in beyond doubt. */
function build(
  sheet: DriveSheet,
  unit: VirtualCase,
  first: Record<string, number>,
  r: () => number,
  experience?: Experience,
): BuildState[] {
  const builds: BuildState[] = []
  let stacks = first
  while (builds.length < MOST) {
    builds.push(measureBuild(unit, stacks, gauge, r))
    if (assess(sheet, builds.at(-1)!).allIn) break
    const input = learnedSolverInput(sheet, builds, drawer, undefined, experience)
    stacks = stacksOf(shimSolve({ ...input, plans: 1 }).plans[0]!)
  }
  return builds
}
const startOf = (sheet: DriveSheet) => Object.fromEntries(shimAdjusters(sheet).map((a) => [a.id, a.startMm]))

describe('a sheet learns from its units', () => {
  it.each([alke2Lower, lomvi90].map((s) => [s.id, s] as const))(
    '%s: with five units behind it the first proposal lands at least as often as it promises, and needs fewer builds',
    (_, sheet) => {
      const [start, KINDS, UNITS] = [startOf(sheet), 8, 6]
      const sum = { promised: 0, landed: 0, with: 0, without: 0, units: 0 }
      for (let seed = 1; seed <= KINDS; seed++) {
        const kind = kindOf(sheet, seed)
        const behind = Array.from({ length: 5 }, () => build(sheet, kind.unit(), start, kind.random))
        const experience = experienceOf(sheet, behind)!
        expect(experience.units).toBe(5)
        const question = firstQuestion(sheet, experience, drawer)!
        const plan = shimSolve({ ...question, plans: 1 }).plans[0]!
        for (let k = 0; k < UNITS; k++) {
          const unit = kind.unit()
          sum.units++
          sum.promised += plan.probability
          sum.landed += Number(trulyIn(unit, stacksOf(plan)))
          sum.without += build(sheet, unit, start, kind.random).length
          sum.with += build(sheet, unit, stacksOf(plan), kind.random, experience).length
        }
      }
      expect(sum.promised).toBeGreaterThan(0.2 * sum.units)
      expect(sum.landed).toBeGreaterThanOrEqual(sum.promised - 2 * Math.sqrt(0.25 * sum.units))
      expect(sum.with).toBeLessThanOrEqual(0.85 * sum.without)
    },
  )

  const kind = kindOf(lomvi90, 99)
  const units = Array.from({ length: 8 }, () => build(lomvi90, kind.unit(), startOf(lomvi90), kind.random))
  it('says nothing of fewer units than tell how units differ', () => {
    expect(experienceOf(lomvi90, units.slice(0, FEWEST_UNITS - 1))).toBeUndefined()
    expect(experienceOf(lomvi90, [])).toBeUndefined()
    expect(experienceOf(lomvi90, units.slice(0, FEWEST_UNITS))!.units).toBe(FEWEST_UNITS)
  })
  it('leaves out units that were never measured to the end, or lack a stack', () => {
    const half: BuildState = { stacks: units[0]![0]!.stacks, readings: {} }
    const { pinion: _pinion, ...rest } = units[0]!.at(-1)!.stacks
    expect(experienceOf(lomvi90, [...units, [half], [{ ...units[0]!.at(-1)!, stacks: rest }]])).toEqual(
      experienceOf(lomvi90, units),
    )
  })
  it('is surer with more units, and never surer than a gauge', () => {
    const [few, many] = [experienceOf(lomvi90, units.slice(0, 4))!, experienceOf(lomvi90, units)!]
    expect(many.measures['backlash-forward']!.sd).toBeLessThan(few.measures['backlash-forward']!.sd)
    const same = Array.from({ length: 6 }, () => [units[0]!.at(-1)!])
    expect(experienceOf(lomvi90, same)!.measures['backlash-forward']!.sd).toBeGreaterThan(0.004)
  })
  it('believes a sensitivity that every unit has shown, and stays in doubt of the next unit', () => {
    const off = (seed: number) => {
      const r = random(seed)
      const unit = virtualCase(lomvi90, r, { machiningMm: 0.1, geometryRelSd: 0.01 })
      unit.sensitivities['backlash-forward'] = {
        ...unit.sensitivities['backlash-forward'],
        forward: 1.25 * unit.sensitivities['backlash-forward']!.forward!,
      }
      const moved = { ...unit.stacks, forward: unit.stacks.forward! + 0.3 }
      return [measureBuild(unit, unit.stacks, gauge, r), measureBuild(unit, moved, gauge, r)]
    }
    const experience = experienceOf(lomvi90, [1, 2, 3, 4, 5, 6].map(off))!
    const prior = learnedSolverInput(lomvi90, [off(7)[0]!], []).quantities.find(
      (q) => q.id === 'backlash-forward',
    )!
    const shown = experience.sensitivity['backlash-forward']!.forward!
    expect(shown.mean / prior.sensitivity.forward!).toBeGreaterThan(1.15)
    expect(shown.trials).toBe(6)
    expect(shown.relU).toBeLessThan(prior.relUByStack!.forward!)
    expect(shown.relU).toBeGreaterThan(0.02)
    const told = withExperience(learnedSolverInput(lomvi90, [off(7)[0]!], []), experience)
    expect(told.quantities.find((q) => q.id === 'backlash-forward')!.sensitivity.forward).toBe(shown.mean)
    expect(withExperience(told, undefined)).toBe(told)
  })
})
