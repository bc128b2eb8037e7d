import { mkdtempSync, readFileSync } from 'node:fs'
import { join, resolve } from 'node:path'
import type { Copies } from '@moray/contract/copies'
import { PERSON_HEADER, REQUEST_HEADER } from '@moray/contract/endpoints'
import type { ErrorBody } from '@moray/contract/errors'
import type { DrawerLine, EventEntry, JobReply, Shop } from '@moray/contract/replies'
import { calculate } from '@moray/contract/calculations/registry'
import { eventText } from '@moray/core/job/event-text'
import { availablePieces, type AvailablePiece } from '@moray/core/job/pieces'
import { waitsText } from '@moray/core/job/standing-text'
import type { Waits } from '@moray/core/job/waits'
import { judged, type JudgedJob } from '@moray/core/job/judged'
import { inject } from 'vitest'
import { createApp, type AppOptions } from '../src/app.ts'
import { checkBody } from '../src/calc/check-body.ts'
import { readJson } from '../src/http/body.ts'
import type { CalcPool } from '../src/calc/pool.ts'
import type { CopyKeeper } from '../src/copies/keeper.ts'
import type { Database } from '../src/db/database.ts'
import { readSchema } from '../src/db/migrate.ts'
import { openMemory } from '../src/db/pglite.ts'
import { openPostgres } from '../src/db/postgres.ts'
import type { Deps } from '../src/deps.ts'
import { SheetShelf } from '../src/drives/sheets.ts'
import { RecordShelf } from '../src/job/record-shelf.ts'
import { jobSchemaOf } from '../src/exchange/read-job-zip.ts'
import { databaseFiles, openFileStore, type FileStore } from '../src/files/file-store.ts'
import { Live } from '../src/live/live.ts'
import { onPostgres, type Kind } from './databases.ts'
import { NOW } from './now.ts'
import { goBack, nextWrite } from './reset.ts'

export { NOW, onPostgres }

export const schema = readSchema(resolve(import.meta.dirname, '..'))

/** Followers of the database that the last app had. */
const unfollow: (() => Promise<void>)[] = []

/** One for all files that a worker runs: each app begins with the demo as it was prepared, whatever was done before. It ends with its worker. */
let shared: Promise<Database> | undefined
/** Address of the database of this worker, on a PostgreSQL server. */
let address = ''

async function demoDatabase(): Promise<Database> {
  if (!onPostgres()) return openMemory(new Blob([readFileSync(inject('demoFile'))]))
  const name = `t_${crypto.randomUUID().slice(0, 8)}`
  const admin = await openPostgres(`${inject('postgres')}postgres`, () => {})
  await admin.script(`create database ${name} template demo`)
  await admin.close()
  address = `${inject('postgres')}${name}`
  return openPostgres(address, () => {})
}

/** The next transaction that writes, as it was when the demo had just been put back. */
let untouched = ''

/** The demo as it was prepared; what an earlier test did is gone. */
export async function freshDatabase(): Promise<Database> {
  const db = await (shared ??= demoDatabase())
  for (const end of unfollow.splice(0)) await end()
  if ((await nextWrite(db)) !== untouched) {
    await goBack(db)
    untouched = await nextWrite(db)
  }
  return db
}

/** An empty database of a kind; PostgreSQL only where there is a server. */
export async function emptyOn(kind: Kind): Promise<Database> {
  if (kind === 'PGlite') return openMemory()
  const name = `e_${crypto.randomUUID().slice(0, 8)}`
  const admin = await openPostgres(`${inject('postgres')}postgres`, () => {})
  await admin.script(`create database ${name}`)
  await admin.close()
  return openPostgres(`${inject('postgres')}${name}`, () => {})
}

/** A second connection to the database of this file, as another server would have it. */
export const otherServer = (): Promise<Database> => openPostgres(address, () => {})

export interface TestApp {
  db: Database
  deps: Deps
  live: Live
  logged: string[]
  get: <T>(path: string) => Promise<T>
  post: <T>(
    path: string,
    body: unknown,
    headers?: Record<string, string>,
  ) => Promise<{ status: number; body: T & ErrorBody }>
  request: (path: string, init?: RequestInit) => Promise<Response>
  /** A change of a job, answered with the job judged (or with the error). */
  change: (
    path: string,
    body: unknown,
    headers?: Record<string, string>,
  ) => Promise<{ status: number; body: JudgedJob & ErrorBody }>
  /** A job as a page shows it: its record, judged. */
  job: (id: string) => Promise<JudgedJob>
  /** What the job can build with. */
  pieces: (job: JudgedJob) => Promise<AvailablePiece[]>
  /** Its history, as kinds and as sentences. */
  events: (id: string) => Promise<{ kind: string; text: string }[]>
  /** The same of a reply. */
  judge: (reply: JobReply) => Promise<JudgedJob>
}

/** What this worker writes lies beside the demo, and goes with it when all tests are over: a worker may be ended without a word. */
const SCRATCH = mkdtempSync(join(inject('folder'), 'worker-'))
/** A folder of a test's own. */
export const scratch = (name: string) => mkdtempSync(join(SCRATCH, `${name}-`))
/** There are no pages here; an empty folder, so that the server does not complain of each app that it has none. */
const NO_PAGES = scratch('no-pages')

const jobSchema = () => jobSchemaOf(resolve(import.meta.dirname, '..'))

/** Calculations in the test's own thread. */
const calcHere: CalcPool = {
  run: (name, text) => Promise.resolve().then(() => JSON.stringify(calculate(name, readJson(text)))),
  check: (path, text) => Promise.resolve().then(() => checkBody(path, text)),
  close: () => Promise.resolve(),
}

/** Nobody asks for copies but the tests of copies. */
const NO_COPIES: Copies = {
  folder: '/nowhere',
  own: false,
  folderThere: false,
  nightly: true,
  demo: true,
  kept: { days: 7, weeks: 5, months: 12 },
  copies: [],
  last: null,
  failed: null,
  running: null,
  disk: { freeBytes: null, nearlyFull: false },
}
const noCopies: CopyKeeper = {
  state: () => Promise.resolve(NO_COPIES),
  notice: () => Promise.resolve(null),
  begin: () => Promise.resolve(true),
  beginBringingBack: () => true,
  nightly: () => Promise.resolve(),
  stop: () => {},
}

export interface TestOptions {
  copies?: (db: Database) => CopyKeeper
  /** May put a faulty or a counting database in between. */
  wrap?: (db: Database) => Database
  files?: FileStore
  now?: () => Date
  db?: Database
  app?: Partial<AppOptions>
  /** Follow the database's events, as a server does. */
  live?: boolean
}

/** The whole HTTP side on a fresh demo, without a socket. */
export async function testApp(options: TestOptions = {}): Promise<TestApp> {
  const { wrap = (db: Database) => db } = options
  const db = wrap(options.db ?? (await freshDatabase()))
  const live = new Live()
  if (options.live) unfollow.push(await live.follow(db))
  const logged: string[] = []
  const deps: Deps = {
    db,
    live,
    sheets: new SheetShelf(),
    records: new RecordShelf(),
    calc: calcHere,
    copies: options.copies?.(db) ?? noCopies,
    files: options.files ?? (onPostgres() ? databaseFiles : openFileStore(scratch('files'))),
    now: options.now ?? (() => NOW),
    log: (m) => logged.push(m),
  }
  const app = createApp(deps, {
    webFolder: NO_PAGES,
    data: NO_PAGES,
    moray: schema.moray,
    jobSchema,
    ...options.app,
  })
  const request = (path: string, init: RequestInit = {}) =>
    Promise.resolve(
      app.request(path, { ...init, headers: { host: '127.0.0.1:4747', ...(init.headers as object) } }),
    )
  const get = async <T>(path: string): Promise<T> => {
    const response = await request(path)
    if (!response.ok) throw new Error(`${path}: ${response.status} ${await response.text()}`)
    return response.json()
  }
  // the shop's ways, read again once somebody may have changed them
  let ways: Promise<Shop> | undefined
  const judge = async (reply: JobReply) => {
    const shop = await (ways ??= get<Shop>('/api/shop'))
    const sheet = await deps.sheets.get(db, reply.sheetId, reply.sheetVersion)
    return judged(reply, sheet, shop, deps.now())
  }
  const post: TestApp['post'] = async (path, body, headers = {}) => {
    if (path.startsWith('/api/shop')) ways = undefined
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
    const text = await response.text()
    return { status: response.status, body: text ? JSON.parse(text) : {} }
  }
  return {
    db,
    deps,
    live,
    logged,
    request,
    get,
    judge,
    pieces: async (job) => availablePieces(await get<DrawerLine[]>('/api/drawer'), job.builds),
    events: async (id) =>
      (await get<EventEntry[]>(`/api/jobs/${id}/events`)).map((e) => ({ kind: e.kind, text: eventText(e) })),
    job: async (id) => judge(await get<JobReply>(`/api/jobs/${id}`)),
    post,
    async change(path, body, headers) {
      const { status, body: reply } = await post<JobReply>(path, body, headers)
      return { status, body: (status === 201 ? await judge(reply) : reply) as JudgedJob & ErrorBody }
    },
  }
}

/** What a job waits for, with times of day in UTC. */
export const waitsFor = ({ waits }: { waits: Waits }): string => waitsText(waits, (iso) => iso.slice(11, 16))
