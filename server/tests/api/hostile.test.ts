import { describeClass } from '@moray/contract/fields/describe'
import type { JobPage } from '@moray/contract/replies'
import { beforeAll, describe, expect, it } from 'vitest'
import { GOOD, HOSTILE, pathOf, pathsOf, put, writes } from '../hostile-values.ts'
import { itOnOne } from '../databases.ts'
import { testApp, type TestApp } from '../test-app.ts'

let app: TestApp
beforeAll(async () => {
  app = await testApp()
})

const RUNA = 'runa'
async function send(path: string, body: string, person = RUNA) {
  const response = await app.request(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-moray-person': person },
    body,
  })
  return { status: response.status, text: await response.text() }
}
/** A field of a longer body, a sheet above all, gets one value, and the next field the next; there are hundreds of them, all made by the same classes. */
const MANY_FIELDS = 60
const valuesFor = (index: number, fields: number) =>
  fields <= MANY_FIELDS ? HOSTILE : [HOSTILE[index % HOSTILE.length]!]
// what is refused is refused before a database is asked
const walks = itOnOne()

describe('what nobody means', () => {
  it('knows a body for every write there is', () => {
    expect(Object.keys(GOOD).sort()).toEqual(writes.map(([name]) => name).sort())
    expect(HOSTILE.length).toBeGreaterThan(25)
  })
  walks.each(writes)(
    'is refused or kept by %s, field by field, and never an error of ours',
    async (name, endpoint, body) => {
      const good = GOOD[name]!
      const tried: string[] = []
      const fields = pathsOf(describeClass(body))
      for (const [index, field] of fields.entries())
        for (const value of valuesFor(index, fields.length)) {
          // leaving the demo would end it for the tests that follow
          if (name === 'leaveDemo' && value === JSON.stringify('leave the demo')) continue
          const text = JSON.stringify(put(good, field, '@@')).replace('"@@"', () => value)
          const { status, text: reply } = await send(pathOf(endpoint), text)
          expect(
            status,
            `${name}.${field.join('.')} = ${value.slice(0, 60)}: ${reply.slice(0, 200)}`,
          ).toBeLessThan(500)
          tried.push(field.join('.'))
        }
      expect(tried.length).toBeGreaterThanOrEqual(HOSTILE.length - 1)
    },
  )
  it.each(['constructor', '__proto__', 'toString', 'hasOwnProperty', '', 'a.b', '\u0000'])(
    'as a key is refused by name: %j',
    async (key) => {
      const body = `{"pieces":1,${JSON.stringify(key)}:{"a":1}}`
      const { status, text } = await send('/api/drawer/s001/add', body)
      expect(status).toBe(422)
      expect(text).toContain('is not a field of this request')
    },
  )
  it.each([
    ['%00', 404],
    ['%ED%A0%80', 404],
    ['..%2f..%2fetc', 404],
    ['1e3', 404],
    ['0x10', 404],
    ['a'.repeat(5000), 404],
    ['%F0%9F%90%9F', 404],
    ['a b', 404],
  ])('as an id is not there: %s', async (id, status) => {
    for (const path of [
      `/api/jobs/${id}`,
      `/api/files/${id}`,
      `/api/drives/${id}`,
      `/api/drawer/${id}/movements`,
      `/api/jobs/${id}/events`,
    ])
      expect((await app.request(path)).status, path).toBe(status)
    for (const path of [`/api/jobs/lomvi-skarv/row/${id}`, `/api/jobs/lomvi-skarv/readings/${id}/supersede`])
      expect((await send(path, '{"act":"fit","reason":"because"}')).status, path).toBeGreaterThanOrEqual(404)
  })
  it.each(['%00', '%ED%A0%80', 'x'.repeat(200), "'%20or%201=1", '%25'])(
    'as a search is refused or finds nothing: %s',
    async (text) => {
      for (const path of [
        `/api/jobs?search=${text}`,
        `/api/units?search=${text}`,
        `/api/jobs?before=${text}`,
        `/api/jobs?state=${text}`,
        `/api/jobs/lomvi-skarv/events?after=${text}`,
        `/api/live?after=${text}`,
      ])
        expect((await app.request(path)).status, path).toBeLessThan(500)
    },
  )
  it('is refused in time in proportion: keys without end, lists without end, nesting without end', async () => {
    const many = `{${Array.from({ length: 9000 }, (_, i) => `"k${i}":1`).join(',')}}`
    const nulls = `{"stacks":[${Array(40_000).fill('null').join(',')}],"fromBuild":0}`
    const deep = `{"answers":${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)},"step":"receive"}`
    for (const [path, body] of [
      ['/api/drawer/s001/add', many],
      ['/api/jobs/lomvi-skarv/trials', nulls],
      ['/api/jobs/lomvi-skarv/steps', deep],
    ] as const) {
      const started = performance.now()
      const { status, text } = await send(path, body)
      expect(status).toBe(422)
      expect(text.length, path).toBeLessThan(20_000)
      expect((JSON.parse(text) as { error: { fields: unknown[] } }).error.fields.length).toBeLessThanOrEqual(
        50,
      )
      expect(performance.now() - started, path).toBeLessThan(2000)
    }
  })
  it('blank texts make no job, no reason and no stand', async () => {
    const blank = {
      sheetId: 'teist-6',
      serial: ' ',
      boat: ' ',
      owner: '\u200b',
      water: 'salt',
      complaint: '   ',
    }
    const { status, text } = await send('/api/jobs', JSON.stringify(blank))
    expect(status).toBe(422)
    const { fields } = (JSON.parse(text) as { error: { fields: { path: string }[] } }).error
    expect(fields.map((f) => f.path)).toEqual(['serial', 'boat', 'owner', 'complaint'])
    expect(
      (await send('/api/shop/rules', JSON.stringify({ ...GOOD.setShopRules, stands: [' '] }))).status,
    ).toBe(422)
    expect(
      (
        await send(
          '/api/jobs/rordrum/grades',
          JSON.stringify({ part: 'input-carrier', grade: 'keep', reason: '   ' }),
        )
      ).status,
    ).toBe(422)
  })
  it('figures that cannot be are refused, confirmed or not', async () => {
    const grade = (measured: string) =>
      send(
        '/api/jobs/rordrum/grades',
        JSON.stringify({ part: 'input-carrier', grade: 'keep', reason: 'because', measured }),
      )
    expect((await grade('-5')).status).toBe(422)
    expect((await grade('1e60')).status).toBe(422)
    expect((await grade('.04')).status).toBe(201)
    const stack = (text: string) =>
      send(
        '/api/jobs/lomvi-skarv/stacks',
        JSON.stringify({
          location: 'pinion',
          unit: 'mm',
          pieces: [{ text }],
          confirmed: true,
          reason: 'again',
        }),
      )
    expect((await stack('99999999')).status).toBe(422)
    expect(
      (await send('/api/jobs/sivkrok/steps', '{"step":"drain","answers":{"drain.ml":1e308}}')).status,
    ).toBe(422)
  })
  it('leaves the shop as it was, and every error is said in the one body', async () => {
    const { jobs } = await app.get<JobPage>('/api/jobs')
    expect(jobs.length).toBeGreaterThanOrEqual(12)
    expect(app.logged).toEqual([])
  })
})
