import { copyFileSync, existsSync, mkdirSync, readFileSync, truncateSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { loadCopy } from '../../src/copies/load.ts'
import { openCopy } from '../../src/copies/read-copy.ts'
import { proveCopy } from '../../src/copies/prove.ts'
import { writeCopy } from '../../src/copies/write-copy.ts'
import { checkShop } from '../../src/data/check-shop.ts'
import type { Database } from '../../src/db/database.ts'
import { openMemory } from '../../src/db/pglite.ts'
import { databaseFiles, openFileStore, type FileStore } from '../../src/files/file-store.ts'
import { itOn, itOnOne, walkedHere } from '../databases.ts'
import { emptyOn, NOW, onPostgres, schema, scratch, testApp } from '../test-app.ts'
import { readZip, writeZip } from '../zips.ts'

const PIXEL = Buffer.from(
  'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
  'base64',
)

/** Every row of every table, read without anything that copies use; but for the name of the history, which is another one on purpose, and for what is made anew out of the others. */
async function everything(db: Database): Promise<Record<string, string[]>> {
  const tables = await db.query<{ name: string }>(
    `select tablename::text as name from pg_tables where schemaname = current_schema() and tablename not in ('file_content', 'schema_function', 'search_line', 'search_state') order by 1`,
  )
  const all: Record<string, string[]> = {}
  for (const { name } of tables) {
    const rows = await db.query<{ row: string }>(
      `select to_jsonb(t)::text as row from "${name}" t ${name === 'setting' ? "where key <> 'epoch'" : ''}`,
    )
    all[name] = rows.map((r) => r.row).sort()
  }
  return all
}

/** A demo with a picture in it, and a copy of that. */
async function copied() {
  const app = await testApp()
  const response = await app.request('/api/jobs/lomvi-skarv/files?subject=job&of=', {
    method: 'POST',
    headers: { 'x-moray-person': 'ylva', 'x-moray-request': crypto.randomUUID() },
    body: PIXEL,
  })
  expect(response.status).toBe(201)
  const file = join(scratch('copy'), 'shop.zip')
  const manifest = await writeCopy(
    { db: app.db, files: app.deps.files, mark: undefined, moray: schema.moray, at: NOW },
    file,
  )
  return { app, file, manifest }
}

/** Brings a copy back, and says what the shop's own check finds. */
async function broughtBack(file: string, db: Database, files: FileStore) {
  const copy = await openCopy(file)
  const epoch = await loadCopy(db, files, copy, schema, NOW, { proving: false })
  const { anchor } = copy.manifest
  copy.close()
  const { broken } = await checkShop(db, files, {
    functions: schema.functions,
    ...(anchor ? { anchor } : {}),
  })
  return { epoch, broken }
}

// the one with a PostgreSQL server goes into an embedded database and back too
describe.runIf(walkedHere())('a shop that is brought back', () => {
  it('equals its source row by row and picture by picture, and in the other kind of database too; its history has another name', async () => {
    const { app, file, manifest } = await copied()
    const source = await everything(app.db)
    expect(manifest.pictures.count).toBe(1)
    // into an embedded database, from there on to a server where there is one, and back
    const inside = await emptyOn('PGlite')
    const files = openFileStore(scratch('pictures'))
    const { epoch, broken } = await broughtBack(file, inside, files)
    expect(broken).toEqual([])
    expect(await everything(inside)).toEqual(source)
    const [was] = await app.db.query<{ value: string }>("select value from setting where key = 'epoch'")
    expect(epoch).not.toBe(was!.value)
    const [{ hash }] = (await inside.query('select hash from file')) as [{ hash: string }]
    expect(await files.get(inside, hash)).toBeInstanceOf(Uint8Array)
    if (!onPostgres()) return
    const second = join(scratch('copy'), 'second.zip')
    await writeCopy({ db: inside, files, mark: undefined, moray: schema.moray, at: NOW }, second)
    const server = await emptyOn('PostgreSQL')
    expect((await broughtBack(second, server, databaseFiles)).broken).toEqual([])
    expect(await everything(server)).toEqual(source)
    expect(await databaseFiles.get(server, hash)).toBeInstanceOf(Uint8Array)
    await server.close()
    await inside.close()
  }, 60_000)
  it('goes on with its numbers where they stood: nothing is given out twice', async () => {
    const { file } = await copied()
    const db = await emptyOn(onPostgres() ? 'PostgreSQL' : 'PGlite')
    await broughtBack(file, db, openFileStore(scratch('pictures')))
    const after = await testApp({ db })
    const reading = { build: 0, measure: 'backlash-forward', text: '.62', unit: 'mm', gaugeId: 'g05' }
    expect((await after.post('/api/jobs/lomvi-skarv/readings', reading)).status).toBe(201)
    const [events] = await db.query<{ n: number; last: number }>(
      'select count(*)::int as n, max(id)::int as last from event',
    )
    expect(events!.n).toBe(events!.last)
    await db.close()
  })
  it('is not there at all when something goes wrong on the way', async () => {
    const { file } = await copied()
    const db = await emptyOn(onPostgres() ? 'PostgreSQL' : 'PGlite')
    const broken: FileStore = {
      ...databaseFiles,
      put: () => Promise.reject(Object.assign(new Error('no space left'), { code: 'ENOSPC' })),
    }
    const copy = await openCopy(file)
    await expect(loadCopy(db, broken, copy, schema, NOW, { proving: false })).rejects.toMatchObject({
      code: 'ENOSPC',
    })
    copy.close()
    expect(await db.query('select 1 from pg_tables where schemaname = current_schema() limit 1')).toEqual([])
    await db.close()
  })
  itOn('PostgreSQL')('shows one moment while four clients write', async () => {
    const app = await testApp()
    let writing = true
    let acknowledged = 0
    const client = async (n: number) => {
      while (writing)
        if ((await app.post(`/api/drawer/s00${n}/add`, { pieces: 1 })).status === 201) acknowledged++
    }
    const clients = [1, 2, 3, 4].map(client)
    while (acknowledged < 20) await new Promise((r) => setTimeout(r, 5))
    const before = acknowledged
    const file = join(scratch('copy'), 'amid.zip')
    const { anchor } = await writeCopy(
      { db: app.db, files: app.deps.files, mark: undefined, moray: schema.moray, at: NOW },
      file,
    )
    const after = acknowledged
    writing = false
    await Promise.all(clients)
    expect(after).toBeGreaterThan(before)
    const db = await emptyOn('PGlite')
    // the check adds the stock up against its movements, and every row against its seal
    expect((await broughtBack(file, db, openFileStore(scratch('pictures')))).broken).toEqual([])
    const events = 'select id, digest from event where id <= $1 order by id'
    expect(await db.query(events, [anchor!.event])).toEqual(await app.db.query(events, [anchor!.event]))
    await db.close()
  })
})

// what a zip is looked at for has nothing to do with the database
describe.runIf(walkedHere())('a copy that is no good', () => {
  let good: string
  let entries: Map<string, Buffer>
  /** Stays empty through all of it. */
  let empty: Database
  beforeAll(async () => {
    good = (await copied()).file
    entries = await readZip(good)
    empty = await openMemory()
  }, 60_000)
  afterAll(() => empty.close())

  const replaced = (name: string, content: string | Buffer) =>
    [...entries].map(([n, c]): [string, Buffer] => [n, n === name ? Buffer.from(content) : c])
  const manifest = () => JSON.parse(entries.get('manifest.json')!.toString()) as Record<string, unknown>
  const picture = () => [...entries.keys()].find((n) => n.startsWith('pictures/'))!
  const readings = () => entries.get('tables/reading.jsonl')!.toString()

  const bad: [string, () => Iterable<[string, Buffer]>, RegExp][] = [
    [
      'a row that was altered',
      () => replaced('tables/reading.jsonl', readings().replace('"raw":', '"raw":1')),
      /tables\/reading\.jsonl was altered/,
    ],
    [
      'a row that was taken out',
      () => replaced('tables/reading.jsonl', readings().split('\n').slice(1).join('\n')),
      /tables\/reading\.jsonl was altered/,
    ],
    [
      'a row that is no row',
      () => replaced('tables/reading.jsonl', `{"id":"x"}\n`),
      /tables\/reading\.jsonl was altered/,
    ],
    [
      'a table cut off amid a row',
      () => replaced('tables/reading.jsonl', readings().slice(0, -20)),
      /tables\/reading\.jsonl was cut off/,
    ],
    [
      'a table that is missing',
      () => [...entries].filter(([n]) => n !== 'tables/reading.jsonl'),
      /tables\/reading\.jsonl is missing/,
    ],
    [
      'a table that was put in',
      () => [...entries, ['tables/more.jsonl', Buffer.from('{}\n')]],
      /tables\/more\.jsonl was put in/,
    ],
    [
      'a picture that was altered',
      () => replaced(picture(), 'another'),
      /pictures\/[0-9a-f]{64} was altered/,
    ],
    ['a picture that is missing', () => [...entries].filter(([n]) => n !== picture()), /holds 0 pictures/],
    ['no manifest', () => [...entries].filter(([n]) => n !== 'manifest.json'), /has no manifest\.json/],
    ['a manifest that is none', () => replaced('manifest.json', '{'), /manifest\.json is damaged/],
    [
      'half a manifest',
      () => replaced('manifest.json', JSON.stringify({ ...manifest(), tables: { job: {} } })),
      /manifest\.json is damaged/,
    ],
    [
      'a newer Moray',
      () => replaced('manifest.json', JSON.stringify({ ...manifest(), schema: 999, moray: '0.999.0' })),
      /bring it back with version 0\.999\.0/,
    ],
    [
      'another layout',
      () => replaced('manifest.json', JSON.stringify({ ...manifest(), layout: 7, moray: '9.0.0' })),
      /written by Moray 9\.0\.0/,
    ],
    [
      'the same file twice',
      () => [...entries, ['manifest.json', entries.get('manifest.json')!]],
      /holds "manifest\.json" twice/,
    ],
    ['a file of another name', () => [...entries, ['readme.txt', Buffer.from('x')]], /holds "readme\.txt"/],
    [
      'a text that unpacks to far more',
      () => [...entries, ['tables/zeros.jsonl', Buffer.alloc(8_000_000)]],
      /unpacks to 8000000 bytes/,
    ],
  ]
  it.each(bad)('%s is said by name, and nothing is brought back', async (name, changed, said) => {
    const file = join(scratch('bad'), 'bad.zip')
    await writeZip(file, changed())
    const files = openFileStore(scratch('pictures'))
    const attempt = async () => {
      const copy = await openCopy(file)
      try {
        await loadCopy(empty, files, copy, schema, NOW, { proving: false })
      } finally {
        copy.close()
      }
    }
    await expect(attempt(), name).rejects.toThrow(said)
    expect(await empty.query("select 1 from pg_tables where schemaname = 'public' limit 1")).toEqual([])
  })
  it('names that lead out of it are refused', async () => {
    const file = join(scratch('bad'), 'bad.zip')
    // the library that writes zips refuses such a name itself: it is put in by hand, at the same length
    await writeZip(file, [...entries, ['tables/aaaaaaaaaa.jsonl', Buffer.from('{}\n')]])
    const bytes = readFileSync(file)
    const text = bytes.toString('latin1').replaceAll('tables/aaaaaaaaaa.jsonl', '../../../../../etc/pass')
    writeFileSync(file, Buffer.from(text, 'latin1'))
    await expect(openCopy(file)).rejects.toThrow(/relative path/)
  })
  it.each([0, 0.3, 0.999])('cut off after %f of it', async (part) => {
    const file = join(scratch('bad'), 'cut.zip')
    copyFileSync(good, file)
    truncateSync(file, Math.floor(readFileSync(good).byteLength * part))
    await expect(openCopy(file)).rejects.toThrow(/was cut off/)
  })
  it('one byte that is another one is found by the proof', async () => {
    const file = join(scratch('bad'), 'byte.zip')
    const bytes = readFileSync(good)
    // amid the packed rows of the events
    const at = bytes.indexOf('tables/event.jsonl') + 400
    bytes[at] = bytes[at]! ^ 0x40
    writeFileSync(file, bytes)
    const place = join(scratch('proof'), 'p')
    mkdirSync(place)
    await expect(proveCopy(file, schema, place, NOW)).rejects.toThrow(
      /tables\/event\.jsonl (is damaged|was altered)/,
    )
  })
})

describe('the proof of a copy', () => {
  itOnOne()(
    'brings it back, reads every row again, and finds what was broken in the shop already',
    async () => {
      const { app } = await copied()
      await app.db.script(
        "alter table reading disable trigger user; update reading set text = '.99' where id = 1; alter table reading enable trigger user",
      )
      const file = join(scratch('copy'), 'broken.zip')
      await writeCopy(
        { db: app.db, files: app.deps.files, mark: undefined, moray: schema.moray, at: NOW },
        file,
      )
      const place = scratch('proof')
      const { manifest, broken } = await proveCopy(file, schema, place, NOW)
      expect(manifest.jobs).toBe(12)
      expect(broken).toEqual([expect.stringContaining('reading 1: is not what was sealed')])
      expect(existsSync(join(place, 'pg'))).toBe(true)
    },
    60_000,
  )
})
