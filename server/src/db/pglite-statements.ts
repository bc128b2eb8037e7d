import { parse, protocol, type PGlite, type Results } from '@electric-sql/pglite'
import { STATEMENTS_KEPT } from './database.ts'
import type { RawRows } from './raw-rows.ts'

/** Types of PostgreSQL whose values are JSON. */
const JSON_TYPES = [114, 3802]

const JSON_AS_TEXT = Object.fromEntries(JSON_TYPES.map((type) => [type, (text: string) => text]))

const { serialize } = protocol

interface Statement {
  name: string
  /** Types of its parameters, as the database has settled them. */
  params: readonly number[]
  /** What it says of its columns; nothing where it returns no rows. */
  described: Awaited<ReturnType<PGlite['execProtocolStream']>>
}

/**
 * Statements of an embedded database, each parsed and planned once: from then on a query is one call into the database, where the library's own
 * way takes six and plans it anew every time.
 */
export class PgliteStatements {
  readonly #known = new Map<string, Statement>()
  #made = 0
  #parsers: PGlite['parsers'] | undefined

  constructor(private readonly pg: PGlite) {}

  /**
   * Runs one statement with `$1`-style parameters; the caller sees to it that nobody else's transaction is open.
   * @throws DatabaseError with PostgreSQL's code
   */
  run(sql: string, params: readonly unknown[]): Promise<RawRows> {
    return this.pg._runExclusiveQuery(async () => {
      const statement = this.#known.get(sql) ?? (await this.#prepare(sql))
      const values = params.map((value, i) => this.#asText(value, statement.params[i]!))
      const said = await this.#send(
        serialize.bind({ statement: statement.name, values }),
        serialize.execute({}),
        serialize.sync(),
      )
      this.#parsers ??= { ...this.pg.parsers, ...JSON_AS_TEXT }
      return rawRows(parse.parseResults([...statement.described, ...said], this.#parsers)[0])
    })
  }

  async #prepare(sql: string): Promise<Statement> {
    const name = `s${++this.#made}`
    const described = await this.#send(
      serialize.parse({ name, text: sql }),
      serialize.describe({ type: 'S', name }),
      serialize.sync(),
    )
    const statement = {
      name,
      params: parse.parseDescribeStatementResults(described),
      described: described.filter((m) => m.name === 'rowDescription'),
    }
    this.#known.set(sql, statement)
    const [oldest] = this.#known
    if (this.#known.size > STATEMENTS_KEPT && oldest) {
      this.#known.delete(oldest[0])
      await this.#send(serialize.close({ type: 'S', name: oldest[1].name }), serialize.sync())
    }
    return statement
  }

  #send(...messages: Uint8Array[]) {
    return this.pg.execProtocolStream(Buffer.concat(messages), { syncToFs: false })
  }

  #asText(value: unknown, type: number): string | null {
    if (value === null || value === undefined) return null
    const serializer = this.pg.serializers[type]
    return serializer ? serializer(value) : String(value)
  }
}

function rawRows(result: Results<Record<string, unknown>> | undefined): RawRows {
  if (!result) return { rows: [], json: [] }
  const json = result.fields.filter((f) => JSON_TYPES.includes(f.dataTypeID)).map((f) => f.name)
  return { rows: result.rows, json }
}
