import { resolve } from 'node:path'
import { checkShop } from '../data/check-shop.ts'
import { readMark } from '../data/mark.ts'
import { pendingMigrations, readSchema } from '../db/migrate.ts'
import { databaseFiles, openFileStore } from '../files/file-store.ts'
import { serverFolder } from './server-folder.ts'
import { say, withShop } from './with-shop.ts'

/**
 * `npm run check`: reads every row and every picture of the shop in MORAY_DATA (or DATABASE_URL), holds all evidence against its seals and the newest
 * seal against what the folder has written down, adds stock up against its movements, and says what is broken. Exit code 0 when all is well, 1 when
 * something is broken, 2 when it could not be looked at.
 */
const check = () =>
  withShop(async (db, { data, url }) => {
    const schema = readSchema(serverFolder(import.meta.url))
    const { pending } = await pendingMigrations(db, schema)
    if (pending)
      throw new Error('This shop was written by an older Moray. Start this one on it once, then check it.')
    const mark = readMark(data)
    const { looked, broken } = await checkShop(
      db,
      url ? databaseFiles : openFileStore(resolve(data, 'files')),
      {
        functions: schema.functions,
        ...(mark?.anchor ? { anchor: mark.anchor } : {}),
        ...(mark?.breaks ? { breaks: mark.breaks } : {}),
      },
    )
    looked.forEach(say)
    broken.forEach((b) => say(`BROKEN: ${b}`))
    say(broken.length ? `${broken.length} things are broken.` : 'All is well.')
    return broken.length ? 1 : 0
  })

process.exit(
  await check().catch((e: unknown) => {
    process.stderr.write(`The check could not be made. ${e instanceof Error ? e.message : String(e)}\n`)
    return 2
  }),
)
