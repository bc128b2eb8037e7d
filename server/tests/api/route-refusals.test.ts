import type { JobPage } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const JOB = 'lomvi-teist'
const TABLES = [
  'step_done',
  'step_taken_back',
  'row_part',
  'grade',
  'job_finding',
  'fault_outcome',
  'likelihood_edit',
  'estimate',
  'approval',
  'job_school',
  'attachment',
  'event',
  'job',
]
const counts = async (app: TestApp) => {
  const [row] = await app.db.query<Record<string, number>>(
    `select ${TABLES.map((t) => `(select count(*)::int from ${t}) as ${t}`).join(', ')}`,
  )
  return row
}

/** What is sent where, and what is named as wrong. */
const WRONG: [string, string, object, string | number][] = [
  ['a step that is not', '/steps', { step: 'fly', answers: {} }, 404],
  ['answers that are a list', '/steps', { step: 'leak-found', answers: [] }, 'answers'],
  ['an answer that is an object', '/steps', { step: 'leak-found', answers: { a: {} } }, 'answers'],
  ['an answer nobody asked for', '/steps', { step: 'leak-found', answers: { mood: 'good' } }, 'answers.mood'],
  [
    'a choice that is not offered',
    '/steps',
    { step: 'leak-found', answers: { 'leak-found.turned': 'borrowed' } },
    'answers.leak-found.turned',
  ],
  [
    'a pressure that is no pressure',
    '/steps',
    { step: 'leak-found', answers: { 'leak-found.start': '70 furlongs' } },
    'answers.leak-found.start',
  ],
  [
    'minutes below nothing',
    '/steps',
    { step: 'leak-found', answers: { 'leak-found.minutes': -5 } },
    'answers.leak-found.minutes',
  ],
  [
    'a departure without a reason',
    '/steps',
    { step: 'leak-found', answers: {}, departure: {} },
    'departure.reason',
  ],
  ['an unknown field', '/steps', { step: 'leak-found', answers: {}, hurry: true }, 'hurry'],
  ['a step to take back that was never closed', '/steps/999999/take-back', { reason: 'because' }, 404],
  ['a step to take back without a number', '/steps/x/take-back', { reason: 'because' }, 404],
  ['a part that the sheet does not know', '/row', { part: 'flux' }, 404],
  ['a part without a name', '/row', { ink: 'dot' }, 'name'],
  ['an order of nothing', '/row/order', { ids: [] }, 'ids'],
  ['a part in the row that is not', '/row/999999', { act: 'fit' }, 404],
  ['an act that is none', '/row/1', { act: 'hide' }, 'act'],
  ['a grade that is none', '/grades', { part: 'pinion', grade: 'perfect', reason: 'looks it' }, 'grade'],
  ['a grade without a reason', '/grades', { part: 'pinion', grade: 'keep', reason: 'x' }, 'reason'],
  ['a grade for a part that is not', '/grades', { part: 'flux', grade: 'keep', reason: 'looks fine' }, 404],
  [
    'a sight that is not looked for',
    '/grades',
    { part: 'pinion', grade: 'keep', reason: 'looks fine', seen: ['aura'] },
    'seen[0]',
  ],
  [
    'a runout in no unit',
    '/grades',
    { part: 'prop-shaft', grade: 'keep', reason: 'looks fine', measured: '3 bananas' },
    'measured',
  ],
  [
    'a zone that the sheet does not know',
    '/grades',
    { part: 'prop-shaft', grade: 'keep', reason: 'looks fine', measured: '3h', zone: 'Moon' },
    'zone',
  ],
  ['a finding that is none', '/findings', { finding: 'ghosts', state: 'there' }, 404],
  ['a state that is none', '/findings', { finding: 'milky-oil', state: 'maybe' }, 'state'],
  ['a cause that is none', '/outcome', { cause: 'ghosts' }, 404],
  ['a negative rate', '/estimates', { rate: -1, consumables: 0 }, 'rate'],
  ['a rate that is text', '/estimates', { rate: '950', consumables: 0 }, 'rate'],
  [
    'an approval of no estimate',
    '/approvals',
    { estimateId: 999_999, choice: 'rebuild', customer: 'Eieren', how: 'by letter' },
    404,
  ],
  [
    'an approval by nobody',
    '/approvals',
    { estimateId: 1, choice: 'rebuild', customer: '', how: 'by letter' },
    'customer',
  ],
  ['a school that is none', '/schools', { school: 'astrology', choice: 'x', reason: 'stars' }, 'school'],
  ['an act of life that is none', '/life', { act: 'vanish' }, 'act'],
  ['going on with what is not held', '/life', { act: 'resume' }, 409],
  ['reopening what is open', '/life', { act: 'reopen', reason: 'again' }, 409],
  ['a draft of a step that is not', '/draft', { step: 'fly', answers: {} }, 404],
]

describe('what is refused on a job leaves nothing behind', () => {
  it.each(WRONG)('%s', async (_, path, body, expected) => {
    const app = await testApp()
    const before = await counts(app)
    const { status, body: reply } = await app.post(`/api/jobs/${JOB}${path}`, body)
    if (typeof expected === 'number') expect(status).toBe(expected)
    else {
      expect(status).toBe(422)
      expect(reply.error.fields.map((f) => f.path)).toContain(expected)
    }
    expect(reply.error.message.length).toBeGreaterThan(5)
    expect(await counts(app)).toEqual(before)
  })
  it.each([
    ['/steps', { step: 'leak-found', answers: {} }],
    ['/row', { part: 'anode' }],
    ['/grades', { part: 'pinion', grade: 'keep', reason: 'fine' }],
  ])('nobody writes to %s without saying who', async (path, body) => {
    const app = await testApp()
    const response = await app.request(`/api/jobs/${JOB}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    })
    expect(response.status).toBe(422)
    expect(((await response.json()) as { error: { code: string } }).error.code).toBe('no-person')
  })
})

const opening = {
  sheetId: 'lomvi-90',
  serial: 'X1',
  boat: 'B',
  owner: 'O',
  water: 'salt',
  complaint: 'whines',
}

describe('a job that cannot be opened', () => {
  it.each<[string, object, string | number]>([
    ['without a serial number', { serial: '' }, 'serial'],
    ['in sweet water', { water: 'sweet' }, 'water'],
    ['with half an hour on it', { hours: 0.5 }, 'hours'],
    ['on a sheet that is not', { sheetId: 'nothing' }, 404],
    ['without a complaint', { complaint: '' }, 'complaint'],
  ])('%s', async (_, change, expected) => {
    const app = await testApp()
    const before = await counts(app)
    const { status, body } = await app.post('/api/jobs', { ...opening, ...change })
    if (typeof expected === 'number') expect(status).toBe(expected)
    else expect(body.error.fields.map((f) => f.path)).toContain(expected)
    expect(await counts(app)).toEqual(before)
  })
  it('is opened once when the same request comes twice', async () => {
    const app = await testApp()
    const id = { 'x-moray-request': 'the-same-request-1' }
    const first = await app.change('/api/jobs', opening, id)
    const second = await app.change('/api/jobs', opening, id)
    expect(second.body.id).toBe(first.body.id)
    const { jobs } = await app.get<JobPage>('/api/jobs')
    expect(jobs.filter((j) => j.serial === 'X1')).toHaveLength(1)
  })
})

describe('two at once', () => {
  it('close a step once: the second is told', async () => {
    const app = await testApp()
    const body = {
      step: 'receive',
      answers: { 'in.opened': 'no', 'in.struck': 'no' },
    }
    const both = await Promise.all([
      app.change('/api/jobs/sivkrok/steps', body),
      app.change('/api/jobs/sivkrok/steps', body, { 'x-moray-person': 'joar' }),
    ])
    expect(both.map((r) => r.status).sort()).toEqual([201, 422])
    expect(both.find((r) => r.status === 422)!.body.error.code).toBe('already-done')
  })
  it('do not get the same stand', async () => {
    const app = await testApp()
    await app.post('/api/jobs/lomvi-skarv/life', { act: 'stand' })
    const both = await Promise.all(
      ['sivkrok', 'rordrum'].map((id) =>
        app.post(`/api/jobs/${id}/life`, { act: 'stand', stand: 'Stand 1' }),
      ),
    )
    expect(both.map((r) => r.status).sort()).toEqual([201, 409])
    // the database would not have it either
    await expect(app.db.query("update job set stand = 'Stand 2' where id = 'duo-lower'")).rejects.toThrow(
      /job_on_stand/,
    )
  })
})

describe('the shop', () => {
  it.each<[string, string, object, string]>([
    [
      'rules without a stand',
      '/api/shop/rules',
      { departuresNeedLead: true, rate: 1, consumables: 1, currency: 'kr', stands: [] },
      'stands',
    ],
    [
      'a likelihood of one',
      '/api/shop/likelihoods',
      { finding: 'vibration', cause: 'dry-splines', likelihood: 1, reason: 'sure' },
      'likelihood',
    ],
    [
      'a likelihood without a reason',
      '/api/shop/likelihoods',
      { finding: 'vibration', cause: 'dry-splines', likelihood: 0.5, reason: '' },
      'reason',
    ],
    ['a school that is none', '/api/shop/schools', { school: 'x', choice: 'y' }, 'school'],
  ])('refuses %s', async (_, path, body, at) => {
    const app = await testApp()
    const { status, body: reply } = await app.post(path, body, { 'x-moray-person': 'runa' })
    expect(status).toBe(422)
    expect(reply.error.fields.map((f) => f.path)).toContain(at)
  })
})
