import { existsSync, readdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { Copies, CopyFile } from '@moray/contract/copies'
import { prepareFolder } from '../data/data-lock.ts'
import type { Queryable } from '../db/database.ts'
import { readRemembered, remember, type Remembered } from './last-copy.ts'
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
  let failed: Copies['failed'] = null
  const folderOf = ({ folder }: CopySettings) => folder ?? join(o.data, 'copies')

  function start(what: 'copy' | 'back', work: () => Promise<unknown>, done: () => void = () => {}): boolean {
    if (running) return false
    running = { what, since: o.now().toISOString() }
    failed = null
    void work()
      .catch((e: unknown) => {
        o.log(what === 'copy' ? 'no copy was made' : 'no copy was brought back', e)
        failed = { what, at: o.now().toISOString(), why: diskWords(e) }
      })
      .finally(() => {
        running = null
        done()
      })
    return true
  }

  async function begin(nightly: boolean): Promise<boolean> {
    const folder = folderOf(await copySettings(o.db))
    return start('copy', async () => {
      try {
        mustBeThere(folder, o.data)
        await o.make(join(folder, copyName(folder, o.now(), nightly)))
      } catch (e) {
        remember(o.data, { failed: { at: o.now().toISOString(), why: diskWords(e) } })
        throw e
      }
      if (nightly) letGo(folder)
    })
  }

  async function nightly(): Promise<void> {
    const settings = await copySettings(o.db)
    if (running || !settings.nightly || settings.demo || !settings.begun) return
    const now = o.now()
    const lastTry = readRemembered(o.data).failed?.at
    if (lastTry && Math.abs(now.getTime() - Date.parse(lastTry)) < AGAIN_MS) return
    if (isDue(list(folderOf(settings)), now)) await begin(true)
  }

  const timer = setInterval(() => {
    nightly().catch((e: unknown) => o.log('the nightly copy could not be begun', e))
  }, LOOK_EVERY_MS).unref()

  return {
    begin,
    nightly,
    beginBringingBack: (file, done) => start('back', () => o.bringBack(file), done),
    async state(db = o.db) {
      const settings = await copySettings(db)
      const folder = folderOf(settings)
      const remembered = readRemembered(o.data)
      const disk = await diskOf(o.data, folder, remembered.proved?.bytes ?? 0)
      return {
        folder,
        own: settings.folder !== null,
        nightly: settings.nightly,
        demo: settings.demo,
        kept: KEPT,
        copies: list(folder),
        folderThere: existsSync(folder) || settings.folder === null,
        last: remembered.proved ?? null,
        failed: failed ?? lastFailure(remembered),
        running,
        disk,
        notice: noticeOf({ settings, remembered, disk }, o.now()),
      }
    },
    stop: () => clearInterval(timer),
  }
}

const lastFailure = ({ failed }: Remembered): Copies['failed'] =>
  failed ? { what: 'copy', ...failed } : null

/** The shop's own folder is made; one that somebody named is there, or its stick is not in. */
function mustBeThere(folder: string, data: string) {
  if (folder.startsWith(join(data, '/'))) {
    prepareFolder(folder)
    return
  }
  if (!existsSync(folder))
    throw new Error(`The folder ${folder} is not there. Is the disk or the stick mounted?`)
}

/** Copies in a folder, the newest first. */
function list(folder: string): CopyFile[] {
  const names = existsSync(folder) ? readdirSync(folder) : []
  return names
    .flatMap((name) => {
      const made = nameOf(name)
      const bytes = statSync(join(folder, name), { throwIfNoEntry: false })?.size
      return made && bytes !== undefined
        ? [{ name, at: made.at.toISOString(), nightly: made.nightly, bytes }]
        : []
    })
    .sort((a, b) => b.at.localeCompare(a.at) || b.name.localeCompare(a.name))
}

/** Whether there is no nightly copy yet since the last night began. What is dated ahead was made by a clock that was wrong, and does not count. */
export function isDue(copies: readonly CopyFile[], now: Date): boolean {
  const night = new Date(now.getFullYear(), now.getMonth(), now.getDate(), NIGHT_HOUR)
  if (night > now) night.setDate(night.getDate() - 1)
  return !copies.some((c) => c.nightly && c.at >= night.toISOString() && c.at <= now.toISOString())
}

function letGo(folder: string) {
  const nightly = list(folder).filter((c) => c.nightly)
  for (const name of toLetGo(nightly.map((c) => ({ name: c.name, at: new Date(c.at) }))))
    rmSync(join(folder, name), { force: true })
}
