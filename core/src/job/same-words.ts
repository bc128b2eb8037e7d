import type { Ask } from '../route/route.ts'
import { counted } from './closings.ts'
import type { Closing, JobRecord } from './record.ts'

/** So many inspection points with the very same sentence are pointed out. */
const MANY = 3

/** An inspection point: words of what the eye saw, or a picture. */
export const isSeen = ({ kind, fact }: Pick<Ask, 'kind' | 'fact'>): boolean =>
  kind === 'text' && fact.endsWith('.seen')

const plain = (words: string) =>
  words
    .toLowerCase()
    .replaceAll(/[\s.,;!]+/g, ' ')
    .trim()

const seenIn = (closings: readonly Closing[]) =>
  counted(closings).flatMap((c) =>
    Object.entries(c.answers).flatMap(([fact, said]) =>
      isSeen({ kind: 'text', fact }) && typeof said === 'string' ? [{ step: c.step, words: said }] : [],
    ),
  )

/** At how many other inspection points these very words stand; 0 where that is nothing to point out yet. */
export function sameWords({ closings }: Pick<JobRecord, 'closings'>, step: string, words: string): number {
  const same = seenIn(closings).filter((s) => s.step !== step && plain(s.words) === plain(words))
  return same.length + 1 >= MANY ? same.length : 0
}

/** Sentences that stand at many inspection points of a job, each with how many. */
export function repeatedWords({
  closings,
}: Pick<JobRecord, 'closings'>): { words: string; points: number }[] {
  const groups = new Map<string, { words: string; points: number }>()
  for (const { words } of seenIn(closings)) {
    const group = groups.get(plain(words)) ?? { words, points: 0 }
    group.points++
    groups.set(plain(words), group)
  }
  return [...groups.values()].filter((g) => g.points >= MANY)
}
