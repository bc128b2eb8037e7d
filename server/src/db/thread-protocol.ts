import type { RawRows } from './raw-rows.ts'

/** What the server and the thread of its database say to each other. `tx` names an open transaction; 0 stands for none. All but `begin` is answered. */
export type Ask =
  | { id: number; do: 'query'; tx: number; sql: string; params: unknown[] }
  | { id: number; do: 'script'; tx: number; sql: string }
  | { do: 'begin'; tx: number }
  | { id: number; do: 'commit' | 'rollback'; tx: number }
  | { id: number; do: 'close' }

export type Say =
  | { ready: true }
  | { failed: PlainError }
  | { id: number; result?: RawRows }
  | { id: number; error: PlainError }
  | { told: string }

/** An error as it crosses between threads: what PostgreSQL says about it beside the message. */
export interface PlainError {
  message: string
  stack?: string
  code?: string
  constraint?: string
}

export function plainError(e: unknown): PlainError {
  const { message, stack, code, constraint } = e as Error & PlainError
  return {
    message: String(message ?? e),
    ...(stack ? { stack } : {}),
    ...(typeof code === 'string' ? { code } : {}),
    ...(typeof constraint === 'string' ? { constraint } : {}),
  }
}

export const asError = (plain: PlainError): Error => Object.assign(new Error(plain.message), plain)
