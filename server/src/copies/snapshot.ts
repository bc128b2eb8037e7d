import { constants, existsSync } from 'node:fs'
import { copyFile, mkdir, readdir, readFile, rename, rm } from 'node:fs/promises'
import { join } from 'node:path'

/** Where the log of a database begins that was not shut down: written by a checkpoint, last of all. */
const CONTROL = 'global/pg_control'
const LOG = 'pg_wal'
/** Mean something to the process that has the folder open, and to nobody else. */
const LEFT_OUT = new Set(['postmaster.pid', 'postmaster.opts', 'pgsql_tmp'])
const MOST_TRIES = 4

/**
 * Copies the folder of an embedded database as it stands, also while a server writes to it, and makes nobody wait. What comes out is what a power cut
 * would have left: everything that was acknowledged before this was called is in its log, and is played in when the copy is opened.
 *
 * The order does it: first the control file, which says where the log begins; then the tables, which may change meanwhile; the log last. Every
 * change since the last checkpoint stands in the log, whole pages among them, so that a table which was read half old and half new is made
 * whole again. Only a checkpoint amid the copying would break that, since it takes the beginning of the log away. It changes the control file,
 * and then we begin again; there is one in ten minutes.
 * @param to a folder that is not there yet
 * @throws Error when there was a checkpoint each time
 */
export async function snapshotFolder(from: string, to: string): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    const before = await readFile(join(from, CONTROL))
    const place = `${to}-${attempt}`
    await copyTree(from, place, (name) => name !== LOG)
    await copyTree(join(from, LOG), join(place, LOG), () => true)
    const after = await readFile(join(from, CONTROL))
    if (before.equals(after)) {
      await rename(place, to)
      return
    }
    if (attempt === MOST_TRIES)
      throw new Error('the database was being tidied up each time that it was copied; try again in a minute')
    await rm(place, { recursive: true, force: true })
  }
}

async function copyTree(from: string, to: string, wanted: (name: string) => boolean): Promise<void> {
  await mkdir(to, { recursive: true, mode: 0o700 })
  for (const entry of await readdir(from, { withFileTypes: true })) {
    if (LEFT_OUT.has(entry.name) || !wanted(entry.name)) continue
    const [source, target] = [join(from, entry.name), join(to, entry.name)]
    if (entry.isDirectory()) await copyTree(source, target, () => true)
    else if (entry.isFile())
      // where the disk can, a copy shares its blocks with what it is a copy of
      await copyFile(source, target, constants.COPYFILE_FICLONE).catch((e: NodeJS.ErrnoException) => {
        // a table that was dropped a moment ago is dropped again when the log is played in
        if (e.code !== 'ENOENT' || existsSync(source)) throw e
      })
  }
}
