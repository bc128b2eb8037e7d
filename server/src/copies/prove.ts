import { join } from 'node:path'
import { checkRecords } from '../data/check-shop.ts'
import { migrate, type Schema } from '../db/migrate.ts'
import { openScratch } from '../db/pglite.ts'
import { openFileStore } from '../files/file-store.ts'
import { sumOf } from './dump.ts'
import { loadCopy } from './load.ts'
import { CopyError, type Manifest } from './manifest.ts'
import { openCopy } from './read-copy.ts'
import { picturesOf } from './write-copy.ts'

export interface Proof {
  manifest: Manifest
  /** What the shop's own check finds in what was brought back: the copy is as good as the shop, and this was wrong in the shop. */
  broken: string[]
}

/**
 * Proves a copy: brings it back into a new embedded database in a folder of its own, reads every table and every picture again, and holds them against
 * what was written. Then that database is brought up to date, as an upgrade would, and checked like a shop: every sealed row against its seal, the chain of
 * seals against the newest one in the copy.
 * @param scratch an empty folder; whoever made it takes it away
 * @throws CopyError naming the first thing that is not as it was written
 */
export async function proveCopy(file: string, schema: Schema, scratch: string, now: Date): Promise<Proof> {
  const copy = await openCopy(file)
  try {
    const db = await openScratch(join(scratch, 'pg'))
    try {
      const files = openFileStore(join(scratch, 'files'))
      await loadCopy(db, files, copy, schema, now, { proving: true })
      const { manifest } = copy
      await db.transaction(async (tx) => {
        for (const [table, said] of Object.entries(manifest.tables)) {
          const found = await sumOf(tx, table)
          if (found.rows !== said.rows || found.sha256 !== said.sha256)
            throw new CopyError(
              `the table ${table} is another one when it is brought back (${found.rows} of ${said.rows} rows)`,
            )
        }
        everyPicture(await picturesOf(tx), copy.pictures, manifest)
      })
      await migrate(db, schema, now)
      const { broken } = await checkRecords(db, files, {
        functions: schema.functions,
        breaks: manifest.breaks,
        ...(manifest.anchor ? { anchor: manifest.anchor } : {}),
      })
      return { manifest, broken }
    } finally {
      await db.close()
    }
  } finally {
    copy.close()
  }
}

/** A picture that a row names is in the copy, or was missing in the shop already. */
function everyPicture(named: string[], held: string[], { lost }: Manifest) {
  const there = new Set([...held, ...lost])
  const missing = named.find((hash) => !there.has(hash))
  if (missing) throw new CopyError(`the picture ${missing} is missing in it`)
}
