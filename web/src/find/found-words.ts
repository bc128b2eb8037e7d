import type { FoundLine } from '@moray/contract/found'

/** Where what matched was said. */
export const FOUND_IN: Record<FoundLine['kind'], string> = {
  job: 'job',
  stack: 'shims, mm and inch',
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
