import { counted } from '@moray/core/job/closings'
import type { JudgedJob } from '@moray/core/job/judged'
import { describe, expect, it } from 'vitest'
import { itOnOne } from '../databases.ts'
import { dueOf, openWalker, post, rightAnswers, walkTo, type Walker } from '../route-walk.ts'
import { NOW, testApp } from '../test-app.ts'

const walks = itOnOne()

const closingOf = (job: JudgedJob, step: string) =>
  job.closings.findLast((c) => c.step === step && !c.takenBack)!
const stepsDone = (job: JudgedJob) => job.closings.filter((c) => !c.takenBack).map((c) => c.step)
const correct = (w: Walker, job: JudgedJob, step: string, changed: object, reason = 'misread') =>
  w.app.change(`/api/jobs/${w.id}/steps/${closingOf(job, step).id}/correct`, {
    reason,
    answers: { ...closingOf(job, step).answers, ...changed },
  })

describe('an answer that was wrong', () => {
  it('is put right with a reason: the old one stays to be read, and nothing else opens that did not stand on it', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    const job = await walkTo(w, 'apart')
    const { body } = await correct(w, job, 'drain', { 'drain.ml': '95 ml' })
    expect(body.error, JSON.stringify(body.error)).toBeUndefined()
    expect(stepsDone(body).sort()).toEqual(stepsDone(job).sort())
    const old = body.closings.find((c) => c.id === closingOf(job, 'drain').id)!
    expect(old.answers['drain.ml']).toBe(120)
    expect(old.takenBack).toMatchObject({ reason: 'misread', replacedBy: closingOf(body, 'drain').id })
    expect(body.facts['drain.ml']).toBe(95)
    expect((await app.events(w.id)).at(-1)!.text).toMatch(/corrected \(misread\)$/)
  })
  walks('opens again what stood on it, and only that', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    const job = await walkTo(w, 'inside')
    const { body } = await correct(w, job, 'trial-in', { 'trial.in': 'lips rings' })
    const gone = stepsDone(job).filter((s) => !stepsDone(body).includes(s))
    expect(gone).toEqual(['trial-out'])
    expect(dueOf(body)!.step.id).toBe('trial-out')
    expect((await app.events(w.id)).at(-1)!.text).toMatch(/1 that stood on it to be done again/)
  })
  it('brings steps that belong to the new answer', async () => {
    const w = await openWalker(await testApp(), 'teist-6')
    const job = await walkTo(w, 'apart')
    const { body } = await correct(w, job, 'receive', { 'in.struck': 'yes' })
    expect(dueOf(body)!.step.id).toBe('strike')
  })
  it('is checked like a first answer, and refused when nothing is changed, or it does not count any more', async () => {
    const w = await openWalker(await testApp(), 'lomvi-90')
    const job = await walkTo(w, 'as-found')
    expect((await correct(w, job, 'ratio', { 'ratio.input-turns': 0.1 })).body.error.code).toBe(
      'invalid-input',
    )
    expect((await correct(w, job, 'drain', {})).body.error.code).toBe('same')
    expect((await correct(w, job, 'leak-found', { 'leak-found.minutes': 5 })).body.error.code).toBe('attempt')
    const twice = closingOf(job, 'drain').id
    await correct(w, job, 'drain', { 'drain.ml': 600 })
    const late = await w.app.post(`/api/jobs/${w.id}/steps/${twice}/correct`, {
      reason: 'again',
      answers: { 'drain.ml': 1 },
    })
    expect(late.body.error.code).toBe('already-taken-back')
    expect((await correct(w, job, 'tools', {}, 'no')).body.error.code).toBe('invalid-input')
  })
})

describe('what the drain shows', () => {
  it('is known to the fault finder without being asked again, and not told twice', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const job = await walkTo(w, 'drain')
    const right = rightAnswers(w, dueOf(job)!, job)
    const after = await post(w, '/steps', {
      step: 'drain',
      answers: { ...right, 'drain.colour': 'milky', 'drain.metal': 'flakes' },
    })
    expect(after.findings.map((f) => [f.finding, f.present]).sort()).toEqual([
      ['metal', true],
      ['milky-oil', true],
    ])
  })
})

describe('readings of the case as found', () => {
  it('stand at their step once they are taken in Setting, and do not stand for the rebuild', async () => {
    let ms = NOW.getTime()
    const app = await testApp({ now: () => new Date((ms += 1000)) })
    const w = await openWalker(app, 'teist-6')
    await post(w, '/readings', { build: 0, measure: 'backlash', text: '.42', unit: 'mm', gaugeId: 'g02' })
    expect((await app.job(w.id)).facts['setting.found.backlash']).toBeCloseTo(0.42, 9)
  })
})

describe('a pressure test that was none', () => {
  it('is kept as an attempt with its reasons, and the step stays due', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const job = await walkTo(w, 'leak-found')
    const right = rightAnswers(w, dueOf(job)!, job)
    const tried = await post(w, '/steps', {
      step: 'leak-found',
      answers: {
        ...right,
        'leak-found.minutes': 10,
        'leak-found.blocks-on': 'p1',
        'leak-found.blocks-off': 'p1',
      },
    })
    expect(dueOf(tried)!.step.id).toBe('leak-found')
    const attempt = tried.closings.at(-1)!
    expect(attempt.takenBack!.reason).toBe('Not every port was blocked. Held for less than 30 minutes.')
    expect(tried.facts['leak-found.verdict']).toBeUndefined()
    expect((await app.events(w.id)).at(-1)!.text).toMatch(/an attempt that does not count/)
    const done = await post(w, '/steps', { step: 'leak-found', answers: right })
    expect(done.facts['leak-found.verdict']).toBe('tight')
  })
  it('runs from the moment its pressure is entered, not from the first tick', async () => {
    const after = (minutes: number) => new Date(NOW.getTime() + 60_000 * minutes)
    let now = NOW
    const app = await testApp({ now: () => now })
    const w = await openWalker(app, 'lomvi-90')
    await walkTo(w, 'leak-found')
    const draft = (answers: object) => app.post(`/api/jobs/${w.id}/draft`, { step: 'leak-found', answers })
    await draft({ 'leak-found.blocks-on': 'p1 p2' })
    expect((await app.job(w.id)).standing.waits.kind).toBe('step')
    now = after(20)
    await draft({ 'leak-found.blocks-on': 'p1 p2', 'leak-found.start': '70' })
    now = after(25)
    await draft({ 'leak-found.blocks-on': 'p1 p2', 'leak-found.start': '70', 'leak-found.turned': 'yes' })
    const job = await app.job(w.id)
    expect(job.standing.waits).toMatchObject({ kind: 'running', since: after(20).toISOString() })
  })
})

describe('an answer of a job that was handed over', () => {
  it('is put right with a reason; the job stays over, and nothing is judged or asked anew', async () => {
    const app = await testApp()
    const before = await app.job('lomvi-done')
    const closing = counted(before.closings).find((c) => c.answers['turn.feel'] === 'free')!
    const correct = (answers: object) =>
      app.change(`/api/jobs/lomvi-done/steps/${closing.id}/correct`, {
        reason: 'looked up in my notes',
        answers,
      })
    // on an open job this answer would be no closing, and everything after it would fall
    const { status, body } = await correct({ ...closing.answers, 'turn.feel': 'binds' })
    expect(status, JSON.stringify(body)).toBe(201)
    expect([body.state, body.stage, body.waits]).toEqual([before.state, before.stage, before.waits])
    const standing = counted(body.closings)
    expect(standing).toHaveLength(counted(before.closings).length)
    expect(standing.find((c) => c.step === closing.step)!.answers['turn.feel']).toBe('binds')
    // the old one is in the record, and the history says when
    expect(body.closings.find((c) => c.id === closing.id)!.takenBack).toMatchObject({
      reason: 'looked up in my notes',
    })
    expect((await app.events('lomvi-done')).at(-1)!.text).toContain('corrected after it was over')
    const again = counted((await app.job('lomvi-done')).closings).find((c) => c.step === closing.step)!
    const same = await app.post(`/api/jobs/lomvi-done/steps/${again.id}/correct`, {
      reason: 'once more',
      answers: again.answers,
    })
    expect(same.body.error.code).toBe('same')
    // everything else of such a job stays shut
    const closed = await app.post(`/api/jobs/lomvi-done/steps/${again.id}/take-back`, { reason: 'try' })
    expect(closed.body.error.code).toBe('finished')
  })
})

describe('what was written down when the job was opened', () => {
  it('can be put right, with what it was in the history', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    const change = (body: object) => app.change(`/api/jobs/${w.id}/details`, body)
    const { body } = await change({
      serial: 'T6-0042',
      water: 'salt',
      boat: 'Prøvebåten',
      reason: 'plate read again',
    })
    expect(body).toMatchObject({ serial: 'T6-0042', water: 'salt', boat: 'Prøvebåten' })
    expect(body.facts['job.water']).toBe('salt')
    expect((await app.events(w.id)).at(-1)!.text).toBe(
      'serial was W-teist-6, is T6-0042; water was brackish, is salt (plate read again)',
    )
    expect((await change({ serial: 'T6-0042', reason: 'once more' })).body.error.code).toBe('same')
    expect((await change({ hours: -1, reason: 'once more' })).status).toBe(422)
    expect((await change({ serial: ' ', reason: 'once more' })).status).toBe(422)
  })
})

describe('an acceptance', () => {
  walks('of the case as it was found does not stand for the rebuild', async () => {
    let ms = NOW.getTime()
    const app = await testApp({ now: () => new Date((ms += 1000)) })
    const w = await openWalker(app, 'teist-6')
    const measure = (await app.job(w.id)).sheet.measures
    for (const m of measure)
      for (let i = 0; i < m.readings; i++)
        await post(w, '/readings', {
          build: 0,
          measure: m.id,
          text: `${m.target ?? 0.3} mm`,
          unit: 'mm',
          gaugeId: 'g02',
          confirmed: true,
        })
    let job = await post(w, '/acceptance', { build: 0, reason: 'as it came' })
    expect(job.acceptance).toMatchObject({ build: 0 })
    expect(job.facts['setting.accepted']).toBe(false)
    // whatever the route does until then, the gate of the setting is still shut
    job = await app.job(w.id)
    while (dueOf(job) && dueOf(job)!.step.id !== 'set-gears') job = await walkTo(w, 'set-gears')
    expect(dueOf(job)).toMatchObject({
      state: 'blocked',
      why: [expect.stringMatching(/since the case was bare/)],
    })
    job = await post(w, '/acceptance/withdraw', { build: 0, reason: 'measured again after the bearings' })
    expect(job.acceptance).toBeNull()
    // accepted once more it is still how it was found: what counts is read after that
    job = await post(w, '/acceptance', { build: 0, reason: 'as found all the same' })
    expect(job.facts).toMatchObject({ 'setting.accepted': false, 'setting.before-bare': true })
    job = await post(w, '/trials', { fromBuild: 0, stacks: [] })
    expect(job.builds.at(-1)!.number).toBe(1)
    for (const m of measure)
      for (let i = 0; i < m.readings; i++)
        await post(w, '/readings', {
          build: 1,
          measure: m.id,
          text: `${m.target ?? 0.3} mm`,
          unit: 'mm',
          gaugeId: 'g02',
          confirmed: true,
        })
    job = await post(w, '/acceptance', { build: 1, reason: 'measured after the bearings' })
    expect(job.facts).toMatchObject({ 'setting.accepted': true, 'setting.before-bare': false })
    const told = (await app.events(w.id)).map((e) => e.text)
    expect(told).toContainEqual('As found: acceptance withdrawn (measured again after the bearings)')
  })
  it('is withdrawn once, with a reason, and only where there is one', async () => {
    const app = await testApp()
    const withdraw = (body: object) => app.post('/api/jobs/lomvi-done/acceptance/withdraw', body)
    expect((await withdraw({ build: 0, reason: 'because' })).body.error.code).toBe('finished')
    const open = (body: object) => app.post('/api/jobs/lomvi-skarv/acceptance/withdraw', body)
    expect((await open({ build: 0, reason: 'because' })).body.error.code).toBe('not-accepted')
    expect((await open({ build: 0, reason: '' })).body.error.code).toBe('invalid-input')
    await expect(app.db.query('truncate acceptance_withdrawn')).rejects.toThrow(/evidence/)
  })
})

describe('a condemned part', () => {
  it('does not go back in; a new one does, and the record says so', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    const laid = await post(w, '/row', { part: 'cap' })
    const id = laid.row[0]!.id
    await post(w, '/grades', { part: 'cap', grade: 'replace', reason: 'thread torn', seen: [] })
    const old = await app.post(`/api/jobs/${w.id}/row/${id}`, { act: 'fit' })
    expect(old.body.error).toMatchObject({
      code: 'condemned',
      message: expect.stringMatching(/a new one goes in/),
    })
    const job = await post(w, `/row/${id}`, { act: 'fit', renewed: true })
    expect(job.row[0]!.fitted).toMatchObject({ renewed: true })
    expect((await app.events(w.id)).at(-1)!.text).toMatch(/fitted, a new one$/)
    const back = await post(w, `/row/${id}`, { act: 'unfit', reason: 'wrong size' })
    expect(back.row[0]!.fitted).toBeNull()
  })
})
