import { caseTest, joinedTest } from '@moray/core/drives/graph/unit-facts'
import type { JudgedJob } from '@moray/core/job/judged'
import type { JobPage, FaultCase, KnownUnit, Shop } from '@moray/contract/replies'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { describe, expect, it } from 'vitest'
import { hashOf } from '../../src/files/file-store.ts'
import { itOnOne, walkedHere } from '../databases.ts'
import { LONG_RUN } from '../../../core/tests/long.ts'
import { testApp, waitsFor } from '../test-app.ts'
import { detail, dueOf, openWalker, post, rightAnswers, takeApart, walkTo } from '../route-walk.ts'

const walks = itOnOne()

/** What differs from drive to drive is no business of the database, and all of them walk in core's tests without one. */
const KINDS = walkedHere() ? ['lomvi-90', 'alke-2-upper', 'havsule-duo-lower', 'rordrum-v'] : ['teist-6']
const walked = demoSheets.filter((s) => LONG_RUN || KINDS.includes(s.id))

describe('the whole route over HTTP, on a virtual gearcase', () => {
  it.each(walked.map((s) => [s.id]))(
    '%s from receiving to handover',
    async (sheetId) => {
      const w = await openWalker(await testApp(), sheetId)
      const job = await walkTo(w)
      expect(job.state).toBe('finished')
      expect(job.acceptance).not.toBeNull()
      expect(job.closings.at(-1)!.step).toBe('handover')
      const { graph } = job.sheet
      expect(job.facts['leak-case.verdict']).toBe(caseTest(graph) ? 'tight' : undefined)
      expect(job.facts['leak-joined.verdict']).toBe(joinedTest(graph) ? 'tight' : undefined)
      expect(job.row.every((t) => t.fitted)).toBe(true)
      // every step left its sentence, and none was departed from
      expect((await w.app.events(w.id)).filter((e) => e.kind === 'step')).toHaveLength(job.closings.length)
      expect(job.closings.every((s) => s.departedFrom.length === 0)).toBe(true)
    },
    300_000,
  )
})

describe('a closed gate', () => {
  walks('says why, in words, and opens when what it waits for is done', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const job = await walkTo(w, 'prop-off')
    const due = dueOf(job)!
    expect(due).toMatchObject({ state: 'blocked', step: { id: 'prop-off' } })
    const refused = await app.post(`/api/jobs/${w.id}/steps`, {
      step: 'apart',
      answers: { 'apart.covered': true },
    })
    expect(refused.status).toBe(422)
    expect(refused.body.error).toMatchObject({
      code: 'gate-closed',
      message: expect.stringContaining('not in the row yet'),
    })
    expect(waitsFor(job)).toContain('not in the row yet')
    const after = await takeApart(w, job)
    expect(after.progress.steps.find((s) => s.step.id === 'prop-off')!.state).toBe('done')
    expect(dueOf(after)!.state).toBe('open')
  })

  it('stops a slip at the step, stores nothing, and takes the right answer after it', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const job = await walkTo(w, 'leak-found')
    const before = job.closings.length
    const right = rightAnswers(w, dueOf(job)!, job)
    const slip = { step: 'leak-found', answers: { ...right, 'leak-found.start': '120 kPa' } }
    const refused = await app.post(`/api/jobs/${w.id}/steps`, slip)
    expect(refused.body.error).toMatchObject({
      code: 'slip',
      fields: [{ path: 'answers.leak-found.start', message: expect.stringContaining('Let it down') }],
    })
    // nobody departs from this one, whatever the reason
    const insisting = await app.post(`/api/jobs/${w.id}/steps`, {
      ...slip,
      departure: { reason: 'I know it' },
    })
    expect(insisting.body.error.code).toBe('firm')
    expect((await detail(w)).closings).toHaveLength(before)
    await post(w, '/steps', { step: 'leak-found', answers: right })
  })

  it('understands bench notation and keeps what was typed', async () => {
    const w = await openWalker(await testApp(), 'lomvi-90')
    const job = await walkTo(w, 'leak-found')
    const answers = {
      ...rightAnswers(w, dueOf(job)!, job),
      'leak-found.start': '10 psi',
      'leak-found.end': '0.68 bar',
    }
    const refused = await w.app.post(`/api/jobs/${w.id}/steps`, {
      step: 'leak-found',
      answers: { ...answers, 'leak-found.start': '10 psx' },
    })
    expect(refused.body.error.fields[0]).toMatchObject({ path: 'answers.leak-found.start' })
    const after = await post(w, '/steps', { step: 'leak-found', answers })
    const closed = after.closings.at(-1)!
    expect(closed.texts).toMatchObject({ 'leak-found.start': '10 psi' })
    expect(closed.answers['leak-found.start']).toBeCloseTo(68.948, 3)
  })
})

describe('a departure', () => {
  it('needs a reason, and the lead where the shop says so; it stays to be read', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90', { scope: { usual: 'service' } })
    await walkTo(w, 'anode')
    const slip = { step: 'anode', answers: { 'anode.alloy': 'zinc' } }
    expect((await app.post(`/api/jobs/${w.id}/steps`, slip)).body.error.code).toBe('slip')
    const rules = {
      departuresNeedLead: true,
      rate: 950,
      consumables: 600,
      currency: 'kr',
      stands: ['Stand 1', 'Stand 2', 'Stand 3'],
    }
    const runa = { 'x-moray-person': 'runa' }
    expect((await app.post('/api/shop/rules', rules)).body.error.code).toBe('lead-only')
    expect(
      (await app.post('/api/shop/rules', { ...rules, stands: ['Stand 1'] }, runa)).body.error,
    ).toMatchObject({
      code: 'stand-taken',
      message: expect.stringContaining('holds'),
    })
    expect((await app.post('/api/shop/rules', rules, runa)).status).toBe(201)
    const reason = { reason: 'Aluminium is on order; zinc until then.' }
    const alone = await app.post(`/api/jobs/${w.id}/steps`, { ...slip, departure: reason })
    expect(alone.body.error.code).toBe('lead-needed')
    // a name in a field agrees to nothing; only the lead's own request does
    const named = await app.post(`/api/jobs/${w.id}/steps`, {
      ...slip,
      departure: { ...reason, lead: 'runa' },
    })
    expect(named.body.error.fields[0]!.path).toBe('departure.lead')
    const agree = { step: 'anode', reason: 'I know this drive.' }
    const own = await app.post(`/api/jobs/${w.id}/agreements`, agree)
    expect([own.status, own.body.error.code]).toEqual([403, 'lead-only'])
    expect((await app.post(`/api/jobs/${w.id}/agreements`, agree, runa)).status).toBe(201)
    const job = await post(w, '/steps', { ...slip, departure: reason })
    expect(job.closings.at(-1)).toMatchObject({
      lead: 'Runa Holmsund',
      reason: 'Aluminium is on order; zinc until then.',
      departedFrom: [expect.stringContaining('Not the alloy for this water')],
    })
    expect((await app.events(w.id)).at(-1)!.text).toContain('closed although not everything held')
  })
})

describe('taking a step back', () => {
  it('takes what stands on it back too, with the reason, and keeps all of it', async () => {
    const w = await openWalker(await testApp(), 'teist-6')
    const job = await walkTo(w, 'apart')
    const drain = job.closings.find((s) => s.step === 'drain')!
    const after = await post(w, `/steps/${drain.id}/take-back`, { reason: 'volume misread' })
    expect(after.closings).toHaveLength(job.closings.length)
    const open = after.closings.filter((s) => !s.takenBack).map((s) => s.step)
    // what was measured beside it stays; the test stood on the empty case
    expect(open).toEqual(['receive', 'identify', 'ratio', 'tools', 'as-found'])
    expect(dueOf(after)!.step.id).toBe('drain')
    const again = await w.app.post(`/api/jobs/${w.id}/steps/${drain.id}/take-back`, { reason: 'again' })
    expect(again.body.error.code).toBe('already-taken-back')
  })
  it('is refused by the database when somebody tries to change what was answered', async () => {
    const app = await testApp()
    await expect(app.db.query("update step_done set answers = '{}'")).rejects.toThrow(/evidence/)
    await expect(app.db.query('delete from grade')).rejects.toThrow(/evidence/)
  })
})

describe('the row on the bench', () => {
  it('does not let a part out that another holds, unless it is said to have come', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const early = await app.post(`/api/jobs/${w.id}/row`, { part: 'pinion' })
    expect(early.body.error).toMatchObject({
      code: 'too-early',
      message: expect.stringContaining('Driveshaft must be off first'),
    })
    const job = await post(w, '/row', { part: 'pinion', confirmed: true, ink: 'P1' })
    expect(job.row[0]).toMatchObject({ part: 'pinion', ink: 'P1', fitted: null })
    const twice = await app.post(`/api/jobs/${w.id}/row`, { part: 'pinion', confirmed: true })
    expect(twice.body.error.code).toBe('in-the-row')
  })
  it('keeps its order, takes parts that no sheet knows, and shouts what is left', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'teist-6')
    await post(w, '/row', { part: 'cap' })
    await post(w, '/row', { name: 'Fishing line, two metres' })
    let job = await post(w, '/row', { part: 'propeller' })
    const [cap, line, prop] = job.row.map((t) => t.id)
    job = await post(w, '/row/order', { ids: [String(line), String(cap), String(prop)] })
    expect(job.row.map((t) => t.id)).toEqual([line, cap, prop])
    const stale = await app.post(`/api/jobs/${w.id}/row/order`, { ids: [String(line), String(cap)] })
    expect(stale.body.error.code).toBe('stale-row')
    expect(job.facts['row.left']).toBe(3)
    expect((await app.post(`/api/jobs/${w.id}/row/${line}`, { act: 'leave-out' })).body.error.code).toBe(
      'reason-needed',
    )
    await post(w, `/row/${line}`, { act: 'leave-out', reason: 'into the bin' })
    job = await post(w, `/row/${cap}`, { act: 'fit' })
    expect(job.facts['row.left']).toBe(1)
    job = await post(w, `/row/${cap}`, { act: 'unfit', reason: 'split pin missing' })
    expect(job.facts['row.left']).toBe(2)
    const missing = Number(job.facts['row.missing'])
    job = await post(w, `/row/${cap}`, { act: 'remove', reason: 'only loosened' })
    expect(job.facts['row.missing']).toBe(missing + 1)
    expect((await app.events(w.id)).at(-1)!.text).toContain('not off after all: only loosened')
    job = await post(w, '/row', { part: 'cap' })
    expect(job.facts['row.missing']).toBe(missing)
  })
})

describe('grades, estimate and the owner', () => {
  it('condemns the set with its part, and keeps a departure beside the proposal', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'havsule-duo-lower')
    let job = await post(w, '/grades', {
      part: 'tube-shaft',
      grade: 'replace-set',
      reason: 'runout 0.21 mm',
      seen: ['bent'],
      measured: '21h',
    })
    const set = job.grades.filter((g) => g.grade === 'replace-set')
    expect(set.map((g) => g.part).sort()).toEqual(['front-gear', 'pinion', 'tube-shaft'])
    expect(set[0]).toMatchObject({ measuredMm: 0.21, proposed: 'replace-set' })
    job = await post(w, '/grades', {
      part: 'pinion',
      grade: 'keep',
      reason: 'was new last year',
      seen: ['step'],
    })
    const own = job.grades.filter((g) => g.part === 'pinion')
    expect(own.map((g) => g.superseded)).toEqual([true, false])
    expect(own[1]).toMatchObject({ grade: 'keep', proposed: 'replace-set' })
    expect((await app.events(w.id)).at(-1)!.text).toContain('against the proposed')
    const bare = await app.post(`/api/jobs/${w.id}/grades`, { part: 'carrier', grade: 'keep', reason: '' })
    expect(bare.status).toBe(422)
  })
  walks(
    'goes no further than the owner: an exchange ends the rebuild, and the unit that comes is proved like any other',
    async () => {
      const app = await testApp()
      const w = await openWalker(app, 'lomvi-90')
      await walkTo(w, 'approve')
      const made = await post(w, '/estimates', { rate: 950, consumables: 500 })
      const estimateId = made.estimates.at(-1)!.id
      expect(made.estimates.at(-1)!.body.options.map((o) => o.id)).toEqual(['rebuild', 'exchange', 'used'])
      const newer = await post(w, '/estimates', { rate: 1100, consumables: 500 })
      const old = await app.post(`/api/jobs/${w.id}/approvals`, {
        estimateId,
        choice: 'rebuild',
        customer: 'Eieren',
        how: 'by telephone',
      })
      expect(old.body.error.code).toBe('stale-estimate')
      await post(w, '/approvals', {
        estimateId: newer.estimates.at(-1)!.id,
        choice: 'exchange',
        customer: 'Eieren',
        how: 'by telephone',
      })
      const job = await walkTo(w)
      expect(job.state).toBe('finished')
      const steps = job.closings.map((s) => s.step)
      expect(steps).not.toContain('seals')
      expect(steps).toEqual(
        expect.arrayContaining([
          'unit-look',
          'unit-ratio',
          'leak-case',
          'fill-mounted',
          'first-run',
          'handover',
        ]),
      )
    },
  )
})

describe('the fault finder', () => {
  it('keeps what was found and not found, the newest word counting, and learns from what it was', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    await post(w, '/findings', { finding: 'milky-oil', state: 'there' })
    await post(w, '/findings', { finding: 'metal', state: 'there' })
    let job = await post(w, '/findings', { finding: 'metal', state: 'not' })
    expect(job.findings.map((f) => [f.finding, f.present])).toEqual([
      ['metal', false],
      ['milky-oil', true],
    ])
    job = await post(w, '/findings', { finding: 'metal', state: 'unknown' })
    expect(job.findings.map((f) => f.finding)).toEqual(['milky-oil'])
    const history = () => app.get<FaultCase[]>(`/api/jobs/${w.id}/fault-history`)
    const others = (await history()).length
    expect(others).toBeGreaterThan(1)
    await post(w, '/outcome', { cause: 'screw-gasket', note: 'old gasket' })
    const shop = await app.get<Shop>('/api/shop')
    expect(shop.found['screw-gasket']).toBe(1)
    // a job does not learn from itself
    expect(await history()).toHaveLength(others)
  })
  it('lets the shop set a likelihood with a reason, and take it back', async () => {
    const app = await testApp()
    const edit = {
      finding: 'vibration',
      cause: 'dry-splines',
      likelihood: 0.3,
      reason: 'seen twice this year',
    }
    const runa = { 'x-moray-person': 'runa' }
    expect((await app.post('/api/shop/likelihoods', edit)).body.error.code).toBe('lead-only')
    expect((await app.post<Shop>('/api/shop/likelihoods', edit, runa)).body.edits).toEqual([
      { finding: 'vibration', cause: 'dry-splines', likelihood: 0.3 },
    ])
    const { likelihood: _, ...without } = edit
    expect((await app.post<Shop>('/api/shop/likelihoods', without, runa)).body.edits).toEqual([])
    const wrong = await app.post('/api/shop/likelihoods', { ...edit, cause: 'ghosts' }, runa)
    expect(wrong.body.error.fields[0]!.path).toBe('edits[0].cause')
  })
})

describe('schools', () => {
  it('are the shop’s, overridden on a job with a reason, and decide which steps there are', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    expect((await detail(w)).facts['school.filling']).toBe('mounted')
    const runa = { 'x-moray-person': 'runa' }
    await app.post('/api/shop/schools', { school: 'filling', choice: 'stand' }, runa)
    expect((await detail(w)).facts['school.filling']).toBe('stand')
    const bare = await app.post(`/api/jobs/${w.id}/schools`, { school: 'filling', choice: 'mounted' })
    expect(bare.body.error.code).toBe('reason-needed')
    const job = await post(w, '/schools', { school: 'filling', choice: 'mounted', reason: 'goes by crane' })
    expect(job.facts['school.filling']).toBe('mounted')
    expect(job.schools[0]).toMatchObject({ school: 'filling', reason: 'goes by crane' })
    const wrong = await app.post('/api/shop/schools', { school: 'filling', choice: 'never' }, runa)
    expect(wrong.body.error.fields[0]!.path).toBe('choice')
  })
})

describe('drafts', () => {
  it('keep what was typed over an interruption, leave no event, and go when the step closes', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    const events = (await app.events(w.id)).length
    const draft = (answers: object) => app.post(`/api/jobs/${w.id}/draft`, { step: 'receive', answers })
    expect((await draft({ 'in.struck': 'no' })).status).toBe(204)
    const job = await detail(w)
    expect(job.drafts[0]).toMatchObject({ step: 'receive', answers: { 'in.struck': 'no' } })
    expect(await app.events(w.id)).toHaveLength(events)
    const after = await walkTo(w, 'ratio')
    expect(after.drafts).toEqual([])
    // one that was overtaken by the closing of its step
    expect((await draft({ 'in.struck': 'yes' })).status).toBe(204)
    expect((await detail(w)).drafts).toEqual([])
  })
})

describe('the life of a job', () => {
  const body = {
    sheetId: 'lomvi-90',
    serial: 'LV90-20417',
    boat: 'Skarv II',
    owner: 'Mussel farm Indre Våg',
    water: 'salt',
    complaint: 'Stiff shift',
  }
  it('opens for a drive that is known, on a free stand only', async () => {
    const app = await testApp()
    const units = await app.get<KnownUnit[]>('/api/units')
    expect(units.find((u) => u.serial === 'LV90-20417')).toMatchObject({ boat: 'Skarv II', jobs: 1 })
    const taken = await app.post('/api/jobs', { ...body, stand: 'Stand 1' })
    expect(taken.body.error).toMatchObject({
      code: 'stand-taken',
      message: expect.stringContaining('26-118'),
    })
    expect((await app.post('/api/jobs', { ...body, stand: 'Stand 9' })).body.error.code).toBe('no-stand')
    const job = (await app.change('/api/jobs', body)).body
    expect(job).toMatchObject({ number: '26-123', state: 'received', stand: null })
    expect(job.sheet.version).toBe(demoSheets.find((s) => s.id === job.sheet.id)!.version)
    expect((await app.get<JobPage>('/api/jobs')).jobs.map((j) => j.id)).toContain(job.id)
    // a unit that comes again keeps its records within reach while it is on the bench
    const done = await app.job('lomvi-done')
    const { sheetId, serial, boat, owner, water } = done
    const again = (await app.change('/api/jobs', { sheetId, serial, boat, owner, water, complaint: 'Again' }))
      .body
    const unit = (await app.get<KnownUnit[]>('/api/units')).find((u) => u.serial === serial)!
    expect(unit).toMatchObject({ jobs: 2, lastJob: again.id })
    expect(unit.earlier).toEqual([{ id: done.id, number: done.number, at: done.openedAt }])
  })
  it('is held with a reason, goes on, moves to a stand and back', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    expect((await app.post(`/api/jobs/${w.id}/life`, { act: 'hold' })).body.error.code).toBe('reason-needed')
    const held = await post(w, '/life', { act: 'hold', reason: 'seal kit on Thursday' })
    expect(held).toMatchObject({ state: 'held', waits: { kind: 'held', reason: 'seal kit on Thursday' } })
    expect(await post(w, '/life', { act: 'resume' })).toMatchObject({ state: 'received' })
    const on = await app.post(`/api/jobs/${w.id}/life`, { act: 'stand', stand: 'Stand 2' })
    expect(on.body.error.code).toBe('stand-taken')
  })
  it('is closed without a rebuild, reopened, and goes on where it was', async () => {
    const app = await testApp()
    const w = await openWalker(app, 'lomvi-90')
    await walkTo(w, 'drain')
    const closed = await post(w, '/life', { act: 'close', reason: 'owner takes it elsewhere' })
    expect(closed).toMatchObject({ state: 'closed', stand: null })
    const late = await app.post(`/api/jobs/${w.id}/steps`, { step: 'drain', answers: {} })
    expect(late.body.error.code).toBe('closed')
    const again = await post(w, '/life', { act: 'reopen', reason: 'came back' })
    expect(dueOf(again)!.step.id).toBe('tools')
  })
  it('reopens a finished job from the step that failed', async () => {
    const app = await testApp()
    const job = await app.change('/api/jobs/lomvi-done/life', {
      act: 'reopen',
      step: 'seals',
      reason: 'weeps at the propeller shaft',
    })
    expect(job.body.state).toBe('reopened')
    expect(waitsFor(job.body)).toBe('Fit the seals')
    expect(job.body.closings.find((s) => s.step === 'handover')!.takenBack!.reason).toContain('weeps')
  })
})

describe('pictures', () => {
  const png = Uint8Array.from(
    atob('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg=='),
    (c) => c.charCodeAt(0),
  )
  const send = async (
    app: Awaited<ReturnType<typeof testApp>>,
    content: Uint8Array,
    query = 'subject=step&of=apart',
  ) => {
    const response = await app.request(`/api/jobs/lomvi-skarv/files?${query}`, {
      method: 'POST',
      headers: { 'x-moray-person': 'ylva', 'content-type': 'application/octet-stream' },
      body: content as BodyInit,
    })
    return {
      status: response.status,
      body: (await response.json()) as JudgedJob & { error: { code: string } },
    }
  }
  it('are made anew, kept by their content, once, and come back as they are kept', async () => {
    const app = await testApp()
    const first = await send(app, png)
    expect(first.status).toBe(201)
    const [picture] = first.body.attachments
    expect(picture).toMatchObject({
      subject: 'step',
      subjectId: 'apart',
      type: 'image/png',
    })
    const second = await send(app, png, 'subject=part&of=pinion&note=chip')
    expect(second.body.attachments.map((a) => a.hash)).toEqual([picture!.hash, picture!.hash])
    const response = await app.request(`/api/files/${picture!.hash}`)
    expect(response.headers.get('content-type')).toBe('image/png')
    const content = new Uint8Array(await response.arrayBuffer())
    expect([content.length, hashOf(content)]).toEqual([picture!.bytes, picture!.hash])
    expect((await app.request(`/api/files/${'0'.repeat(64)}`)).status).toBe(404)
  })
  it('are refused when they are something else, empty, or larger than 25 MB', async () => {
    const app = await testApp()
    const script = new TextEncoder().encode('<svg onload="x"/>')
    expect((await send(app, script)).body.error.code).toBe('not-a-picture')
    expect((await send(app, new Uint8Array(0))).body.error.code).toBe('empty')
    const large = new Uint8Array(25 * 1024 * 1024 + 1)
    large.set(png)
    expect((await send(app, large)).status).toBe(413)
    expect((await send(app, png, 'subject=mood&of=x')).status).toBe(422)
  })
})
