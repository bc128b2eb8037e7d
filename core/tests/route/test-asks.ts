import type { Ask } from '../../src/route/route.ts'
import type { SlipId } from '../../src/route/slips.ts'

/** Questions that the drives' routes no longer ask, and that the engine still has to judge: old records hold them. */
export const tick = (fact: string, label: string, slip?: SlipId, wrong?: string): Ask => ({
  kind: 'tick',
  fact,
  label,
  must: { fact, is: true },
  wrong: wrong ?? `Not ticked yet: ${label.toLowerCase()}.`,
  ...(slip ? { slip } : {}),
})

export const optionalTick = (fact: string, label: string): Ask => ({
  kind: 'tick',
  fact,
  label,
  optional: true,
})

/** One of several, of which only some close the step. */
export const rightOf = (
  fact: string,
  label: string,
  options: Record<string, string>,
  right: string | string[],
  wrong: string,
  slip?: SlipId,
): Ask => ({
  kind: 'choice',
  fact,
  label,
  options: Object.entries(options).map(([value, l]) => ({ value, label: l })),
  must: { fact, oneOf: Array.isArray(right) ? right : [right] },
  wrong,
  ...(slip ? { slip } : {}),
})
