import { inject } from 'vitest'

/** What the API tests run on: the embedded database, and a PostgreSQL server where there is one. */
export type Kind = 'PGlite' | 'a PostgreSQL server'

export const kinds = (): Kind[] => (inject('postgres') ? ['PGlite', 'a PostgreSQL server'] : ['PGlite'])

let current: Kind = 'PGlite'

/** Says on which the tests that are read or run now do. */
export const use = (kind: Kind) => void (current = kind)
export const inUse = (): Kind => current
