/** Errors of PostgreSQL that mean something to us, by name. */
export const UNIQUE_VIOLATION = '23505'
const SERIALIZATION_FAILURE = '40001'
const DEADLOCK_DETECTED = '40P01'

/** Another try of the whole transaction may well succeed. */
const TRY_AGAIN = new Set([SERIALIZATION_FAILURE, DEADLOCK_DETECTED])

/** A page of the database does not read as it was written, or its file is not there. */
export const DAMAGED = new Set(['XX001', 'XX002', '58P01'])

/** Errors that mean: the disk would not take it. */
export const STORAGE: Record<string, string> = {
  '53100': 'the disk is full',
  ENOSPC: 'the disk is full',
  EDQUOT: 'the disk quota is used up',
  '25006': 'the data folder is read-only',
  EROFS: 'the data folder is read-only',
  EACCES: 'the data folder may not be written',
  '58030': 'the data folder could not be written',
}

/** The line to the database server broke, or there is none. */
export const LINE_DOWN = '08006'
/** It broke amid a commit: it is not known whether that was done. */
export const RESULT_UNKNOWN = '08007'
const TOO_MANY_CONNECTIONS = '53300'

/** Errors that mean: the database server cannot be asked; classes 08 (connection) and 57P (shutdown). A socket's own errors are not the database's. */
export const isLineDown = (code: string): boolean => /^(08|57P)/.test(code) || code === TOO_MANY_CONNECTIONS

const text = (e: unknown, name: string) => {
  const value = (e as Record<string, unknown> | null | undefined)?.[name]
  return typeof value === 'string' ? value : ''
}

export const codeOf = (e: unknown): string => text(e, 'code')
export const constraintOf = (e: unknown): string => text(e, 'constraint')

/**
 * Whether the whole transaction is to be tried again: two collided, or both brought the same request id and the other one was
 * first; the second try then finds what it wrote.
 */
export const isCollision = (e: unknown): boolean =>
  TRY_AGAIN.has(codeOf(e)) || (codeOf(e) === UNIQUE_VIOLATION && constraintOf(e) === 'request_log_pkey')

const MOST_TRIES = 4

/** Runs `work` again while transactions collide, at most four times in all. */
export async function withRetries<T>(work: () => Promise<T>): Promise<T> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await work()
    } catch (e) {
      if (attempt >= MOST_TRIES || !isCollision(e)) throw e
    }
  }
}
