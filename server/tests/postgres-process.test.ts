import { existsSync } from 'node:fs'
import { join } from 'node:path'
import type { DrawerLine, DrawerMovement, JobReply } from '@moray/contract/replies'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openPostgres } from '../src/db/postgres.ts'
import { postgresPrograms, startCluster, type Cluster } from './postgres-cluster.ts'
import { get, launch, post, scratch, SLOW_MS, start, useProcesses, type Server } from './server-process.ts'
useProcesses()

const programs = postgresPrograms()
let cluster: Cluster | undefined
beforeAll(() => {
  if (programs) cluster = startCluster(programs, { durable: true })
}, SLOW_MS)
afterAll(() => cluster?.stop())

let shops = 0
/** An address of a database of its own. */
async function newShop(): Promise<string> {
  const name = `shop${++shops}`
  const admin = await openPostgres(cluster!.url('postgres'), () => {})
  await admin.script(`create database ${name}`)
  await admin.close()
  return cluster!.url(name)
}
const folderOf = (name: string) => join(scratch, name)

/** Writes at a server, one entry after the other and each again under its id until it is answered, until told to stop. */
function writers(server: Server, count: number) {
  let going = true
  const acknowledged: string[] = []
  const statuses = new Set<number>()
  const one = async (writer: number) => {
    for (let n = 0; going; n++) {
      const reason = `w${writer}-${n}`
      const id = `${reason}-`.padEnd(12, 'x')
      for (;;) {
        const r = await post(
          server.url,
          '/api/drawer/s001/add',
          { pieces: 1, reason },
          { 'x-moray-request': id },
        ).catch(() => undefined)
        if (r) statuses.add(r.status)
        if (r?.status === 201) {
          acknowledged.push(reason)
          break
        }
        if (!going) break
        await new Promise((done) => setTimeout(done, 50))
      }
    }
  }
  const all = Promise.all(Array.from({ length: count }, (_, i) => one(i)))
  return {
    acknowledged,
    statuses,
    /** Comes back once so many more were acknowledged. */
    async more(n: number) {
      const wanted = acknowledged.length + n
      while (acknowledged.length < wanted) await new Promise((done) => setTimeout(done, 20))
    },
    async stop() {
      going = false
      await all
    },
  }
}

describe.runIf(programs)('a PostgreSQL server that goes away', () => {
  it(
    'is answered for with words, and Moray goes on by itself: connections ended under load, the server stopped and started again',
    async () => {
      const url = await newShop()
      const server = await start(folderOf('pg-away'), { DATABASE_URL: url, MORAY_DEMO: 'on' })
      const before = (await get<DrawerLine[]>(server.url, '/api/drawer')).find((l) => l.id === 's001')!.count
      const load = writers(server, 4)
      await load.more(5)
      const admin = await openPostgres(url, () => {})
      for (let i = 0; i < 3; i++) {
        await admin.query(
          'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
        )
        await load.more(3)
      }
      await admin.close()
      for (const mode of ['immediate', 'fast'] as const) {
        cluster!.halt(mode)
        const refused = await post(server.url, '/api/drawer/s001/add', { pieces: 1, reason: 'while away' })
        expect(refused.status).toBe(503)
        const { error } = (await refused.json()) as { error: { code: string; message: string } }
        expect(['no-database', 'not-known']).toContain(error.code)
        expect(error.message).toMatch(/Send it again/)
        cluster!.resume()
        await load.more(4)
      }
      await load.stop()
      // nothing but success and words that it is away
      expect([...load.statuses].filter((s) => s !== 201 && s !== 503)).toEqual([])
      const line = (await get<DrawerLine[]>(server.url, '/api/drawer')).find((l) => l.id === 's001')!
      const book = await get<DrawerMovement[]>(server.url, '/api/drawer/s001/movements')
      const written = book.filter((m) => /^w\d-/.test(m.reason)).map((m) => m.reason)
      expect(new Set(written).size).toBe(written.length)
      for (const reason of load.acknowledged.slice(-100)) expect(written).toContain(reason)
      expect(line.count - before).toBeGreaterThanOrEqual(load.acknowledged.length)
      // the line for events stands again, too
      expect(await get(server.url, '/api/health')).toMatchObject({ ok: true })
      expect(await server.stop('SIGTERM')).toBe(0)
    },
    SLOW_MS,
  )
})

describe.runIf(programs)('two servers on one database, as README has it', () => {
  it(
    'start where no folder is yet, with folders of their own, and each shows the pictures of the other',
    async () => {
      const url = await newShop()
      const [a, b] = [folderOf('server-a'), folderOf('server-b')]
      expect([existsSync(a), existsSync(b)]).toEqual([false, false])
      const first = await start(a, { DATABASE_URL: url, MORAY_DEMO: 'on' })
      const second = await start(b, { DATABASE_URL: url })
      const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#456' } })
        .png()
        .toBuffer()
      const kept = await fetch(`${first.url}/api/jobs/lomvi-skarv/files?subject=job`, {
        method: 'POST',
        headers: { 'x-moray-person': 'ylva', 'content-type': 'application/octet-stream' },
        body: png as BodyInit,
      })
      expect(kept.status).toBe(201)
      const { hash } = ((await kept.json()) as JobReply).attachments.at(-1)!
      const shown = await fetch(`${second.url}/api/files/${hash}`)
      expect(shown.status).toBe(200)
      expect(await sharp(Buffer.from(await shown.arrayBuffer())).metadata()).toMatchObject({ width: 30 })
      // what one writes, the other reads
      await post(second.url, '/api/drawer/s001/add', { pieces: 1 })
      const counts = await Promise.all(
        [first, second].map(
          async (s) => (await get<DrawerLine[]>(s.url, '/api/drawer')).find((l) => l.id === 's001')!.count,
        ),
      )
      expect(counts[0]).toBe(counts[1])
      await first.stop('SIGTERM')
      await second.stop('SIGTERM')
      for (const folder of [a, b]) {
        const { said, ended } = launch(folder, { DATABASE_URL: url }, 'check')
        expect([await ended, said()]).toEqual([0, expect.stringContaining('All is well.')])
      }
    },
    SLOW_MS,
  )
  it(
    'take a schema and other options out of the address, and count time in UTC all the same',
    async () => {
      const url = await newShop()
      const admin = await openPostgres(url, () => {})
      await admin.script('create schema other_shop')
      await admin.close()
      const [, folder, name] = /@([^?]+)\?db=(.*)$/.exec(url)!
      const options = encodeURIComponent('-c search_path=other_shop -c timezone=Asia/Tokyo')
      const address = `postgresql://postgres@localhost/${name}?options=${options}&host=${folder}`
      const db = await openPostgres(address, () => {})
      const [row] = await db.query<{ schema: string; zone: string }>(
        "select current_schema() as schema, current_setting('timezone') as zone",
      )
      expect(row).toEqual({ schema: 'other_shop', zone: 'UTC' })
      await db.close()
    },
    SLOW_MS,
  )
})
