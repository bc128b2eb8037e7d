import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { completeStep } from '../../src/route/complete.ts'
import type { Facts } from '../../src/route/facts.ts'
import { ANODE_ALLOYS, deriveFacts } from '../../src/route/job-facts.ts'
import { progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { carefulAnswers } from '../../src/simulation/careful-hand.ts'
import { virtualCase } from '../../src/simulation/virtual-case.ts'
import { random } from '../refused.ts'

const open: Facts = {
  'school.big-ring': 'stand',
  'setting.stacks-known': true,
  'setting.accepted': true,
  'setting.stack.cover': 0.5,
  'setting.stack.top': 0.5,
  'row.missing': 0,
  'row.inside-left': 0,
  'row.left': 0,
  'grades.open': 0,
  'estimate.choice': 'rebuild',
  'waited.seals': 0,
}

describe('the careful hand', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'needs no departure on %s, in any water, filled on the stand or mounted, on any case',
    (_, sheet) => {
      const route = routeOf(sheet)
      let seed = 0
      for (const water of Object.keys(ANODE_ALLOYS))
        for (const filling of ['stand', 'mounted'])
          for (let k = 0; k < 3; k++) {
            const r = random(++seed)
            const hand = { gearcase: virtualCase(sheet, r), random: r }
            const derive = (f: Facts) => deriveFacts(sheet, f)
            let facts = derive({ ...open, 'job.water': water, 'school.filling': filling })
            const done = new Set<string>()
            for (let due; (due = progressOf(route, facts, done).due);) {
              expect(due.state, `${due.step.id}: ${due.why.join(' ')}`).toBe('open')
              const answers = carefulAnswers(hand, due.step, facts)
              const closed = completeStep(route, facts, done, due.step.id, answers, { derive })
              facts = derive({ ...facts, ...closed.answers })
              done.add(due.step.id)
            }
            expect(done.has(`fill-${filling}`)).toBe(true)
            expect(done.has(filling === 'stand' ? 'fill-mounted' : 'fill-stand')).toBe(false)
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
    expect(carefulAnswers(hand, step, {})).toMatchObject({
      'drain.colour': 'milky',
      'drain.ml': 12,
      'drain.waste': 'can',
    })
  })
})
