import { expect, it } from 'vitest'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { FAMILIES, type Family } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { routeOf } from '../../src/route/route-of.ts'

/** First words of the demo's drives: "Alke", "Lomvi" … */
const names = [...new Set(demoSheets.map((s) => s.name.split(' ')[0]!))]

it.each(Object.keys(FAMILIES) as Family[])(
  'no drive of the demo stands in an own sheet of %s, nor in its route',
  (family) => {
    const sheet = filled(templateOf(family, 'own', 'Own'))
    const text = JSON.stringify([sheet, routeOf(sheet)])
    for (const name of names) expect(text, name).not.toContain(name)
  },
)

it('a drive that nobody has weighed or timed is not given a weight, and its hours are called usual', () => {
  const sheet = filled(templateOf('outboard-fnr', 'own', 'Own'))
  expect(sheet.graph.unit?.weightKg).toBeUndefined()
  expect(sheet.lacks).toContain('unit.hours')
  const caution = routeOf(sheet)
    .steps.find((s) => s.id === 'receive')!
    .cautions!.map((c) => c.say)
    .join(' ')
  expect(caution).toContain('weight is not known')
  expect(caution).not.toMatch(/\d+ kg/)
})
