import type { ReadingKind } from '../kind.ts'
import { plain } from './plain.ts'

/** A figure at one of several places round a gear or a cover; the place may be left out. */
export const clock: ReadingKind = {
  ...plain,
  explain: ({ raw, how }, show) => (how.as === 'gap' ? [`read as gap ${show(raw, 'mm')}`] : []),
}
