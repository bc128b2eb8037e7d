import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { syncPath } from '../db/pglite.ts'
import { halfName } from './place.ts'

/** What the folder of a shop remembers of its copies: the copies themselves may lie on a stick in a drawer. */
export interface Remembered {
  /** The newest that was proved. */
  proved?: { file: string; at: string; bytes: number; jobs: number; broken: number }
  /** The newest try that came to nothing. */
  failed?: { at: string; why: string }
}

const FILE = 'copies.json'

export function readRemembered(data: string): Remembered {
  const file = join(data, FILE)
  if (!existsSync(file)) return {}
  try {
    return JSON.parse(readFileSync(file, 'utf8')) as Remembered
  } catch {
    // nothing depends on it but a notice: it is written anew by the next copy
    return {}
  }
}

/** Adds to what is remembered. A copy that was proved makes an earlier failure past. */
export function remember(data: string, { proved, failed }: Remembered): void {
  const before = readRemembered(data)
  const next: Remembered = proved ? { proved } : { ...before, ...(failed ? { failed } : {}) }
  const half = halfName(join(data, FILE))
  writeFileSync(half, `${JSON.stringify(next, null, 2)}\n`, { mode: 0o600 })
  syncPath(half)
  renameSync(half, join(data, FILE))
}
