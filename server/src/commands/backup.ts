import { existsSync, statSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { remember } from '../copies/last-copy.ts'
import { makeCopy, type MadeCopy } from '../copies/make-copy.ts'
import { copyName } from '../copies/names.ts'
import { diskWords } from '../copies/place.ts'
import { DataFolderError } from '../data/data-folder-error.ts'
import { readSchema } from '../db/migrate.ts'
import { holdsDatabase } from '../db/pglite.ts'
import { giveWay } from '../give-way.ts'
import { serverFolder } from './server-folder.ts'
import { say } from './with-shop.ts'

/**
 * `npm run backup -- FILE`: copies the shop in MORAY_DATA (or DATABASE_URL) into one file and proves it by bringing it back into a temporary place; a
 * server may go on using the shop meanwhile. FILE may be a folder: the name is then made of the date. The server makes
 * its copies by this command too. Exit code 0 when the copy is proved, 2 when there is none.
 */
const [target] = process.argv.slice(2)
const data = resolve(process.env.MORAY_DATA ?? 'data')
const url = process.env.DATABASE_URL || undefined

async function backup(): Promise<MadeCopy> {
  if (!target) throw new DataFolderError('Say where to: npm run backup -- /media/stick/moray.zip')
  if (!url && !holdsDatabase(join(data, 'pg'))) throw new DataFolderError(`There is no shop in ${data}.`)
  const path = resolve(target)
  const isFolder = existsSync(path) && statSync(path).isDirectory()
  const file = isFolder ? join(path, copyName(path, new Date(), false)) : path
  return makeCopy({ data, url }, file, readSchema(serverFolder(import.meta.url)))
}

function told({ file, bytes, manifest, broken }: MadeCopy) {
  say(`${file}: ${(bytes / 1e6).toFixed(1)} MB, ${manifest.jobs} jobs, as of ${manifest.at}.`)
  say('Proved: it was brought back into a temporary place, and every row and picture is what it was.')
  for (const b of broken) say(`In the shop itself something is broken, and so it is in the copy: ${b}`)
  for (const hash of manifest.lost)
    say(`The picture ${hash} is missing or damaged in the shop itself, and so it is in the copy.`)
}

process.umask(0o077)
giveWay('copy')
try {
  const made = await backup()
  const { file, bytes, manifest, broken } = made
  const proved = {
    file,
    at: manifest.at,
    bytes,
    jobs: manifest.jobs,
    broken: broken.length + manifest.lost.length,
  }
  remember(data, { proved })
  told(made)
  process.exit(0)
} catch (e) {
  const why = diskWords(e)
  if (!(e instanceof DataFolderError)) {
    try {
      remember(data, { failed: { at: new Date().toISOString(), why } })
    } catch {
      // the disk that failed may be this one; it is said below in any case
    }
  }
  process.stderr.write(
    `No copy was made; what was there before stays. ${why.charAt(0).toUpperCase()}${why.slice(1)}\n`,
  )
  process.exit(2)
}
