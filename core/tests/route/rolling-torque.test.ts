import { expect, it } from 'vitest'
import { withFigure } from '../../src/drives/own/body.ts'
import { figureFields } from '../../src/drives/own/figures.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { FAMILIES, type Family } from '../../src/drives/sheet.ts'
import { planOf } from '../../src/route/plan.ts'
import { plannedFacts } from './planned-facts.ts'
import { progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { fullScope } from '../../src/route/scope.ts'
import { settingMeasures } from '../../src/setting/measures.ts'

it.each(Object.keys(FAMILIES) as Family[])(
  'every rolling torque that a sheet of %s gives is asked in a full rebuild, and the route has its step',
  (family) => {
    let body = templateOf(family, 'own', 'Own')
    for (const f of figureFields(body))
      if (f.path.endsWith('.newNm')) body = withFigure(body, f.path, { min: 0.8, max: 1.2 })
    const sheet = filled(body)
    const plan = planOf(sheet, fullScope(sheet))
    const torques = settingMeasures(sheet).filter((m) => m.kind === 'rolling-torque')
    for (const m of torques) {
      expect(m.window).toEqual({ min: 0.8, max: 1.2 })
      expect(plan.disturbed).toContain(m.id)
    }
    const { steps } = progressOf(routeOf(sheet), plannedFacts(sheet, plan), new Set())
    const step = steps.find((s) => s.step.id === 'preload')
    if (torques.length) expect(step?.state).not.toBe('not-here')
    else expect(step === undefined || step.state === 'not-here').toBe(true)
  },
)
