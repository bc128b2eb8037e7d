import type { SetMeasure } from './measures.ts'
import type { ReadingHow } from './taken.ts'

/** What a trial build leaves out, loose or turned round, and what undoes it; in the order in which the route lists them. */
export const TEMPORARY = {
  lips: 'lips left out',
  rings: 'O-rings left out',
  bolts: 'bolts finger-tight',
  guide: 'guide bolts or parts turned round as guides',
  retainer: 'retainer just touching',
  locker: 'threads without locker',
} as const
export type Temporary = keyof typeof TEMPORARY

/** How a float is read with a trial stack, in order; what of it has to be undone afterwards. Chapter: three gears set to the case. */
export const FLOAT_RECIPE: readonly { words: string; undone?: Temporary }[] = [
  { words: 'Trial stack in, rings left out', undone: 'rings' },
  { words: 'Bolts finger-tight', undone: 'bolts' },
  { words: 'Retainer just touching, fixture backed off two turns', undone: 'retainer' },
  { words: 'Case turned so that the gear hangs on its bearing' },
  { words: 'Gear centred, indicator at zero, then pulled' },
]

/** What has to hold before a reading of this measure counts; a float has a recipe of its own. */
export const beforeOf = (measure: Pick<SetMeasure, 'before'>, as: ReadingHow['as']): readonly string[] =>
  as === 'float' ? FLOAT_RECIPE.map((r) => r.words) : measure.before

/**
 * What is in a trial build for now: what was said when it was built up, and what a float that was read since has left out or loose.
 * @param said ids with blanks between, as the route keeps a list
 */
export function withFloat(said: string): string {
  const are = new Set([...said.split(' '), ...FLOAT_RECIPE.flatMap((r) => r.undone ?? [])])
  return Object.keys(TEMPORARY)
    .filter((id) => are.has(id))
    .join(' ')
}
