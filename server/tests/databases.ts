import { inject, it } from 'vitest'
import { LONG_RUN } from '../../core/tests/long.ts'

/** What the API tests run on: the embedded database, and a PostgreSQL server where one is installed. Each is a project of vitest.config.ts. */
export type Kind = 'PGlite' | 'PostgreSQL'

declare module 'vitest' {
  export interface ProvidedContext {
    database: Kind
    /** Long walks are walked on one database alone, and this is the one. */
    walks: boolean
    /** Folder of this run; it goes when the run is over. */
    folder: string
    /** A dump of the demo in PGlite; '' on a PostgreSQL server. */
    demoFile: string
    /** Address of the PostgreSQL server, without a database; the demo is its database "demo". '' on PGlite. */
    postgres: string
  }
}

export const onPostgres = (): boolean => inject('database') === 'PostgreSQL'

/** For what has to do with one of them alone. */
export const itOn = (kind: Kind) => it.runIf(inject('database') === kind)

/** Whether long walks are walked here: on the PostgreSQL server where there is one, in half the time; on both in a long run. */
export const walkedHere = (): boolean => LONG_RUN || inject('walks')
export const itOnOne = () => it.runIf(walkedHere())
