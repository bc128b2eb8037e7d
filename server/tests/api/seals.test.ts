import type { JobReply } from '@moray/contract/replies'
import { beforeEach, describe, expect, it } from 'vitest'
import { checkShop } from '../../src/data/check-shop.ts'
import type { Anchor } from '../../src/data/mark.ts'
import { migrate } from '../../src/db/migrate.ts'
import { openMemory } from '../../src/db/pglite.ts'
import { beginShop } from '../../src/shop/begin.ts'
import { itOn } from '../databases.ts'
import { schema, NOW, testApp, type TestApp } from '../test-app.ts'

let app: TestApp
let anchor: Anchor
beforeEach(async () => {
  app = await testApp()
  for (const finding of ['metal', 'vibration', 'chatter'])
    expect((await app.post('/api/jobs/rordrum/findings', { finding, state: 'there' })).status).toBe(201)
  anchor = await newest()
})
/** What the folder of the shop would have written down by now. */
async function newest(): Promise<Anchor> {
  const [row] = await app.db.query<{ id: number; digest: string }>(
    'select id, digest from event order by id desc limit 1',
  )
  return { event: row!.id, seal: row!.digest, at: '2026-11-30T08:00:00.000Z' }
}
const check = async (withAnchor = true) =>
  (
    await checkShop(app.db, app.deps.files, {
      functions: schema.functions,
      ...(withAnchor ? { anchor } : {}),
    })
  ).broken
/** As somebody with the database in his hands does it: without the triggers that would not let him. */
const underneath = (table: string, sql: string) =>
  app.db.script(`alter table ${table} disable trigger user; ${sql}; alter table ${table} enable trigger user`)

describe('the check of a whole shop', () => {
  it('finds nothing in the demo, nor after everything that is written in the usual way', async () => {
    expect(await check()).toEqual([])
    await app.post('/api/drawer/s001/add', { pieces: 1 })
    await app.post('/api/people/joar/code', { code: '1234' }, { 'x-moray-person': 'runa' })
    await app.post('/api/jobs/rordrum/life', { act: 'hold', reason: 'parts are late' })
    await app.post('/api/jobs/rordrum/figures', { path: 'oilCapacityMl', text: '600', source: 'manual' })
    await app.post('/api/drives', { name: 'Kobbe 40', family: 'outboard-fnr' })
    await app.post('/api/drives/kobbe-40/versions', {})
    await app.post<JobReply>('/api/jobs', {
      sheetId: 'kobbe-40',
      serial: 'K',
      boat: 'B',
      owner: 'O',
      water: 'salt',
      complaint: 'whine',
    })
    anchor = await newest()
    expect(await check()).toEqual([])
  })

  const changed: [string, string, string, RegExp][] = [
    [
      'a reading changed',
      'reading',
      'update reading set value = value + 0.1 where id = 3',
      /^reading 3: .*changed/,
    ],
    [
      'a reading deleted',
      'reading',
      'delete from reading where id = (select max(id) from reading)',
      /^reading \d+: is missing/,
    ],
    [
      'a reading given to another person',
      'reading',
      "update reading set by_person = 'runa' where id = 3",
      /^reading 3: .*changed/,
    ],
    [
      'two readings swapped',
      'reading',
      'update reading r set value = o.value, raw = o.raw, text = o.text from reading o where (r.id, o.id) in ((3, 4), (4, 3)) and r.value <> o.value',
      /^reading [34]: .*changed/,
    ],
    [
      'a reading put in',
      'reading',
      'insert into reading (build_id, measure, raw, value, text, unit, gauge_id, gauge_overdue, resolution, mpe, repeatability, by_person, at) select build_id, measure, raw, value, text, unit, gauge_id, gauge_overdue, resolution, mpe, repeatability, by_person, at from reading limit 1',
      /^reading \d+: has no seal/,
    ],
    [
      'answers of a step',
      'step_done',
      `update step_done set answers = '{"x":1}' where id = 2`,
      /^step_done 2: .*changed/,
    ],
    [
      'thickness of a piece',
      'stack_piece',
      'update stack_piece set thickness_mm = thickness_mm + 0.01 where id = 1',
      /^stack_piece 1: .*changed/,
    ],
    ['a stack', 'stack', "update stack set location = 'elsewhere' where id = 1", /^stack 1: .*changed/],
    [
      'a grade',
      'grade',
      "update grade set grade = 'keep', reason = 'all is well' where id = 1",
      /^grade 1: .*changed/,
    ],
    ['an approval', 'approval', "update approval set customer = 'Somebody else'", /^approval \d+: .*changed/],
    [
      'the body of a sheet',
      'drive_sheet',
      `update drive_sheet set body = jsonb_set(body, '{summary}', '"another"') where id = 'lomvi-90'`,
      /^drive_sheet lomvi-90 \d+: .*changed/,
    ],
    [
      'the serial number of a job',
      'job',
      "update job set serial = 'X' where id = 'rordrum'",
      /^job rordrum: .*changed/,
    ],
    ['a role', 'person', "update person set role = 'lead' where id = 'joar'", /^person joar: .*changed/],
    [
      'a rule of the shop',
      'setting',
      `update setting set value = '{}' where key = 'rules'`,
      /^setting rules: .*changed/,
    ],
    ['a gauge', 'gauge', "update gauge set mpe = 0 where id = 'g01'", /^gauge g01: .*changed/],
    [
      'movement and stock together',
      'shim_movement',
      'update shim_movement set delta = delta + 5 where id = 1; update shim_line set count = count + 5 where id = (select line_id from shim_movement where id = 1)',
      /^shim_movement 1: .*changed/,
    ],
    [
      'a finding deleted',
      'job_finding',
      'delete from job_finding where id = (select max(id) from job_finding)',
      /^job_finding \d+: is missing/,
    ],
    [
      'a seal of a row',
      'row_seal',
      "update row_seal set digest = repeat('0', 64) where event_id = (select max(event_id) from row_seal)",
      /the seals of its rows were changed/,
    ],
    [
      'an event changed',
      'event',
      "update event set at = at - interval '1 day' where id = 40",
      /^event 40: its seal does not fit/,
    ],
    [
      'an event in the middle deleted',
      'event',
      'delete from event where id = 40',
      /^events: 1 of \d+ are missing/,
    ],
    [
      'two events swapped',
      'event',
      'update event e set data = o.data, subject = o.subject from event o where (e.id, o.id) in ((40, 41), (41, 40))',
      /^event 4[01]: its seal does not fit/,
    ],
    [
      'the last event cut off',
      'event',
      'delete from event where id = (select max(id) from event)',
      /is missing, which was written down/,
    ],
    [
      'the last hundred cut off',
      'event',
      'delete from event where id > (select max(id) - 100 from event)',
      /is missing, which was written down/,
    ],
  ]
  it.each(changed)('notices %s', async (_, table, sql, says) => {
    await underneath(table, sql)
    expect((await check()).join('\n')).toMatch(new RegExp(says.source, 'm'))
  })
  it('notices an attachment that was deleted', async () => {
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    )
    const kept = await app.request('/api/jobs/rordrum/files?subject=step&of=drain', {
      method: 'POST',
      headers: { 'x-moray-person': 'ylva', 'content-type': 'application/octet-stream' },
      body: png,
    })
    expect(kept.status).toBe(201)
    anchor = await newest()
    expect(await check()).toEqual([])
    await underneath('attachment', 'delete from attachment')
    expect((await check()).join()).toMatch(/attachment \d+: is missing/)
  })
  it('notices that all seals were made anew with the database’s own function', async () => {
    await app.db.script(`alter table event disable trigger user; do $$
      declare e event%rowtype; prior text := '';
      begin
        update event set at = at - interval '1 day' where id = 40;
        for e in select * from event order by id loop
          prior := event_digest(prior, e);
          update event set digest = prior where id = e.id;
        end loop;
      end $$; alter table event enable trigger user`)
    expect(await check(false)).toEqual([])
    expect((await check()).join()).toContain('the history was rewritten')
  })
  it('notices an event that was put in through the trigger with an old date', async () => {
    await app.db.query(
      "insert into event (at, by_person, kind, job_id, subject, data) values ($1, 'ylva', 'note', 'rordrum', 'note', '{\"text\":\"I said so\"}')",
      [new Date(NOW.getTime() - 30 * 86_400_000)],
    )
    expect((await check()).join()).toMatch(/is dated \d+ h before the one before it/)
  })
  it.each([
    ['dropped', 'drop trigger reading_stays on reading'],
    ['switched off', 'alter table reading disable trigger reading_stays'],
    ['dropped that seals', 'drop trigger grade_sealed on grade'],
    ['dropped for a whole table', 'drop trigger event_whole on event'],
  ])('notices a trigger that was %s', async (_, sql) => {
    const made = await app.db.query<{ sql: string }>(
      "select pg_get_triggerdef(oid) as sql from pg_trigger where tgname in ('reading_stays', 'grade_sealed', 'event_whole')",
    )
    await app.db.script(sql)
    expect((await check()).join()).toMatch(/triggers that keep evidence as it is are missing or switched off/)
    // the next test begins with the same tables
    for (const name of ['reading_stays on reading', 'grade_sealed on grade', 'event_whole on event'])
      await app.db.script(`drop trigger if exists ${name}`)
    for (const { sql: again } of made) await app.db.script(again)
    expect(await check()).toEqual([])
  })
  it('notices a function that seals no more', async () => {
    const [before] = await app.db.query<{ sql: string }>(
      "select pg_get_functiondef('seal_row'::regproc) as sql",
    )
    await app.db.script(
      "create or replace function seal_row() returns trigger language plpgsql as 'begin return null; end'",
    )
    expect((await check()).join()).toContain("function seal_row of the database is not Moray's own")
    await app.db.script(before!.sql)
    expect(await check()).toEqual([])
  })
  itOn('PGlite')('of before there were seals begins with a shop that is sealed as it stands', async () => {
    const db = await openMemory()
    // as a Moray of before left it: its tables, its demo-like rows
    await migrate(db, { migrations: schema.migrations.slice(0, 15), functions: [], moray: '0.15.0' }, NOW)
    await db.script(`insert into person (id, name, role) values ('runa', 'Runa', 'lead');
      insert into drive (id) values ('d'); insert into drive_sheet (id, version, edition, body) values ('d', 1, 1, '{"name":"D","family":"belt-lower"}');
      insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, state, stage, complaint, opened_at, touched_at)
        values ('j', '26-001', 'd', 1, 's', 'b', 'o', 'salt', 'received', 'receive', 'c', now(), now());
      insert into event (at, by_person, kind, job_id, subject, data) values (now(), 'runa', 'opened', 'j', 'job:j', '{}')`)
    await migrate(db, schema, NOW)
    const broken = async () => (await checkShop(db, app.deps.files, schema)).broken
    expect(await broken()).toEqual([])
    await beginShop(db, NOW, { demo: false, shop: crypto.randomUUID() })
    expect(await broken()).toEqual([])
    await db.script(
      "alter table job disable trigger user; update job set boat = 'another'; alter table job enable trigger user",
    )
    expect(await broken()).toEqual([expect.stringContaining('job j: is not what was sealed')])
    await db.close()
  })
})
