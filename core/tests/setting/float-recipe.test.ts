import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { beforeOf, FLOAT_RECIPE, TEMPORARY, withFloat } from '../../src/setting/float-recipe.ts'
import { settingMeasures } from '../../src/setting/measures.ts'

const seat = demoSheets.flatMap((s) => settingMeasures(s)).find((m) => m.kind === 'seat')!

describe('a float with a trial stack', () => {
  it('has a recipe of its own, whatever else the measure asks for', () => {
    expect(beforeOf(seat, 'float')).toEqual(FLOAT_RECIPE.map((r) => r.words))
    expect(beforeOf(seat, 'case-and-gear')).toBe(seat.before)
    expect(beforeOf(seat, undefined)).toBe(seat.before)
  })
  it('names everything of it that has to be undone, as the route does', () => {
    const undone = FLOAT_RECIPE.flatMap((r) => r.undone ?? [])
    expect(undone.length).toBeGreaterThan(1)
    for (const id of undone) expect(TEMPORARY).toHaveProperty(id)
  })
  it.each([
    ['', 'rings bolts retainer'],
    ['lips', 'lips rings bolts retainer'],
    ['rings lips', 'lips rings bolts retainer'],
    ['locker guide', 'rings bolts guide retainer locker'],
  ])('to “%s” its own come, each once and in the order of the list', (said, all) => {
    expect(withFloat(said)).toBe(all)
  })
})
