import { existsSync, mkdirSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import type { Mark } from '../data/mark.ts'
import { readMark } from '../data/mark.ts'
import { openScratch } from '../db/pglite.ts'
import type { Schema } from '../db/migrate.ts'
import { databaseFiles, openFileStore } from '../files/file-store.ts'
import { CopyError, type Manifest } from './manifest.ts'
import { halfName, inScratch, mustBeFolder, removeGently, settleFile, sweepHalves } from './place.ts'
import { proveCopy, type Proof } from './prove.ts'
import { openCopy } from './read-copy.ts'
import { snapshotFolder } from './snapshot.ts'
import { writeCopy, type Source } from './write-copy.ts'

/** Which shop: its folder, and the PostgreSQL server where its rows lie there. */
export interface WhichShop {
  data: string
  url: string | undefined
}

export interface MadeCopy extends Proof {
  file: string
  bytes: number
}

/**
 * Makes a copy of a shop, proves it, and only then gives it its name; a server may go on writing meanwhile. Until then whatever stands under that name
 * stays.
 * @param file a zip in a folder that is there
 * @throws CopyError or an error of the disk; nothing half written stays
 */
export async function makeCopy(shop: WhichShop, file: string, schema: Schema): Promise<MadeCopy> {
  const folder = mustBeFolder(file)
  await mustBeOurs(file, readMark(shop.data))
  sweepHalves(folder)
  const half = halfName(file)
  try {
    const proof = await inScratch(shop.data, async (scratch) => {
      await withSource(shop, scratch, schema.moray, (source) => writeCopy(source, half))
      const proving = join(scratch, 'proving')
      mkdirSync(proving, { mode: 0o700 })
      return proveCopy(half, schema, proving, new Date())
    })
    settleFile(half, file)
    return { ...proof, file, bytes: statSync(file).size }
  } finally {
    rmSync(half, { force: true })
  }
}

/** What has that name already is an older copy of this very shop, or stays. */
async function mustBeOurs(file: string, mark: Mark | undefined) {
  if (!existsSync(file)) return
  let shop: string | undefined
  try {
    const copy = await openCopy(file)
    shop = copy.manifest.shop
    copy.close()
  } catch {
    // said below
  }
  if (shop === undefined || (mark && shop !== mark.shop))
    throw new CopyError(
      `${file} is there already, and is no copy of this shop. Nothing was written; choose another name.`,
    )
}

/** The shop at one moment: a transaction of a PostgreSQL server, or a snapshot of the folder of an embedded database, opened beside it. */
async function withSource(
  { data, url }: WhichShop,
  scratch: string,
  moray: string,
  work: (source: Source) => Promise<Manifest>,
): Promise<Manifest> {
  const mark = readMark(data)
  if (url) {
    const db = await (await import('../db/postgres.ts')).openPostgres(url, () => {})
    try {
      return await work({ db, files: databaseFiles, mark, moray, at: new Date() })
    } finally {
      await db.close()
    }
  }
  const snapshot = join(scratch, 'pg')
  const at = new Date()
  await snapshotFolder(join(data, 'pg'), snapshot)
  const db = await openScratch(snapshot)
  try {
    return await work({ db, files: openFileStore(join(data, 'files')), mark, moray, at })
  } finally {
    await db.close()
    await removeGently(snapshot)
  }
}
