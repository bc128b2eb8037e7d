import type { JudgedJob } from '@moray/core/job/judged'
import { describe, expect } from 'vitest'
import { ownSheets } from '../../../core/tests/assembly/own-sheets.ts'
import { itOnOne } from '../databases.ts'
import { dueOf, openWalker, post, rightAnswers, walkTo, type Walker } from '../route-walk.ts'
import { ticking } from '../now.ts'
import { testApp } from '../test-app.ts'

const walks = itOnOne()
const done = ({ closings }: JudgedJob) => closings.filter((c) => !c.takenBack).map((c) => c.step)
const instances = ({ work }: JudgedJob, ...parts: string[]) =>
  parts.map((p) => work.state.parts.get(p)!.instance)

/** Handed over, with nothing that is not as it must be, and nothing that was gone on over. */
function expectWhole(job: JudgedJob) {
  expect(job.state).toBe('finished')
  expect(job.work.lines).toEqual([])
  expect(job.closings.flatMap((c) => (c.takenBack ? [] : c.departedFrom))).toEqual([])
}

/** Closes the step that is due with some answers of its own. */
async function close(w: Walker, step: string, own: Record<string, string | number>) {
  const job = await walkTo(w, step)
  const due = dueOf(job)!
  expect(due.step.id).toBe(step)
  return post(w, '/steps', { step, answers: { ...rightAnswers(w, due, job), ...own } })
}

describe('a unit, over HTTP', () => {
  walks(
    'whose input gears are renewed gets what was pressed on them looked at, and its preload read',
    async () => {
      const w = await openWalker(await testApp({ now: ticking() }), 'alke-2-upper', {
        scope: { usual: 'gear-set' },
      })
      const job = await walkTo(w)
      expectWhole(job)
      expect(instances(job, 'input-gear', 'vertical-gear')).toEqual([2, 2])
      expect(done(job)).toEqual(expect.arrayContaining(['nut-found', 'pattern', 'leak-joined']))
      // set once, and not opened again for it
      expect(done(job)).not.toContain('apart-2')
    },
  )
  walks('that was struck, and is cracked, ends with another one; the propeller goes over', async () => {
    const w = await openWalker(await testApp({ now: ticking() }), 'lomvi-90', { scope: { usual: 'strike' } })
    await close(w, 'strike', { 'strike.case': 'cracked', 'strike.propshaft.z0': 0.5 })
    const made = await post(w, '/estimates', { rate: 950, consumables: 500 })
    const decided = await post(w, '/approvals', {
      estimateId: made.estimates.at(-1)!.id,
      choice: 'exchange',
      customer: 'Eieren',
      how: 'in writing',
      kept: ['prop-lock', 'propeller', 'thrust-hub'],
    })
    expect(decided.work.state.parts.get('housing')!.condition).toBe('unknown')
    const job = await walkTo(w)
    expectWhole(job)
    expect(done(job)).toEqual(expect.arrayContaining(['unit-look', 'leak-case', 'first-run', 'propeller']))
  })
  walks('whose yearly service finds a worn pump gets a new one, and its water seen', async () => {
    const w = await openWalker(await testApp({ now: ticking() }), 'lomvi-90', { scope: { usual: 'service' } })
    await walkTo(w, 'fill-mounted')
    const worn = { part: 'pump-cover', grade: 'replace', reason: 'vanes set', seen: ['set'] }
    await post(w, '/grades', worn)
    const job = await walkTo(w)
    expectWhole(job)
    expect(instances(job, 'pump-cover')).toEqual([2])
    expect(done(job)).toContain('first-run')
  })
  walks('in boxes is built up, set and proved, and nothing is taken apart', async () => {
    const scope = { usual: 'full', came: 'boxes' }
    const w = await openWalker(await testApp({ now: ticking() }), 'lomvi-90', { scope })
    const job = await walkTo(w)
    expectWhole(job)
    expect(job.row).toHaveLength(35)
    expect(done(job).filter((s) => ['apart', 'drain', 'as-found', 'leak-found'].includes(s))).toEqual([])
  })
  walks(
    'of which the sheet knows little is sealed, proved and run by what was asked for on the way',
    async () => {
      const app = await testApp({ now: ticking() })
      const { body } = ownSheets.find((s) => s.family === 'outboard-fnr')!
      const made = await app.post('/api/sheets', {
        anew: true,
        sheet: { ...body, id: 'skua-1', name: 'Skua', demo: false },
      })
      expect(made.status, JSON.stringify(made.body)).toBe(201)
      const w = await openWalker(app, 'skua-1', { scope: { usual: 'seals:propshaft' } })
      expectWhole(await walkTo(w))
    },
  )
  walks('that leaks in its test is opened at that place, and can be stopped there', async () => {
    const w = await openWalker(await testApp({ now: ticking() }), 'lomvi-90', {
      scope: { usual: 'seals:propshaft' },
    })
    const leaks = await close(w, 'leak-case', { 'leak-case.end': 40 })
    expect(dueOf(leaks)!.step.id).toBe('leak-case')
    await post(w, '/loops', { why: 'leak', targets: ['shift-seal'], note: 'bubbles at the rod' })
    const open = await walkTo(w, 'apart-2')
    expect(open.work.left.deeds.some((d) => d.do === 'remove' && d.on === 'shift-rod')).toBe(true)
    const stopped = await post(w, '/life', { act: 'close', reason: 'the owner takes it as it lies' })
    expect([stopped.state, stopped.progress.due]).toEqual(['closed', undefined])
  })
})
