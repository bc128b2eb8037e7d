import { readFileSync, writeFileSync } from 'node:fs'
import { createHash } from 'node:crypto'
import { join, resolve } from 'node:path'
import type { ForeignHead, SearchReply } from '@moray/contract/found'
import type { JobFile } from '@moray/contract/job-file'
import type { JobReply, JobPage } from '@moray/contract/replies'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { jobSchemaText } from '../../../tools/job-schema.ts'
import { checkShop } from '../../src/data/check-shop.ts'
import { schema, scratch, testApp, type TestApp } from '../test-app.ts'
import { itOnOne, walkedHere } from '../databases.ts'
import { readZip, writeZip } from '../zips.ts'

const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)
const RUNA = { 'x-moray-person': 'runa' }
const sum = (content: Buffer) => createHash('sha256').update(content).digest('hex')

async function exported(app: TestApp, job = 'lomvi-test') {
  const picture = await app.request(`/api/jobs/${job}/files?subject=job&of=`, {
    method: 'POST',
    headers: { 'x-moray-person': 'ylva', 'x-moray-request': crypto.randomUUID() },
    body: PIXEL,
  })
  expect(picture.status).toBe(201)
  const response = await app.request(`/api/jobs/${job}/zip`)
  expect(response.status).toBe(200)
  const file = join(scratch('zip'), 'job.zip')
  writeFileSync(file, Buffer.from(await response.arrayBuffer()))
  return { file, entries: await readZip(file), name: response.headers.get('content-disposition') }
}
const bringIn = async (app: TestApp, content: Buffer) => {
  const r = await app.request('/api/foreign', {
    method: 'POST',
    headers: { 'x-moray-person': 'ylva', 'x-moray-request': crypto.randomUUID() },
    body: new Uint8Array(content),
  })
  const body = (await r.json()) as ForeignHead[] & { error: { message: string; code: string } }
  return { status: r.status, body }
}

describe('the zip of a job', () => {
  it('holds the record, tables, pictures, and the sum of each', async () => {
    const app = await testApp()
    const { entries, name } = await exported(app)
    expect(name).toMatch(/filename="26-\d+-[\w-]+\.zip"/)
    const names = [...entries.keys()]
    expect(names).toEqual(
      expect.arrayContaining([
        'job.json',
        'readings.csv',
        'stacks.csv',
        'torques.csv',
        'tests.csv',
        'events.csv',
        'checksums.txt',
      ]),
    )
    expect(names.filter((n) => /^pictures\/[0-9a-f]{64}\.png$/.test(n))).toHaveLength(1)
    const sums = entries.get('checksums.txt')!.toString().trim().split('\n')
    expect(sums).toHaveLength(names.length - 1)
    for (const line of sums) {
      const [hash, entry] = line.split('  ')
      expect(sum(entries.get(entry!)!)).toBe(hash)
    }
    const file = JSON.parse(entries.get('job.json')!.toString()) as JobFile
    const record = await app.get<JobReply>('/api/jobs/lomvi-test')
    expect(file.job).toEqual(record)
    expect(file.events.length).toBeGreaterThan(10)
    const { data } = Papa.parse<Record<string, string>>(entries.get('readings.csv')!.toString(), {
      header: true,
      skipEmptyLines: true,
    })
    const readings = record.builds.flatMap((b) => b.readings)
    expect(data.map((r) => Number(r.value))).toEqual(readings.map((r) => r.value))
    expect((await app.request('/api/jobs/nobody/zip')).status).toBe(404)
  })
  it.runIf(walkedHere())(
    'goes by a schema that is made out of the types, and is published as it is made',
    () => {
      const published = readFileSync(resolve(import.meta.dirname, '../../../docs/job.schema.json'), 'utf8')
      expect(JSON.parse(published)).toEqual(JSON.parse(jobSchemaText()))
    },
    60_000,
  )
})

describe('a record of another shop', () => {
  it('is read and found, with its pictures; it is sealed, once, and no job of this shop', async () => {
    const app = await testApp()
    const { entries, file } = await exported(app)
    const before = (await app.get<JobPage>('/api/jobs?state=all')).jobs.length
    const first = await bringIn(app, readFileSync(file))
    expect([first.status, first.body.length]).toEqual([201, 1])
    const { id } = first.body[0]!
    expect(await app.get<JobFile>(`/api/foreign/${id}`)).toEqual(
      JSON.parse(entries.get('job.json')!.toString()),
    )
    expect((await app.get<JobPage>('/api/jobs?state=all')).jobs).toHaveLength(before)
    const again = await bringIn(app, readFileSync(file))
    expect([again.status, again.body.error.code]).toEqual([409, 'here-already'])
    await app.db.query('select search_catch_up(1000)')
    const { found } = await app.get<SearchReply>('/api/search?search=.75%20forward')
    expect(found.map((f) => f.what).sort()).toEqual(['foreign', 'job'])
    const hash = [...entries.keys()].find((n) => n.startsWith('pictures/'))!.slice(9, 73)
    expect((await app.request(`/api/files/${hash}`)).status).toBe(200)
    const { broken } = await checkShop(app.db, app.deps.files, { functions: schema.functions })
    expect(broken).toEqual([])
    await expect(app.db.query('delete from foreign_job')).rejects.toThrow(/evidence/)
    expect((await app.request('/api/foreign/999')).status).toBe(404)
  })
  const json = (entries: Map<string, Buffer>) => JSON.parse(entries.get('job.json')!.toString()) as JobFile
  /** The same zip with one file changed, and its sum too where somebody took that trouble. */
  const changed = async (
    entries: Map<string, Buffer>,
    name: string,
    content: Buffer | null,
    { summed = false } = {},
  ) => {
    const all = new Map(entries)
    if (content) all.set(name, content)
    else all.delete(name)
    if (summed) {
      const sums = [...all].filter(([n]) => n !== 'checksums.txt').map(([n, c]) => `${sum(c)}  ${n}\n`)
      all.set('checksums.txt', Buffer.from(sums.join('')))
    }
    const file = join(scratch('zip'), 'changed.zip')
    await writeZip(file, all)
    return readFileSync(file)
  }
  itOnOne()(
    'that is damaged or altered is refused, and what is wrong is said by name',
    async () => {
      const app = await testApp()
      const { entries, file } = await exported(app)
      const picture = [...entries.keys()].find((n) => n.startsWith('pictures/'))!
      const whole = readFileSync(file)
      const cases: [Buffer, RegExp][] = [
        [await changed(entries, 'readings.csv', Buffer.from('x')), /readings\.csv was altered or damaged/],
        [await changed(entries, picture, Buffer.from('x')), /pictures\/\S+ was altered or damaged/],
        [
          await changed(entries, picture, Buffer.from('x'), { summed: true }),
          /is another picture than its name says/,
        ],
        [await changed(entries, 'stacks.csv', null), /stacks\.csv is missing/],
        [await changed(entries, 'extra.csv', Buffer.from('x')), /extra\.csv was put in/],
        [await changed(entries, 'checksums.txt', Buffer.from('nonsense')), /checksums\.txt is damaged/],
        [
          await changed(entries, 'job.json', Buffer.from('{"format":"moray-job"'), { summed: true }),
          /job\.json is damaged/,
        ],
        [
          await changed(entries, 'job.json', Buffer.from('{"format":"else"}'), { summed: true }),
          /not that of a job/,
        ],
        [
          await changed(
            entries,
            'job.json',
            Buffer.from(JSON.stringify({ ...json(entries), layout: 9, moray: '9.9.9' })),
            { summed: true },
          ),
          /written by Moray 9\.9\.9/,
        ],
        [
          await changed(
            entries,
            'job.json',
            Buffer.from(JSON.stringify({ ...json(entries), events: [{ id: 'one' }] })),
            { summed: true },
          ),
          /job\.json: \/events\/0/,
        ],
        [await changed(entries, 'evil.exe', Buffer.from('x')), /holds "evil\.exe"/],
        [whole.subarray(0, whole.length / 2), /cut off/],
        [Buffer.from('no zip'), /no job's zip/],
      ]
      for (const [content, said] of cases) {
        const { status, body } = await bringIn(app, content)
        expect([status, body.error.message]).toEqual([422, expect.stringMatching(said)])
      }
      expect(await app.get('/api/foreign')).toEqual([])
    },
    60_000,
  )
})

describe('what is kept of an owner', () => {
  const OWNER = 'Mussel farm Indre Våg'
  it('leaves as a zip: jobs, approvals and pictures, and nobody else’s', async () => {
    const app = await testApp()
    await exported(app, 'lomvi-skarv')
    const r = await app.request(`/api/owner/zip?owner=${encodeURIComponent(OWNER)}`)
    const file = join(scratch('zip'), 'owner.zip')
    writeFileSync(file, Buffer.from(await r.arrayBuffer()))
    const entries = await readZip(file)
    const about = JSON.parse(entries.get('owner.json')!.toString()) as { jobs: { boat: string }[] }
    const { jobs } = await app.get<JobPage>('/api/jobs?state=all')
    expect(about.jobs.map((j) => j.boat).sort()).toEqual(
      jobs
        .filter((j) => j.owner === OWNER)
        .map((j) => j.boat)
        .sort(),
    )
    expect([...entries.keys()].filter((n) => n.startsWith('pictures/'))).toHaveLength(1)
    expect((await app.request('/api/owner/zip?owner=Nobody')).status).toBe(404)
  })
  it('can be taken out by the lead: no row names them any more, the record stays, and the check understands it', async () => {
    const app = await testApp()
    // a record of another shop that names them as well
    const { file } = await exported(app, 'lomvi-skarv')
    expect((await bringIn(app, readFileSync(file))).status).toBe(201)
    await app.post('/api/jobs/lomvi-skarv/details', { owner: 'Farmer Unnamed', reason: 'married' })
    await app.post('/api/jobs/lomvi-skarv/details', { owner: OWNER, reason: 'and back' })
    const readings = async () =>
      (await app.get<JobReply>('/api/jobs/lomvi-skarv')).builds.flatMap((b) => b.readings)
    const before = await readings()
    const body = { owner: OWNER, reason: 'asked for it by letter' }
    expect((await app.post('/api/owner/removed', body)).status).toBe(403)
    expect((await app.post('/api/owner/removed', body, RUNA)).status).toBe(201)
    expect((await app.get<JobReply>('/api/jobs/lomvi-skarv')).owner).toBe('removed on request')
    expect(await readings()).toEqual(before)
    const tables = await app.db.query<{ name: string }>(
      'select tablename::text as name from pg_tables where schemaname = current_schema()',
    )
    for (const { name } of tables) {
      const [row] = await app.db.query<{ n: number }>(
        `select count(*)::int as n from "${name}" t where t::text like '%Indre Våg%' or t::text like '%Farmer Unnamed%'`,
      )
      expect([name, row!.n]).toEqual([name, 0])
    }
    const { broken } = await checkShop(app.db, app.deps.files, { functions: schema.functions })
    expect(broken).toEqual([])
    expect((await app.post('/api/owner/removed', body, RUNA)).status).toBe(404)
    // what somebody else changes is noticed as before
    await app.db.script(
      "alter table event disable trigger user; update event set data = '{}' where id = 5; alter table event enable trigger user",
    )
    const after = await checkShop(app.db, app.deps.files, { functions: schema.functions })
    expect(after.broken).toHaveLength(1)
  })
})
