import { inject, it } from 'vitest'
import { LONG_RUN } from '../../core/tests/long.ts'

/** What the API tests run on: the embedded database, and a PostgreSQL server where there is one. */
export type Kind = 'PGlite' | 'a PostgreSQL server'

export const kinds = (): Kind[] => (inject('postgres') ? ['PGlite', 'a PostgreSQL server'] : ['PGlite'])

let current: Kind = 'PGlite'

/** Says on which the tests that are read or run now do. */
export const use = (kind: Kind) => void (current = kind)
export const inUse = (): Kind => current

const passedOver = (() => undefined) as unknown as typeof it

/** For what has to do with one of them alone. To be asked while a file is read. */
export const itOn = (kind: Kind): typeof it => (inUse() === kind ? it : passedOver)

/**
 * A long walk is walked on one database, the PostgreSQL server where there is one, in half the time; on both in a long run. What it writes by the way
 * is written on both by the other tests. To be asked while a file is read.
 */
export const itOnOne = (): typeof it => (walkedHere() ? it : passedOver)
/** Whether long walks are walked on the one that is in use. */
export const walkedHere = (): boolean => LONG_RUN || inUse() === kinds().at(-1)
