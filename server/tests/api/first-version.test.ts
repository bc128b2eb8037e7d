import { resolve } from 'node:path'
import { isOver } from '@moray/core/job/record'
import type { JobReply } from '@moray/contract/replies'
import { readJudged } from '../../src/job/on-job.ts'
import { SheetShelf } from '../../src/drives/sheets.ts'
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest'
import { loadCopy } from '../../src/copies/load.ts'
import { openCopy } from '../../src/copies/read-copy.ts'
import { checkShop } from '../../src/data/check-shop.ts'
import type { Database } from '../../src/db/database.ts'
import { databaseFiles } from '../../src/files/file-store.ts'
import { emptyOn, NOW, schema, testApp, type TestApp } from '../test-app.ts'
import { readZip } from '../zips.ts'

/**
 * The shop of the demo as the first version wrote it: a copy of its folder, made by the upgrade before it began. It holds ten jobs, on sheets without parts,
 * and neither routes nor logs.
 */
const COPY = resolve(import.meta.dirname, '../first-version.zip')

/** A day after the copy was written. */
const AFTER = new Date('2026-12-01T08:00:00.000Z')

type Row = Record<string, unknown>
let app: TestApp
let db: Database
let was: Record<string, Row[]>

beforeAll(async () => {
  was = Object.fromEntries(
    [...(await readZip(COPY))].flatMap(([name, content]) => {
      const table = /^tables\/(.*)\.jsonl$/.exec(name)?.[1]
      const rows = content.toString().split('\n').filter(Boolean)
      return table ? [[table, rows.map((r): Row => JSON.parse(r))]] : []
    }),
  )
  db = await emptyOn(inject('database'))
  const copy = await openCopy(COPY)
  await loadCopy(db, databaseFiles, copy, schema, AFTER, { proving: false })
  copy.close()
  app = await testApp({ db, files: databaseFiles, now: () => AFTER })
}, 60_000)
afterAll(() => db.close())

/** What the job's rows were, and what its page is told, in one shape. */
function before(id: string) {
  const of = (table: string, key: string, value: unknown) => was[table]!.filter((r) => r[key] === value)
  return of('build', 'job_id', id)
    .sort((a, b) => Number(a.number) - Number(b.number))
    .map((b) => ({
      number: b.number,
      accepted: of('acceptance', 'build_id', b.id).length > 0,
      readings: of('reading', 'build_id', b.id)
        .map((r) => `${r.measure} ${r.value_mm}`)
        .sort(),
      stacks: of('stack', 'build_id', b.id)
        .map((s) => `${s.location}: ${of('stack_piece', 'stack_id', s.id).map((p) => p.thickness_mm)}`)
        .sort(),
    }))
}
const now = (job: JobReply) =>
  job.builds.map((b) => ({
    number: b.number,
    accepted: b.acceptance !== null,
    readings: b.readings.map((r) => `${r.measure} ${r.value}`).sort(),
    stacks: b.stacks.map((s) => `${s.location}: ${s.pieces.map((p) => p.thicknessMm)}`).sort(),
  }))

describe('a data folder of the first version', () => {
  it('opens every job, with every reading, stack and acceptance that it had', async () => {
    expect(was.job).toHaveLength(10)
    for (const row of was.job!) {
      const job = await app.get<JobReply>(`/api/jobs/${String(row.id)}`)
      const { number, serial, boat, owner, hours, complaint, state } = row
      expect(job).toMatchObject({ number, serial, boat, owner, hours, complaint, state })
      expect(now(job), String(number)).toEqual(before(job.id))
    }
  })
  it('is whole when it is checked', async () => {
    const { broken } = await checkShop(db, databaseFiles, { functions: schema.functions })
    expect(broken).toEqual([])
  })
  it('lists the state of its open jobs, and does not judge the one that was handed over', async () => {
    const said: Record<string, (string | number)[]> = {}
    for (const row of was.job!) {
      const { id, state, work } = await readJudged(db, { sheets: new SheetShelf() }, String(row.id), NOW)
      if (!isOver(state)) said[id] = [work.acts.length, ...work.lines.map((l) => `${l.code} ${l.on}`)]
    }
    expect(said).toEqual({
      'lomvi-skarv': [1],
      'lomvi-teist': [1],
      // stacks were changed, and no trial with them is accepted
      'alke-lower': [
        34,
        'setting-not-proved depth',
        'setting-not-proved backlash-forward',
        'setting-not-proved backlash-reverse',
      ],
      'havsule-upper': [7],
      rordrum: [1],
      'teist-bent': [1],
      // as found its settings were read, and accepted
      'duo-lower': [17],
      'alke-upper': [5],
      sivkrok: [1],
    })
  })
  it('goes on: with its next write the log of a job begins with what was known of it', async () => {
    const reply = await app.post('/api/jobs/alke-lower/open-items', { text: 'a chip in the tray' })
    expect(reply.status, JSON.stringify(reply.body).slice(0, 300)).toBe(201)
    const rows = await db.query<{ verb: string; source: string }>(
      "select verb, source from act where job_id = 'alke-lower' order by entered, place",
    )
    const verbs = rows.map((r) => r.verb)
    expect(verbs.filter((v) => v !== 'measure')).toEqual([
      'came',
      ...Array.from({ length: 6 }, () => 'adjust'),
      'find',
    ])
    const readings = before('alke-lower').flatMap((b) => b.readings)
    expect(verbs.filter((v) => v === 'measure')).toHaveLength(readings.length)
  })
})
