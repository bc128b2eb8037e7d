import type { FigureGroup } from '@moray/core/drives/own/figure-field'

/** Lists of a draft, each group of them a tab beside the groups of figures. */
export const LISTS = {
  made: 'What it is made of',
  groups: 'Fasteners',
  parts: 'Parts',
  joints: 'Joints and spaces',
  others: 'Seals, tools and the like',
  loose: 'Loose ends',
}
export type Tab = FigureGroup | keyof typeof LISTS
