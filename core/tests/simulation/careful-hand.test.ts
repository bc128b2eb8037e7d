import { joinedTest, lubricantOf } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { ANODE_ALLOYS } from '../../src/route/job-facts.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { carefulAnswers } from '../../src/simulation/careful-hand.ts'
import { virtualCase } from '../../src/simulation/virtual-case.ts'
import { random } from '../refused.ts'
import { startOf, walk } from '../route/walk.ts'

describe('the careful hand', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'needs no departure on %s, in any water, filled on the stand or mounted, on any case',
    (_, sheet) => {
      const oil = lubricantOf(sheet.graph) === 'oil'
      let seed = 0
      for (const water of Object.keys(ANODE_ALLOYS))
        for (const filling of ['stand', 'mounted']) {
          // each a case of its own
          const start = { ...startOf(sheet), 'job.water': water, 'school.filling': filling }
          const { done } = walk(sheet, start, undefined, ++seed)
          // an oil joint is proved before it is filled; grease is packed on the bench
          const where = !oil ? 'stand' : joinedTest(sheet.graph) ? 'mounted' : filling
          expect(done.has(`fill-${where}`)).toBe(true)
          expect(done.has(where === 'stand' ? 'fill-mounted' : 'fill-stand')).toBe(false)
        }
    },
  )
  it('tells the story of the job where it has one', () => {
    const sheet = demoSheets[0]!
    const r = random(3)
    const hand = {
      gearcase: virtualCase(sheet, r),
      random: r,
      story: { 'drain.colour': 'milky', 'drain.ml': 12 },
    }
    const step = routeOf(sheet).steps.find((s) => s.id === 'drain')!
    expect(carefulAnswers(hand, step, {})).toEqual({
      'drain.colour': 'milky',
      'drain.ml': 12,
      'drain.metal': 'none',
    })
  })
})
