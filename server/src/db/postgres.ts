import pg from 'pg'
import { STATEMENTS_KEPT, type Database, type Transaction } from './database.ts'
import { isLineDown, LINE_DOWN, RESULT_UNKNOWN } from './sqlstate.ts'

const INT8 = 20

/** int8 as a number: our ids and counts stay far below 2^53. */
const types: pg.CustomTypesConfig = {
  getTypeParser: ((oid: number, format?: 'text' | 'binary') =>
    oid === INT8 ? Number : pg.types.getTypeParser(oid, format as 'text')) as typeof pg.types.getTypeParser,
}

/** Names of prepared statements. Our queries cost more to plan than to run, so each connection prepares them once. */
function statementNames(): (sql: string) => string | undefined {
  const names = new Map<string, string>()
  return (sql) => {
    if (!names.has(sql) && names.size < STATEMENTS_KEPT) names.set(sql, `s${names.size + 1}`)
    return names.get(sql)
  }
}

/** What the driver answers; whatever went wrong that is no error of the database's own means that the line to it is down. @param code of that */
const said = <T>(answer: Promise<T>, code: string = LINE_DOWN): Promise<T> =>
  answer.catch((e: unknown) => {
    if (e instanceof pg.DatabaseError && !(code === RESULT_UNKNOWN && isLineDown(e.code ?? ''))) throw e
    throw Object.assign(new Error('the line to the database is down', { cause: e }), { code })
  })

/** Options of the address, and ours after them: the driver would take one or the other. A search_path of the address chooses the schema of the shop. */
function withOptions(url: string, ours: string): { connectionString: string; options: string } {
  const [, theirs] = /[?&]options=([^&]*)/.exec(url) ?? []
  const connectionString = url.replace(/([?&])options=[^&]*(&|$)/, (_, before: string, after: string) =>
    after === '' ? '' : before,
  )
  const options = theirs === undefined ? ours : `${decodeURIComponent(theirs.replaceAll('+', ' '))} ${ours}`
  return { connectionString, options }
}

const LISTEN_AGAIN_MS = 1000

/**
 * A PostgreSQL server as the server's Database. Several servers of ours may use it at once; each tells the others what it has
 * committed through LISTEN and NOTIFY.
 * @param url as in DATABASE_URL; its search_path names the shop's schema
 */
export async function openPostgres(
  url: string,
  log: (message: string, e: unknown) => void,
): Promise<Database> {
  const settings: pg.PoolConfig = { ...withOptions(url, '-c timezone=UTC'), types, keepAlive: true }
  const pool = new pg.Pool({ ...settings, max: 10, connectionTimeoutMillis: 10_000 })
  // an idle connection that breaks is replaced; without a listener it would end the process
  pool.on('error', (e) => log('a connection to the database broke', e))
  const nameOf = statementNames()
  const wrap = (client: pg.Pool | pg.PoolClient): Transaction => ({
    async query<Row>(text: string, values: unknown[] = []) {
      return (await said(client.query({ name: nameOf(text), text, values }))).rows as Row[]
    },
    async script(sql) {
      await said(client.query(sql))
    },
  })
  const [{ schema }] = (await pool.query<{ schema: string }>('select current_schema() as schema')).rows as [
    { schema: string },
  ]
  return {
    ...wrap(pool),
    async transaction(work) {
      const client = await said(pool.connect())
      let broken: Error | undefined
      // a connection that breaks between two statements says so by this alone; without a listener it would end the process
      const breaks = (e: Error) => (broken ??= e)
      client.on('error', breaks)
      try {
        await said(client.query('begin'))
        const result = await work(wrap(client))
        const { command } = await said(client.query('commit'), RESULT_UNKNOWN)
        // a statement that failed and was swallowed turns the commit into a rollback without an error
        if (command !== 'COMMIT')
          throw new Error('the transaction was rolled back: a statement in it had failed')
        return result
      } catch (e) {
        await client.query('rollback').catch((again: Error) => (broken ??= again))
        throw e
      } finally {
        client.removeListener('error', breaks)
        client.release(broken)
      }
    },
    listen: (told, lost) => listenOn(`moray_${schema}`, settings, told, lost, log),
    close: () => pool.end(),
  }
}

/** Listens on a connection of its own and makes a new one whenever it breaks. */
async function listenOn(
  channel: string,
  settings: pg.ClientConfig,
  told: (payload: string) => void,
  lost: () => void,
  log: (message: string, e: unknown) => void,
): Promise<() => Promise<void>> {
  let client: pg.Client | undefined
  let over = false
  const begin = async () => {
    const mine = new pg.Client(settings)
    mine.on('notification', (n) => told(n.payload ?? ''))
    mine.on('error', (e) => log('the line for live events broke', e))
    mine.on('end', () => {
      if (!over && client === mine) again()
    })
    await mine.connect()
    client = mine
    await mine.query(`listen ${pg.escapeIdentifier(channel)}`)
  }
  const again = () => {
    setTimeout(() => {
      if (over) return
      begin().then(lost, () => again())
    }, LISTEN_AGAIN_MS).unref()
  }
  await begin()
  return async () => {
    over = true
    await client?.end()
  }
}
