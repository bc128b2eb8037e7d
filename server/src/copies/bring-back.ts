import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { checkShop } from '../data/check-shop.ts'
import { DataFolderError } from '../data/data-folder-error.ts'
import { readMark, writeMark, type Mark } from '../data/mark.ts'
import type { Schema } from '../db/migrate.ts'
import { holdsDatabase, openFolder, syncPath, syncTree } from '../db/pglite.ts'
import { openFileStore } from '../files/file-store.ts'
import { loadCopy } from './load.ts'
import type { Manifest } from './manifest.ts'
import { inScratch } from './place.ts'
import type { OpenCopy } from './read-copy.ts'

/** What makes up a shop in its folder, in the order in which it is put in place: the mark, which says that all is there, last. */
const PARTS = ['files', 'pg', 'moray.json']
/** Says that a whole shop waits to be put in place, and where; it goes when that is done. */
const PENDING = 'restoring.json'

interface Pending {
  from: string
  aside: string
}

/** The mark of a shop that was brought back: it goes on from the seal that the copy carries. */
export function restoredMark(
  { shop, anchor, breaks, at }: Manifest,
  epoch: string,
  schema: Schema,
  now: Date,
): Mark {
  return {
    shop,
    created: now.toISOString(),
    state: 'ready',
    epoch,
    moray: schema.moray,
    schema: schema.migrations.length,
    restored: { copyOf: at, at: now.toISOString() },
    ...(anchor ? { anchor } : {}),
    ...(breaks.length ? { breaks } : {}),
  }
}

/**
 * Brings a copy back into a data folder that this process has locked. The shop is built and checked beside the one that may be there, and put in place
 * when it is whole; whatever it is put in place of is laid aside, and stays.
 * @returns where the old shop lies now, if there was one; and what the check of the new one finds
 */
export async function bringBack(
  data: string,
  copy: OpenCopy,
  schema: Schema,
  now: Date,
): Promise<{ aside: string | undefined; broken: string[] }> {
  return inScratch(data, async (scratch) => {
    const whole = join(scratch, 'shop')
    mkdirSync(join(whole, 'files'), { recursive: true, mode: 0o700 })
    const files = openFileStore(join(whole, 'files'))
    const db = await openFolder(join(whole, 'pg'))
    let broken: string[]
    try {
      const epoch = await loadCopy(db, files, copy, schema, now, { proving: false })
      const mark = restoredMark(copy.manifest, epoch, schema, now)
      broken = (
        await checkShop(db, files, {
          functions: schema.functions,
          ...(mark.anchor ? { anchor: mark.anchor } : {}),
          ...(mark.breaks ? { breaks: mark.breaks } : {}),
        })
      ).broken
      writeMark(whole, mark)
    } finally {
      await db.close()
    }
    syncTree(whole)
    // out of what is swept: from here on it is only moved
    const ready = freeName(data, 'restored', now)
    renameSync(whole, join(data, ready))
    const aside = freeName(data, 'replaced', now)
    const hadShop = PARTS.some((p) => existsSync(join(data, p)))
    writePending(data, { from: ready, aside })
    finishBringingBack(data)
    return { aside: hadShop ? join(data, aside) : undefined, broken }
  })
}

function freeName(data: string, stem: string, now: Date): string {
  const name = `${stem}-${now.toISOString().slice(0, 19).replaceAll(':', '')}`
  for (let n = 1; ; n++) {
    const free = n === 1 ? name : `${name}-${n}`
    if (!existsSync(join(data, free))) return free
  }
}

function writePending(data: string, pending: Pending) {
  const half = join(data, `${PENDING}.half`)
  writeFileSync(half, JSON.stringify(pending), { mode: 0o600 })
  syncPath(half)
  renameSync(half, join(data, PENDING))
  syncPath(data)
}

/**
 * Puts a shop in place that was brought back whole, also where an earlier process was killed amid that: each part of the old one is laid aside, and the
 * new one moved in. Called with the folder locked, before anything in it is opened.
 */
export function finishBringingBack(data: string): void {
  const file = join(data, PENDING)
  if (!existsSync(file)) return
  const { from, aside } = JSON.parse(readFileSync(file, 'utf8')) as Pending
  for (const part of PARTS) {
    const [ready, place] = [join(data, from, part), join(data, part)]
    if (!existsSync(ready)) continue
    if (existsSync(place)) {
      mkdirSync(join(data, aside), { recursive: true, mode: 0o700 })
      renameSync(place, join(data, aside, part))
    }
    renameSync(ready, place)
  }
  syncPath(data)
  rmSync(join(data, from), { recursive: true, force: true })
  rmSync(file)
  syncPath(data)
}

/** The shop that a folder holds, in a line; undefined where there is none. */
export function shopIn(data: string): { id: string; since: string } | undefined {
  const mark = existsSync(data) ? readMark(data) : undefined
  if (mark) return { id: mark.shop, since: mark.created.slice(0, 10) }
  return holdsDatabase(join(data, 'pg')) ? { id: 'of-an-old-moray', since: 'long ago' } : undefined
}

/** Whether other things lie in a folder than what Moray leaves there. @throws DataFolderError naming the first */
export function mustBeOurFolder(data: string): void {
  const OURS =
    /^(lock|moray\.lock|pg|files|moray\.json(\.half)?|copies|copies\.json|before-upgrade|restoring\.json(\.half)?|(restored|replaced)-.*|.*\.half)$/
  const strange = readdirSync(data).find((n) => !OURS.test(n))
  if (strange)
    throw new DataFolderError(
      `${join(data, strange)} is nothing of Moray's. Choose a folder for the shop alone with MORAY_DATA; it may be a new one.`,
    )
}
