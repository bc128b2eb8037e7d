import type { JobPage } from '@moray/contract/replies'
import type { JudgedJob } from '@moray/core/job/judged'
import { describe, expect, it } from 'vitest'
import { itOnOne } from '../databases.ts'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { usualScopes } from '@moray/core/route/scope'
import { dueOf, openUp, openWalker, post, rightAnswers, walkTo, type Walker } from '../route-walk.ts'
import { ticking } from '../now.ts'
import { testApp } from '../test-app.ts'

const walks = itOnOne()

const doneSteps = (job: JudgedJob) => job.closings.filter((c) => !c.takenBack).map((c) => c.step)
const answersIn = (job: JudgedJob) =>
  job.closings.filter((c) => !c.takenBack).reduce((n, c) => n + Object.keys(c.answers).length, 0)

describe('a scope', () => {
  walks(
    'of the seals of a propeller shaft goes from receiving to handover without a departure, setting or pattern',
    async () => {
      const app = await testApp()
      const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'seals:propshaft' } })
      const job = await walkTo(w)
      expect(job.state).toBe('finished')
      expect(job.closings.every((c) => c.departedFrom.length === 0)).toBe(true)
      expect(doneSteps(job)).not.toEqual(expect.arrayContaining(['pattern']))
      // on the boat nobody can read the backlash: the same parts, seated and tightened, are the proof
      expect(doneSteps(job)).not.toContain('check-set')
      expect(answersIn(job)).toBeLessThan(45)
      expect(job.row).toHaveLength(9)
      // what it costs is the seal kit, and the hours are those of what comes off
      const { body } = job.estimates.at(-1)!
      expect(body.order.map((o) => o.name)).toEqual(['Seal kit'])
      expect(body.hours).toBeLessThan(3)
      expect(job.facts['leak-case.verdict']).toBe('tight')
    },
  )
  walks.each(['clutch', 'refit', 'pump', 'test', 'service'])(
    '%s walks to its end over HTTP',
    async (usual) => {
      const w = await openWalker(await testApp(), 'lomvi-90', { scope: { usual } })
      const job = await walkTo(w)
      expect(job.state).toBe('finished')
      expect(doneSteps(job)).toContain('handover')
      if (usual === 'clutch') expect(job.plan.disturbed).toEqual([])
    },
  )
  it('is refused by name where it reaches nothing, or a part that this drive has not', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    const set = (body: object) => app.post(`/api/jobs/${w.id}/scope`, { reason: 'because', ...body })
    expect((await set({ usual: 'own', targets: [] })).body.error.fields[0]).toMatchObject({ path: 'targets' })
    expect((await set({ usual: 'own', targets: ['reverse-gear'] })).body.error.message).toMatch(
      /"reverse-gear" is no part of this drive/,
    )
    expect((await set({ usual: 'clutch' })).body.error.message).toMatch(/no scope of this drive/)
    const hanging = await set({ usual: 'full', mounted: true })
    expect(hanging.body.error.fields[0]).toMatchObject({ path: 'mounted' })
    expect(hanging.body.error.message).toMatch(/sits between the halves/)
    const opened = await app.post('/api/jobs', {
      sheetId: 'teist-6',
      serial: 'x',
      boat: 'x',
      owner: 'x',
      water: 'salt',
      complaint: 'drips',
      scope: { usual: 'clutch' },
    })
    expect(opened.status).toBe(422)
    expect((await app.job(w.id)).scopes).toEqual([])
  })
  walks(
    'grows with what is found: done steps stay done, and the owner is asked again where money changes',
    async () => {
      const app = await testApp({ now: ticking() })
      const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'seals:propshaft' } })
      const before = await walkTo(w, 'seals')
      const grown = await post(w, '/grades', {
        part: 'carrier-needle',
        grade: 'replace',
        reason: 'rough when turned',
        seen: ['rough'],
      })
      expect(grown.plan.off.map((p) => p.id)).toContain('carrier-needle')
      expect(doneSteps(grown)).toEqual(doneSteps(before))
      // it has to come out first, and then the owner is asked
      expect(dueOf(grown)).toMatchObject({ step: { id: 'apart-2' }, state: 'blocked' })
      const asked = grown.progress.steps.find((s) => s.step.id === 'approve')!
      expect(asked.why.join(' ')).toMatch(/ask him again/)
      const reached = await post(w, '/row', {
        part: 'carrier-needle',
        orientation: 'ink: this gear, arrow up',
      })
      expect(reached.facts['row.missing']).toBe(0)
      const again = await openUp(
        w,
        reached.progress.steps.find((s) => s.step.id === 'approve')!,
        reached,
      )
      expect(again.progress.steps.find((s) => s.step.id === 'approve')!.state).toBe('done')
      const finished = await walkTo(w)
      expect(finished.state).toBe('finished')
    },
  )
  walks('keeps what lies on the bench: it does not shrink away from under a part', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'clutch' } })
    await walkTo(w, 'loose-metal')
    const small = await app.post(`/api/jobs/${w.id}/scope`, { usual: 'pump', reason: 'wrong one' })
    expect([small.status, small.body.error.code]).toEqual([409, 'off-already'])
    expect(small.body.error.message).toMatch(/Propeller shaft/)
    const wide = await post(w, '/scope', { usual: 'full', reason: 'the owner wants all of it' })
    expect(wide.scopes).toHaveLength(2)
    expect(wide.plan.stays).toEqual([])
    expect((await app.events(w.id)).at(-1)!.text).toMatch(/^Scope: Full rebuild; 35 parts come off/)
  })
  walks.each(demoSheets.map((s) => [s.id, s] as const))('of %s is offered, and opens', async (_, sheet) => {
    const app = await testApp()
    for (const { usual, targets } of usualScopes(sheet).slice(1, 4)) {
      const w = await openWalker(app, sheet.id, { scope: { usual } })
      expect((await app.job(w.id)).scopes[0], `${sheet.id} ${usual}`).toMatchObject({ usual, targets })
    }
  })
})

describe('a unit that was bought in', () => {
  it('cannot be handed over untested, and can once it is proved', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'unit' } })
    await walkTo(w, 'leak-case')
    const job = await app.job(w.id)
    const step = job.progress.steps.find((s) => s.step.id === 'leak-case')!
    const none = Object.fromEntries(
      Object.keys(rightAnswers(w, step, job)).map((fact) => [fact, '~not-done']),
    )
    await post(w, '/steps', { step: 'leak-case', answers: none })
    const reason = { reason: 'the owner waits on the quay' }
    for (const id of [
      'join-gear',
      'splines',
      'join',
      'shift-check',
      'anode',
      'fill-mounted',
      'first-run',
      'propeller',
    ]) {
      const now = await app.job(w.id)
      const s = now.progress.steps.find((x) => x.step.id === id)!
      await post(w, '/steps', { step: id, answers: rightAnswers(w, s, now), departure: reason })
    }
    const handover = await app.post(`/api/jobs/${w.id}/steps`, {
      step: 'handover',
      answers: {},
      departure: reason,
    })
    expect([handover.status, handover.body.error.code]).toEqual([422, 'firm'])
    expect(handover.body.error.message).toMatch(/not handed over untested/)
  })
})

describe('open items', () => {
  it('are added at any time, closed by name once, and keep the job from being handed over', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'pump' } })
    const added = await post(w, '/open-items', { text: 'Plain plug where the magnetic one belongs' })
    const [item] = added.openItems
    const due = dueOf(await walkTo(w, 'handover'))!
    expect(due.why.join(' ')).toMatch(/Open items are left/)
    const closed = await post(w, `/open-items/${item!.id}`, { how: 'magnetic plug fitted' })
    expect(closed.openItems[0]!.closed).toMatchObject({ how: 'magnetic plug fitted' })
    const twice = await app.post(`/api/jobs/${w.id}/open-items/${item!.id}`, { how: 'again' })
    expect([twice.status, twice.body.error.code]).toEqual([409, 'settled-already'])
    expect((await app.post(`/api/jobs/${w.id}/open-items/999`, { how: 'again' })).status).toBe(404)
    expect((await walkTo(w)).state).toBe('finished')
    await expect(app.db.query("update open_item set text = 'x'")).rejects.toThrow(/evidence/)
  })
})

describe('a repair loop', () => {
  walks(
    'after a leak is opened by place, renewed, closed and proved again; the old test stays, the setting is not touched',
    async () => {
      const app = await testApp()
      const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'clutch' } })
      const tested = await walkTo(w, 'leak-case')
      const step = dueOf(tested)!
      const leaks = {
        ...rightAnswers(w, step, tested),
        'leak-case.end': 40,
        'leak-case.where': 'bubbles at the propeller shaft',
      }
      const attempt = await post(w, '/steps', { step: 'leak-case', answers: leaks })
      expect(attempt.closings.at(-1)).toMatchObject({
        step: 'leak-case',
        takenBack: { reason: expect.stringMatching(/Not proved tight/) },
      })
      const loop = { why: 'leak', targets: ['prop-seals'], note: 'bubbles at the propeller shaft' }
      const opened = await post(w, '/loops', loop)
      expect(opened.loops).toMatchObject([{ number: 1, ...loop }])
      // what it opens comes up once more, in its order; nothing is taken back
      expect(dueOf(opened)!.step.id).toBe('open-gear-2')
      expect(opened.closings.filter((c) => c.takenBack)).toHaveLength(1)
      const twice = await app.post(`/api/jobs/${w.id}/loops`, loop)
      expect([twice.status, twice.body.error.code]).toEqual([409, 'loop-open'])
      // drafts are kept at the steps of a repair too
      const draft = await app.request(`/api/jobs/${w.id}/draft`, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          'x-moray-person': 'ylva',
          'x-moray-request': crypto.randomUUID(),
        },
        body: JSON.stringify({ step: 'apart-2', answers: { 'apart.how': 'freely' } }),
      })
      expect(draft.status).toBe(204)
      const proved = await walkTo(w, 'fill-mounted')
      expect(doneSteps(proved)).toEqual(
        expect.arrayContaining(['apart-2', 'seals-2', 'close-2', 'tighten-2', 'leak-case']),
      )
      expect(proved.facts['leak-case.verdict']).toBe('tight')
      expect(proved.closings.filter((c) => c.step === 'leak-case')).toHaveLength(2)
      const over = await walkTo(w)
      expect(over.state).toBe('finished')
      expect(over.work.lines.filter((l) => l.colour === 'red')).toEqual([])
    },
  )
  walks('of a setting that went wrong sets and proves again, and leaves the rest alone', async () => {
    const app = await testApp({ now: ticking() })
    const w = await openWalker(app, 'lomvi-90')
    const closed = await walkTo(w, 'join-gear')
    const opened = await post(w, '/loops', { why: 'setting', targets: ['pinion'], note: 'whines in forward' })
    expect(doneSteps(opened)).toEqual(expect.arrayContaining(['press', 'seals', 'drain', 'apart']))
    const again = opened.progress.steps.filter((s) => s.step.stage === 'repair-1').map((s) => s.step.id)
    expect(again).toEqual(
      expect.arrayContaining(['apart-2', 'trial-in-2', 'pattern-2', 'turn-2', 'trial-out-2', 'leak-case-2']),
    )
    expect(again).not.toContain('drain-2')
    expect(closed.facts['setting.accepted']).toBe(true)
    const apart = await walkTo(w, 'trial-in-2')
    expect(apart.facts['setting.accepted']).toBe(false)
  })
  it('is refused while the case is still open, by name', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const early = await app.post(`/api/jobs/${w.id}/loops`, {
      why: 'leak',
      targets: ['prop-seals'],
      note: 'drips',
    })
    expect([early.status, early.body.error.code]).toEqual([409, 'not-closed'])
    const nowhere = await app.post(`/api/jobs/${w.id}/loops`, {
      why: 'leak',
      targets: ['ghost'],
      note: 'drips',
    })
    expect(nowhere.body.error.message).toMatch(/"ghost" is no part/)
  })
  walks('of a job that was handed over opens it again', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6', { scope: { usual: 'seals:propshaft' } })
    expect((await walkTo(w)).state).toBe('finished')
    const back = await post(w, '/loops', { why: 'leak', targets: ['prop-seal'], note: 'came back weeping' })
    expect(back.state).toBe('reopened')
    const over = await walkTo(w)
    expect(over.state).toBe('finished')
    expect(doneSteps(over)).toEqual(
      expect.arrayContaining([
        'seals-2',
        'leak-case-2',
        'fill-mounted-2',
        'first-run-2',
        'propeller-2',
        'handover-2',
      ]),
    )
    expect(over.work.lines.filter((l) => l.colour === 'red')).toEqual([])
  })
})

describe('one unit in two cases', () => {
  walks('goes upper and lower by themselves, then joined, proved, filled and run as one', async () => {
    const app = await testApp()
    const lower = await openWalker(app, 'alke-2-lower', {
      scope: { usual: 'seals:propshaft', mounted: false },
    })
    const linked = await post(lower, '/cases', { sheetId: 'alke-2-upper', serial: 'A2U-77' })
    const id = linked.partner!.id
    expect(linked.partner).toMatchObject({
      number: `${linked.number}/2`,
      sheetName: 'Alke 2 upper',
      follows: false,
    })
    const again = await app.post(`/api/jobs/${lower.id}/cases`, { sheetId: 'alke-2-upper', serial: 'x' })
    expect([again.status, again.body.error.code]).toEqual([409, 'two-cases'])
    const upper: Walker = { ...(await openWalker(app, 'alke-2-upper')), id }
    await post(upper, '/scope', { usual: 'seals:input', mounted: false, reason: 'its input weeps' })

    // the lower comes as far as the joint, and waits there for the other case
    const waits = await walkTo(lower, 'join')
    expect(dueOf(waits)!.why.join(' ')).toMatch(/other case of this unit is not closed and proved/)
    const ready = await walkTo(upper, 'handover')
    expect(ready.partner).toMatchObject({ id: lower.id, follows: true })
    expect(doneSteps(ready)).not.toEqual(expect.arrayContaining(['join']))
    expect(dueOf(ready)!.why.join(' ')).toMatch(/joined, filled and run on its route first/)

    const counted = await walkTo(lower, 'unit-overall')
    expect(counted.facts['overall.expected']).toBeCloseTo((27 / 14) * (24 / 21), 3)
    const wrong = await post(lower, '/steps', {
      step: 'unit-overall',
      answers: { 'overall.input-turns': 18, 'overall.output-turns': 10 },
    })
    expect(wrong.closings.at(-1)!.takenBack!.reason).toMatch(/do not make the ratio of these two cases/)
    const run = await walkTo(lower)
    expect(run.state).toBe('finished')
    // the bench knows without anybody opening the other case
    const bench = await app.get<JobPage>('/api/jobs?search=A2U-77')
    expect(bench.jobs[0]!.waits).toMatchObject({ kind: 'step', step: 'handover' })
    expect(doneSteps(run)).toEqual(
      expect.arrayContaining(['unit-overall', 'leak-joined', 'fill-mounted', 'first-run']),
    )
    expect(run.facts['leak-joined.verdict']).toBe('tight')
    expect((await walkTo(upper)).state).toBe('finished')
  })
  it('refuses the same case twice', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'alke-2-lower')
    const same = await app.post(`/api/jobs/${w.id}/cases`, { sheetId: 'alke-2-lower', serial: 'x' })
    expect([same.status, same.body.error.code]).toEqual([422, 'same-case'])
    const none = await app.post(`/api/jobs/${w.id}/cases`, { sheetId: 'ghost', serial: 'x' })
    expect(none.status).toBe(404)
  })
})

describe('the wrong variant', () => {
  it('is no dead end: the stamp is taken, nothing is bought, and the job moves to the right sheet', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'alke-2-lower')
    await walkTo(w, 'identify')
    const other = (await app.job(w.id)).sheet.ratio!.stamps.find((s) => !s.own)!.code
    const said = await post(w, '/steps', { step: 'identify', answers: { 'id.stamp': other } })
    expect(said.facts['id.agrees']).toBe(false)
    const approve = said.progress.steps.find((s) => s.step.id === 'approve')!
    expect(approve.why.join(' ')).toMatch(/stamp is that of another variant/)
    const moved = await post(w, '/drive', { sheetId: 'lomvi-90', reason: 'stamp read again under the lamp' })
    expect(moved.sheet.id).toBe('lomvi-90')
    expect(doneSteps(moved)).toEqual(expect.arrayContaining(['receive', 'identify']))
    expect((await app.events(w.id)).at(-1)!.text).toMatch(
      /now uses the sheet of Lomvi 90 instead of Alke 2 lower/,
    )
    const same = await app.post(`/api/jobs/${w.id}/drive`, { sheetId: 'lomvi-90', reason: 'again' })
    expect(same.body.error.code).toBe('same-sheet')
  })
  it('stays where parts of the old sheet lie already, and says why', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    await walkTo(w, 'clean')
    const moved = await app.post(`/api/jobs/${w.id}/drive`, { sheetId: 'lomvi-90', reason: 'another one' })
    expect([moved.status, moved.body.error.code]).toEqual([422, 'no-place'])
    expect(moved.body.error.message).toMatch(/parts in the row/)
  })
})

describe('two technicians', () => {
  it('see different work that can go on, and close one step only once', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    await walkTo(w, 'identify')
    const job = await app.job(w.id)
    expect(job.progress.meanwhile.map((s) => s.step.id)).toEqual(
      expect.arrayContaining(['ratio', 'drain', 'tools']),
    )
    const at = (id: string) => job.progress.steps.find((s) => s.step.id === id)!
    const body = (id: string) => ({ step: id, answers: rightAnswers(w, at(id), job) })
    const joar = { 'x-moray-person': 'joar' }
    const [a, b, c] = await Promise.all([
      app.change(`/api/jobs/${w.id}/steps`, body('ratio')),
      app.change(`/api/jobs/${w.id}/steps`, body('drain'), joar),
      app.change(`/api/jobs/${w.id}/steps`, body('ratio'), joar),
    ])
    expect(b.status).toBe(201)
    expect([a.status, c.status].sort()).toEqual([201, 422])
    const after = await app.job(w.id)
    expect(doneSteps(after).filter((s) => s === 'ratio')).toHaveLength(1)
  })
})

describe('a soak', () => {
  it('is waited for while other work goes on; going on earlier takes a reason', async () => {
    let now = new Date('2026-11-04T09:00:00Z')
    const app = await testApp({ now: () => now })
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'seals:propshaft' }, water: 'salt' })
    await walkTo(w, 'soak')
    await post(w, '/steps', { step: 'soak', answers: { 'soak.how': 'soaks' } })
    const job = await walkTo(w, 'apart')
    const apart = job.progress.steps.find((s) => s.step.id === 'apart')!
    // the row can be filled meanwhile; the step itself waits
    expect(['blocked', 'waiting']).toContain(apart.state)
    const laid = apart.state === 'blocked' ? await openUp(w, apart, job) : job
    const waiting = laid.progress.steps.find((s) => s.step.id === 'apart')!
    expect(waiting).toMatchObject({ state: 'waiting', wait: { kind: 'soak', step: 'soak', minutes: 30 } })
    const early = await app.post(`/api/jobs/${w.id}/steps`, {
      step: 'apart',
      answers: { 'apart.how': 'freely' },
    })
    expect(early.body.error.code).toBe('gate-closed')
    now = new Date(now.getTime() + 31 * 60_000)
    expect(
      (await post(w, '/steps', { step: 'apart', answers: { 'apart.how': 'freely' } })).done.has('apart'),
    ).toBe(true)
  })
})
