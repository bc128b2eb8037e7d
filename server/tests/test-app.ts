import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { PERSON_HEADER, REQUEST_HEADER } from '@moray/contract/routes'
import type { ErrorBody } from '@moray/contract/errors'
import { createApp } from '../src/app.ts'
import type { Database } from '../src/db/database.ts'
import { readMigrations } from '../src/db/migrate.ts'
import { openPglite } from '../src/db/pglite.ts'
import { openFileStore } from '../src/files/file-store.ts'
import { Live } from '../src/live/live.ts'
import { inject } from 'vitest'
import { NOW } from './now.ts'

export { NOW }

export const migrations = readMigrations(resolve(import.meta.dirname, '../migrations'))

let shared: Promise<Database> | undefined

/** The demo workshop as prepare-demo.ts left it, in memory, once for each test file. */
const demoDatabase = () => openPglite(undefined, new Blob([readFileSync(inject('demoDump'))]))

/** Empties every table and fills it from the copy; identity columns go on where the demo left them. */
async function freshDatabase(): Promise<Database> {
  shared ??= demoDatabase()
  const db = await shared
  await db.script(`
    set session_replication_role = replica;
    do $$ declare t text; identity text; begin
      execute (select 'truncate ' || string_agg(format('public.%I', tablename), ', ') from pg_tables where schemaname = 'public');
      for t in select tablename from pg_tables where schemaname = 'public' loop
        execute format('insert into public.%I overriding system value select * from demo.%I', t, t);
        if exists (select 1 from information_schema.columns where table_schema = 'public' and table_name = t and is_identity = 'YES') then
          identity := pg_get_serial_sequence('public.' || t, 'id');
          execute format('select setval(%L, (select coalesce(max(id), 0) + 1 from public.%I), false)', identity, t);
        end if;
      end loop;
    end $$;
    set session_replication_role = origin`)
  return db
}

export interface TestApp {
  db: Database
  live: Live
  logged: string[]
  get: <T>(path: string) => Promise<T>
  post: <T>(
    path: string,
    body: unknown,
    headers?: Record<string, string>,
  ) => Promise<{ status: number; body: T & ErrorBody }>
  request: (path: string, init?: RequestInit) => Promise<Response>
}

/** The whole HTTP side on a fresh demo, without a socket. `wrap` may put a faulty database in between. */
export async function testApp(wrap: (db: Database) => Database = (db) => db): Promise<TestApp> {
  const db = wrap(await freshDatabase())
  const live = new Live()
  const logged: string[] = []
  const app = createApp(
    {
      db,
      live,
      files: openFileStore(mkdtempSync(join(tmpdir(), 'moray-files-'))),
      now: () => NOW,
      log: (m) => logged.push(m),
    },
    { webFolder: resolve(import.meta.dirname, 'no-pages') },
  )
  const request = (path: string, init: RequestInit = {}) =>
    Promise.resolve(
      app.request(path, { ...init, headers: { host: '127.0.0.1:4747', ...(init.headers as object) } }),
    )
  return {
    db,
    live,
    logged,
    request,
    async get(path) {
      const response = await request(path)
      if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
      return response.json()
    },
    async post(path, body, headers = {}) {
      const response = await request(path, {
        method: 'POST',
        headers: {
          'content-type': 'application/json',
          [PERSON_HEADER]: 'ylva',
          [REQUEST_HEADER]: crypto.randomUUID(),
          ...headers,
        },
        body: typeof body === 'string' ? body : JSON.stringify(body),
      })
      return { status: response.status, body: await response.json() }
    },
  }
}
