import type { Shop } from '@moray/contract/replies'
import { describe, expect } from 'vitest'
import { itOnOne } from '../databases.ts'
import { dueOf, openWalker, post, rightAnswers, walkTo } from '../route-walk.ts'
import { testApp } from '../test-app.ts'

const walks = itOnOne()
const RUNA = { 'x-moray-person': 'runa' }
const SEALS = { scope: { usual: 'seals:propshaft' } }

describe('a line before it leaves the shop', () => {
  walks('is accepted by name, once, and by the lead where the shop wants that', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', SEALS)
    const job = await walkTo(w, 'leak-case')
    const send = (path: string, body: object, by?: Record<string, string>) =>
      app.post(`/api/jobs/${w.id}${path}`, body, by)
    const left = { reason: 'the tester is away', undone: true }
    expect((await send('/steps', { step: 'leak-case', answers: {}, departure: left })).status).toBe(201)
    expect(dueOf(job)?.step.id).toBe('leak-case')
    const fill = (await walkTo(w, 'fill-mounted')).progress.due!
    const answers = rightAnswers(w, fill, await app.job(w.id))
    await post(w, '/steps', { step: 'fill-mounted', answers, departure: { reason: 'goes out today' } })
    const last = await walkTo(w, 'handover')
    expect(last.work.lines.map((l) => `${l.code} ${l.on}`)).toEqual([
      'joint-not-proved carrier',
      'joint-not-proved propshaft',
    ])
    const accept = (line: string, by?: Record<string, string>) =>
      send('/lines', { line, reason: 'the owner knows it, and has said so' }, by)
    expect((await accept('unsafe-in housing')).body.error.code).toBe('no-such-line')
    expect((await accept('joint-not-proved carrier')).status).toBe(201)
    expect((await accept('joint-not-proved carrier')).body.error.code).toBe('no-such-line')
    const { stands } = await app.get<Shop>('/api/shop')
    const rules = { departuresNeedLead: true, stands }
    expect((await app.post('/api/shop/rules', rules, RUNA)).status).toBe(201)
    expect((await accept('joint-not-proved propshaft')).body.error.message).toMatch(/lead/)
    expect((await accept('joint-not-proved propshaft', RUNA)).status).toBe(201)
    const over = await walkTo(w)
    expect(over.state).toBe('finished')
    expect(over.told).toMatchObject([
      { kind: 'accepted', subject: 'joint-not-proved carrier', by: 'Ylva Tangvik' },
      { kind: 'accepted', subject: 'joint-not-proved propshaft', by: 'Runa Holmsund' },
    ])
    await expect(app.db.query('delete from told')).rejects.toThrow(/evidence/)
  })
})

describe('what a step did', () => {
  walks('is undone once, by a new act, and comes up again; what did nothing cannot be', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', SEALS)
    const job = await walkTo(w, 'first-run')
    const idOf = (step: string) => job.closings.find((c) => c.step === step)!.id
    const undo = (step: string) =>
      app.post(`/api/jobs/${w.id}/steps/${idOf(step)}/undone`, { reason: 'the tab had not caught' })
    expect((await undo('receive')).body.error).toMatchObject({ code: 'nothing-to-undo' })
    const [first, second] = await Promise.all([undo('ring-mounted'), undo('ring-mounted')])
    expect([first.status, second.status].sort()).toEqual([201, 409])
    const now = await app.job(w.id)
    expect(now.closings.filter((c) => c.takenBack)).toEqual([])
    expect(now.work.lines.map((l) => `${l.code} ${l.on}`)).toContain('group-not-tight big-ring')
    const acts = await app.db.query<{ verb: string; object: string }>(
      "select verb, object from act where job_id = $1 and source = 'told' order by id",
      [w.id],
    )
    expect(acts).toEqual([{ verb: 'loosen', object: 'big-ring' }])
    const over = await walkTo(w)
    expect(over.state).toBe('finished')
    expect(over.closings.map((c) => c.step)).toEqual(
      expect.arrayContaining(['ring-mounted-2', 'leak-case-2', 'fill-mounted-2']),
    )
  })
})

describe('what the owner decides after a strike', () => {
  walks('names its end and what is kept; what cannot be is refused by name', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'strike' } })
    await walkTo(w, 'approve')
    const made = await post(w, '/estimates', { rate: 950, consumables: 500 })
    const decide = (body: object) =>
      app.post(`/api/jobs/${w.id}/approvals`, {
        estimateId: made.estimates.at(-1)!.id,
        customer: 'Eieren',
        how: 'in writing',
        ...body,
      })
    const wrong = await decide({ choice: 'exchange', kept: ['prop-shaft'] })
    expect(wrong.body.error.fields[0]).toMatchObject({ path: 'kept[0]' })
    expect((await decide({ choice: 'stop', ends: 'sunk' })).status).toBe(422)
    expect((await decide({ choice: 'stop', ends: 'boxes' })).status).toBe(201)
    const over = await walkTo(w)
    expect(over.work.state.end).toBe('boxes')
    expect(over.estimates.at(-1)!.approval).toMatchObject({ ends: 'boxes', kept: null })
  })
})

describe('a leak whose place is not known', () => {
  walks('is found first, then no more is opened than it takes', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'pump' } })
    await walkTo(w)
    const open = (body: object) =>
      app.post(`/api/jobs/${w.id}/loops`, { note: 'drips on the floor', ...body })
    expect((await open({ why: 'noise', targets: [] })).status).toBe(422)
    expect((await open({ why: 'leak', targets: [] })).status).toBe(201)
    const job = await walkTo(w, 'find-place')
    expect(job.state).not.toBe('finished')
    await post(w, '/steps', { step: 'find-place', answers: { 'place.where': 'propshaft' } })
    const over = await walkTo(w)
    expect(over.state).toBe('finished')
    expect(over.work.lines).toEqual([])
    expect(over.work.state.parts.get('prop-seals')!.instance).toBe(2)
  })
})
