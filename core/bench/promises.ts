import type { DriveSheet } from '../src/drives/sheet.ts'
import { demoSheets } from '../src/drives/sheets/index.ts'
import { assess, isSettable, solverInput } from '../src/setting/assess.ts'
import type { BuildState } from '../src/setting/taken.ts'
import { learnedSolverInput } from '../src/setting/learned.ts'
import { settingMeasures } from '../src/setting/measures.ts'
import { shimSolve, type ShimPlan } from '../src/setting/shim-solve.ts'
import { measureBuild, trulyIn, virtualCase } from '../src/simulation/virtual-case.ts'
import { random } from '../tests/refused.ts'

/**
 * The promise of the solver over 500 virtual cases of each drive that can be set, with all its settings (preload, seats, depth, backlash, crush, carriers) and
 * shafts that answer 10 % off their geometry: how often it lands, against how often it said it would. And how many builds it takes until every
 * setting is in beyond doubt, with what the builds have taught and without.
 */
const SEEDS = 500
const MOST = 8
const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.005 }
const drawer = Array.from({ length: 24 }, (_, i) => ({
  id: `d${String(i).padStart(2, '0')}`,
  thicknessMm: (i + 1) / 20,
  count: 3,
}))
/** Finer stock and gauges for counting builds: with coarse ones most of the waiting is for the drawer. */
const finer = { resolution: 0.005, mpe: 0.006, repeatability: 0.004 }
const stock = Array.from({ length: 60 }, (_, i) => ({
  id: `d${String(i).padStart(2, '0')}`,
  thicknessMm: (i + 1) / 50,
  count: 6,
}))
const stacksOf = (plan: ShimPlan) =>
  Object.fromEntries(Object.entries(plan.stacks).map(([id, s]) => [id, s.thicknessMm]))
const say = (line: object) => process.stdout.write(`${JSON.stringify(line)}\n`)

/** Builds after the first, until every setting is in; those that never are count as {@link MOST}. */
function buildsNeeded(
  sheet: DriveSheet,
  learning: boolean,
): { mean: number; within2: number; never: number } {
  let [total, soon, never] = [0, 0, 0]
  for (let seed = 1; seed <= SEEDS; seed++) {
    const r = random(seed)
    const gearcase = virtualCase(sheet, r, { geometryRelSd: 0.1, machiningMm: 0.3 })
    const builds: BuildState[] = []
    let stacks = gearcase.stacks
    let made = 0
    for (; made < MOST; made++) {
      builds.push(measureBuild(gearcase, stacks, finer, r))
      if (assess(sheet, builds.at(-1)!, settingMeasures(sheet)).allIn) break
      const input = learning
        ? learnedSolverInput(sheet, builds, stock)
        : solverInput(sheet, builds.at(-1)!, stock)
      stacks = stacksOf(shimSolve({ ...input, plans: 1 }).plans[0]!)
    }
    total += made
    if (made <= 2) soon++
    if (made === MOST) never++
  }
  return { mean: Math.round((100 * total) / SEEDS) / 100, within2: soon, never }
}

for (const sheet of demoSheets.filter(isSettable)) {
  let [promised, landed, plans] = [0, 0, 0]
  for (let seed = 1; seed <= SEEDS; seed++) {
    const r = random(seed)
    const gearcase = virtualCase(sheet, r, { geometryRelSd: 0.1 })
    const result = shimSolve({
      ...solverInput(sheet, measureBuild(gearcase, gearcase.stacks, gauge, r), drawer),
      plans: 1,
    })
    const [plan] = result.plans
    if (result.status !== 'fit' || !plan) continue
    plans++
    promised += plan.probability
    const measures = settingMeasures(sheet).filter((m) => plan.predicted[m.id])
    if (trulyIn(gearcase, stacksOf(plan), measures)) landed++
  }
  const settings = settingMeasures(sheet).map((m) => m.kind)
  say({
    what: 'promise over 500 seeds',
    sheet: sheet.id,
    settings,
    plans,
    promised: Math.round(promised * 10) / 10,
    landed,
  })
  for (const learning of [true, false])
    say({ what: 'builds until all is in', sheet: sheet.id, learning, ...buildsNeeded(sheet, learning) })
}
