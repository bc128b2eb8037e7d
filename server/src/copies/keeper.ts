import { existsSync } from 'node:fs'
import { access, readdir, rm, stat } from 'node:fs/promises'
import { join } from 'node:path'
import type { Copies, CopyFile, CopyNotice } from '@moray/contract/copies'
import { prepareFolder } from '../data/data-lock.ts'
import type { Queryable } from '../db/database.ts'
import { readRemembered, remember } from './last-copy.ts'
import { copyName, nameOf } from './names.ts'
import { diskOf, noticeOf } from './notice.ts'
import { diskWords } from './place.ts'
import { KEPT, toLetGo } from './retention.ts'
import { copySettings, type CopySettings } from './settings.ts'

/** Makes a proved copy under that name; in a process of its own, so that nobody waits for it. */
export type MakeFile = (file: string) => Promise<unknown>

export interface KeeperOptions {
  db: Queryable
  /** Folder of the shop. */
  data: string
  make: MakeFile
  /** Brings the copy of that name back into this empty shop. */
  bringBack: (file: string) => Promise<void>
  now: () => Date
  log: (message: string, detail?: unknown) => void
}

/** A nightly copy is due from this hour on, by the clock on the wall. */
const NIGHT_HOUR = 2
const LOOK_EVERY_MS = 5 * 60_000
/** After a failure it is tried again this much later. */
const AGAIN_MS = 60 * 60_000

export interface CopyKeeper {
  /** @param db the transaction that asks, if it is one */
  state: (db?: Queryable) => Promise<Copies>
  /** What the Bench says, without a look into the folder of the copies: it may lie on a disk that is slow to answer. */
  notice: () => Promise<CopyNotice | null>
  /** Begins to make a copy. @returns false while something is under way already */
  begin: (nightly: boolean) => Promise<boolean>
  /** Begins to bring one back; `done` is called at its end. @returns false while something is under way already */
  beginBringingBack: (file: string, done?: () => void) => boolean
  /** Makes the nightly copy when it is due. */
  nightly: () => Promise<void>
  stop: () => void
}

/** Looks after the copies of a shop: one thing at a time, nightly ones by itself, old ones let go. */
export function keepCopies(o: KeeperOptions): CopyKeeper {
  let running: Copies['running'] = null
  /** Why the last one was not brought back; why none was made is remembered in the folder. */
  let notBack: Copies['failed'] = null
  const folderOf = ({ folder }: CopySettings) => folder ?? join(o.data, 'copies')
  const wrong = (e: unknown) => ({ at: o.now().toISOString(), why: diskWords(e) })

  function start(what: 'copy' | 'back', work: () => Promise<unknown>, failed: (e: unknown) => void): boolean {
    if (running) return false
    running = { what, since: o.now().toISOString() }
    notBack = null
    void work()
      .catch((e: unknown) => {
        o.log(what === 'copy' ? 'no copy was made' : 'no copy was brought back', e)
        failed(e)
      })
      .finally(() => (running = null))
    return true
  }

  async function begin(nightly: boolean): Promise<boolean> {
    const folder = folderOf(await copySettings(o.db))
    const make = async () => {
      mustBeThere(folder, o.data)
      await o.make(join(folder, copyName(folder, o.now(), nightly)))
      if (nightly) await letGo(folder)
    }
    return start('copy', make, (e) => remember(o.data, { failed: wrong(e) }))
  }

  async function nightly(): Promise<void> {
    const settings = await copySettings(o.db)
    if (running || !settings.nightly || settings.demo || !settings.begun) return
    const now = o.now()
    const lastTry = readRemembered(o.data).failed?.at
    if (lastTry && Math.abs(now.getTime() - Date.parse(lastTry)) < AGAIN_MS) return
    if (isDue(await list(folderOf(settings)), now)) await begin(true)
  }

  async function known(db: Queryable) {
    const settings = await copySettings(db)
    const remembered = readRemembered(o.data)
    return {
      settings,
      remembered,
      disk: await diskOf(o.data, folderOf(settings), remembered.proved?.bytes ?? 0),
    }
  }

  const timer = setInterval(() => {
    nightly().catch((e: unknown) => o.log('the nightly copy could not be begun', e))
  }, LOOK_EVERY_MS).unref()

  return {
    begin,
    nightly,
    beginBringingBack: (file, done = () => {}) =>
      start(
        'back',
        () => o.bringBack(file).finally(done),
        (e) => (notBack = { what: 'back', ...wrong(e) }),
      ),
    notice: async () => noticeOf(await known(o.db), o.now()),
    async state(db = o.db) {
      const { settings, remembered, disk } = await known(db)
      const folder = folderOf(settings)
      const notMade = remembered.failed ? ({ what: 'copy', ...remembered.failed } as const) : null
      return {
        folder,
        own: settings.folder !== null,
        nightly: settings.nightly,
        demo: settings.demo,
        kept: KEPT,
        copies: await list(folder),
        folderThere: settings.folder === null || (await isThere(folder)),
        last: remembered.proved ?? null,
        failed: notBack ?? notMade,
        running,
        disk,
      }
    },
    stop: () => clearInterval(timer),
  }
}

const isThere = (path: string): Promise<boolean> =>
  access(path).then(
    () => true,
    () => false,
  )

/** The shop's own folder is made; one that somebody named is there, or its stick is not in. */
function mustBeThere(folder: string, data: string) {
  if (folder.startsWith(join(data, '/'))) prepareFolder(folder)
  else if (!existsSync(folder))
    throw new Error(`The folder ${folder} is not there. Is the disk or the stick mounted?`)
}

/** Copies in a folder, the newest first; none where it is not there. A disk that is slow keeps nobody else waiting. */
async function list(folder: string): Promise<CopyFile[]> {
  const names = await readdir(folder).catch((): string[] => [])
  const files = await Promise.all(
    names.map(async (name): Promise<CopyFile[]> => {
      const made = nameOf(name)
      const file = made && (await stat(join(folder, name)).catch(() => undefined))
      return file ? [{ name, at: made.at.toISOString(), nightly: made.nightly, bytes: file.size }] : []
    }),
  )
  return files.flat().sort((a, b) => b.at.localeCompare(a.at) || b.name.localeCompare(a.name))
}

/** Whether there is no nightly copy yet since the last night began. What is dated ahead was made by a clock that was wrong, and does not count. */
export function isDue(copies: readonly CopyFile[], now: Date): boolean {
  const night = new Date(now.getFullYear(), now.getMonth(), now.getDate(), NIGHT_HOUR)
  if (night > now) night.setDate(night.getDate() - 1)
  return !copies.some((c) => c.nightly && c.at >= night.toISOString() && c.at <= now.toISOString())
}

async function letGo(folder: string): Promise<void> {
  const nightly = (await list(folder)).filter((c) => c.nightly)
  for (const name of toLetGo(nightly.map((c) => ({ name: c.name, at: new Date(c.at) }))))
    await rm(join(folder, name), { force: true })
}
