import type { FactValue } from './facts.ts'

/**
 * Answers that every question takes besides its own: what happens in a shop. They are kept as they are; no condition on the fact holds, so that what
 * must rest on it stays shut, and nothing else does.
 */
export const HONEST = {
  'not-done': 'not done here',
  'cannot-tell': 'cannot tell',
  mended: 'it happened, and was mended',
} as const
export type Honest = keyof typeof HONEST

const MARK = '~'

/** An honest answer as it is kept. @param how what was done about it; needed for `mended` */
export const honest = (kind: Honest, how = ''): string =>
  `${MARK}${kind}${how.trim() ? ` ${how.trim()}` : ''}`

/** What an answer says of itself; undefined where it is an answer to what was asked. */
export function honestOf(value: FactValue | undefined): { kind: Honest; how: string } | undefined {
  if (typeof value !== 'string' || !value.startsWith(MARK)) return undefined
  const [kind = '', ...how] = value.slice(MARK.length).split(' ')
  return Object.hasOwn(HONEST, kind) ? { kind: kind as Honest, how: how.join(' ') } : undefined
}

/** In words: `not done here`, `it happened, and was mended: new ring`. */
export function honestWords(value: FactValue): string | undefined {
  const said = honestOf(value)
  return said && (said.how ? `${HONEST[said.kind]}: ${said.how}` : HONEST[said.kind])
}
