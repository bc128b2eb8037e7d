import { expect, it } from 'vitest'
import { shaftOnAxis } from '../../src/drives/on-axis.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'

it.each([
  ['lomvi-90', 'propshaft', 'prop-shaft'],
  ['havsule-duo-lower', 'tube', 'tube-shaft'],
  ['havsule-duo-lower', 'inner', 'inner-shaft'],
  ['havsule-duo-lower', 'driveshaft', 'vertical-shaft'],
  ['rordrum-v', 'output', 'output-shaft'],
  // no seal runs on it
  ['sivkrok-b', 'upper-shaft', undefined],
])('on the axis of %s, %s, turns %s', (id, axis, shaft) => {
  const sheet = demoSheets.find((s) => s.id === id)!
  expect(sheet.axes.some((a) => a.id === axis)).toBe(true)
  expect(shaftOnAxis(sheet, axis)?.id).toBe(shaft)
})
