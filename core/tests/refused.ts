import { expect } from 'vitest'
import { InputError } from '../src/checks/input-error.ts'

/** Runs `work`, which must be refused, and returns the error. */
export function refused(work: () => unknown): InputError {
  try {
    work()
  } catch (e) {
    expect(e).toBeInstanceOf(InputError)
    return e as InputError
  }
  throw new Error('nothing was refused')
}

/** A small repeatable random source (mulberry32): numbers in [0, 1). */
export function random(seed: number): () => number {
  let a = seed | 0
  return () => {
    a = (a + 0x6d2b79f5) | 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}
