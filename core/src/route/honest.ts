import type { FactValue } from './facts.ts'

/**
 * Answers that every question takes besides its own: what happens in a shop. They are kept as they are; no condition on the fact holds, so that what
 * must rest on it stays shut, and nothing else does.
 */
export const HONEST = {
  'not-done': 'not done here',
  'cannot-tell': 'cannot tell',
  elsewhere: 'done elsewhere',
  mended: 'it happened, and was mended',
} as const
export type Honest = keyof typeof HONEST

/** What has to be said with an answer: how it was mended, or by whom it was done, and how that is known. */
export const WANTS_WORDS: Partial<Record<Honest, string>> = {
  elsewhere: 'by whom, and whether that was seen, stands on paper or was said',
  mended: 'how it was mended',
}

/** Nobody here has done it: what must rest on its answer stays shut. */
export const isNotHere = (value: FactValue | undefined): boolean => {
  const kind = honestOf(value)?.kind
  return kind === 'not-done' || kind === 'elsewhere'
}

const MARK = '~'

/** An honest answer as it is kept. @param how what was done about it, or by whom */
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
