import { resetCode } from '../people/codes.ts'
import { say, withShop } from './with-shop.ts'

/**
 * `npm run reset-code -- NAME`: takes the code of a name away that nobody knows any more. On the machine itself, by whoever runs Moray there; the
 * history keeps it. Exit code 0 when it is gone, 1 when nobody has that name, 2 when it could not be done.
 */
const name = process.argv.slice(2).join(' ').trim()

async function reset(): Promise<number> {
  if (name === '') throw new Error('Say whose: npm run reset-code -- "Ylva Tangvik"')
  return withShop(async (db) => {
    const whose = await db.transaction((tx) => resetCode(tx, name, new Date()))
    say(whose === undefined ? `Nobody here is called "${name}".` : `${whose} has no code any more.`)
    return whose === undefined ? 1 : 0
  })
}

process.exit(
  await reset().catch((e: unknown) => {
    process.stderr.write(`Nothing was changed. ${e instanceof Error ? e.message : String(e)}\n`)
    return 2
  }),
)
