import { randomUUID } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Schema } from '../db/migrate.ts'
import { holdsDatabase, syncPath } from '../db/pglite.ts'
import { DataFolderError } from './data-lock.ts'

/** What the folder says of itself: which shop it holds, and whether it ever held one. */
export interface Mark {
  shop: string
  created: string
  /** `preparing` until the first start has come to its end: nothing was acknowledged before that. */
  state: 'preparing' | 'ready'
  /** The newest event that this folder has seen, kept outside of the database that it seals. */
  anchor?: Anchor
  /** The history that it belongs to; a demo that is left makes way for another one. */
  epoch?: string
  /** When the database did not hold what was written down here, a line each; for `npm run check`, until somebody has looked into it and takes it out. */
  breaks?: string[]
  /** Version of the Moray that last opened it, and how many migrations it has: an older one reads here that it may not. */
  moray?: string
  schema?: number
  /** When it was brought back from a copy, and from when that was. */
  restored?: { copyOf: string; at: string }
  /** As the mark will be when the history is there that is just being brought back into this folder. */
  awaited?: Mark
}

/** Number and seal of an event, and when they were written down. */
export interface Anchor {
  event: number
  seal: string
  at: string
}

const FILE = 'moray.json'

/**
 * Looks at a data folder before anything is opened in it. A folder that has held a shop never begins anew: a database that is missing there is
 * a disk that is not mounted, a wrong path, or half a restore.
 * @param options.embedded the database lies in the folder; otherwise it holds pictures only
 * @param options.schema what this Moray works with
 * @returns its mark; a new one for a new folder
 * @throws DataFolderError naming what is missing and what to do
 */
export function openMark(
  folder: string,
  now: Date,
  { embedded, schema }: { embedded: boolean; schema: Pick<Schema, 'migrations' | 'moray'> },
): Mark {
  const mark = readMark(folder)
  if ((mark?.schema ?? 0) > schema.migrations.length)
    throw new DataFolderError(
      `The data folder ${folder} was written by Moray ${mark!.moray}; this is ${schema.moray}, an older one, and would not understand it. Start version ${mark!.moray} or a newer one on it. Nothing was changed.`,
    )
  if (!embedded) return mark ?? { shop: randomUUID(), created: now.toISOString(), state: 'preparing' }
  const pg = join(folder, 'pg')
  if (mark?.state === 'ready') {
    if (!holdsDatabase(pg))
      throw new DataFolderError(
        `The data folder ${folder} holds the shop ${mark.shop} since ${mark.created.slice(0, 10)}, but its database (pg) is missing or incomplete. Is the disk mounted, the path right, the restore complete? Nothing was begun anew; bring a copy back with npm run restore, or choose another folder with MORAY_DATA.`,
      )
    return mark
  }
  if (!mark && holdsDatabase(pg))
    return { shop: randomUUID(), created: now.toISOString(), state: 'preparing' }
  if (!mark && !isEmptyBut(folder, ['lock', 'moray.lock']))
    throw new DataFolderError(
      `The data folder ${folder} is not empty and holds no database of Moray. Is the restore complete? Nothing was begun; bring a copy back into it with npm run restore, or choose an empty folder with MORAY_DATA.`,
    )
  if (mark) {
    // the first start was cut off before anything was acknowledged
    rmSync(pg, { recursive: true, force: true })
    return mark
  }
  const made: Mark = { shop: randomUUID(), created: now.toISOString(), state: 'preparing' }
  writeMark(folder, made)
  return made
}

/** The mark as it is now: the one that was awaited, once the database holds its history. */
export const arrived = (mark: Mark, epoch: string | undefined): Mark =>
  mark.awaited && mark.awaited.epoch === epoch ? mark.awaited : mark

/** The mark of a shop whose database stands. */
export function writeMark(folder: string, mark: Mark) {
  const half = join(folder, `${FILE}.half`)
  mkdirSync(folder, { recursive: true, mode: 0o700 })
  writeFileSync(half, `${JSON.stringify(mark, null, 2)}\n`, { mode: 0o600 })
  syncPath(half)
  renameSync(half, join(folder, FILE))
  syncPath(folder)
}

/** Whether a folder says that it holds, or has begun to hold, a shop. */
export const isMarked = (folder: string): boolean => existsSync(join(folder, FILE))

export function readMark(folder: string): Mark | undefined {
  const file = join(folder, FILE)
  if (!existsSync(file)) return undefined
  try {
    const mark = JSON.parse(readFileSync(file, 'utf8')) as Mark
    if (typeof mark.shop === 'string' && (mark.state === 'ready' || mark.state === 'preparing')) return mark
  } catch {
    // said below
  }
  throw new DataFolderError(
    `The mark ${file} cannot be read. Put it back from a copy; without it nobody knows whose folder this is.`,
  )
}

const isEmptyBut = (folder: string, names: string[]) =>
  readdirSync(folder).every((n) => names.includes(n) || n === `${FILE}.half`)
