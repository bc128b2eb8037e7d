import { demoSheets } from '../src/drives/sheets/index.ts'
import { shimSolve } from '../src/setting/shim-solve.ts'
import { isSettable, solverInput } from '../src/setting/assess.ts'
import { settingMeasures } from '../src/setting/measures.ts'
import { measureBuild, trulyIn, virtualCase } from '../src/simulation/virtual-case.ts'
import { random } from '../tests/refused.ts'

/** The promise of the solver over 500 virtual cases of each shimmed drive: how often it lands, against how often it said it would. */
const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.005 }
const drawer = Array.from({ length: 24 }, (_, i) => ({
  id: `d${String(i).padStart(2, '0')}`,
  thicknessMm: (i + 1) / 20,
  count: 3,
}))
for (const sheet of demoSheets.filter(isSettable)) {
  let [promised, landed, plans] = [0, 0, 0]
  for (let seed = 1; seed <= 500; seed++) {
    const r = random(seed)
    const gearcase = virtualCase(sheet, r)
    const result = shimSolve({
      ...solverInput(sheet, measureBuild(gearcase, gearcase.stacks, gauge, r), drawer),
      plans: 1,
    })
    const [plan] = result.plans
    if (result.status !== 'fit' || !plan) continue
    plans++
    promised += plan.probability
    const measures = settingMeasures(sheet).filter((m) => plan.predicted[m.id])
    const stacks = Object.fromEntries(Object.entries(plan.stacks).map(([id, s]) => [id, s.thicknessMm]))
    if (trulyIn(gearcase, stacks, measures)) landed++
  }
  process.stdout.write(
    `${JSON.stringify({ what: 'promise over 500 seeds', sheet: sheet.id, plans, promised: Math.round(promised * 10) / 10, landed })}\n`,
  )
}
