import type { FoundLine } from '@moray/contract/found'

const FOUND_IN: Record<FoundLine['kind'], string> = {
  job: 'job',
  stack: 'shims',
  reading: 'note at a reading',
  answer: 'step',
  note: 'note',
  'open-item': 'open item',
  grade: 'grade',
  part: 'row',
  outcome: 'fault found',
  approval: 'agreed',
  picture: 'picture',
  'drive-part': 'part of the drive',
}

/** Where what matched was said; of shims, in which state of the gearcase. */
export function foundIn({ kind, ref }: FoundLine): string {
  const trial = kind === 'stack' ? Number(ref.split(' ').at(-1)) : NaN
  if (Number.isNaN(trial)) return FOUND_IN[kind]
  return trial === 0 ? `${FOUND_IN.stack} as found` : `${FOUND_IN.stack}, trial ${trial}`
}
