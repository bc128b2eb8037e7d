import type { GraphList } from '@moray/core/drives/graph/rows'
import { FASTENER_TORQUE } from '@moray/core/drives/own/shapes'
import type { UnitList } from '@moray/core/drives/own/rows'

/** What may be typed where a unit belongs to it. */
export const SHAPES = {
  torque: FASTENER_TORQUE,
  length: { is: 'quantity', quantity: 'length', range: false, min: -1000, max: 1000 },
  window: { is: 'quantity', quantity: 'length', range: true, single: true, min: -1000, max: 1000 },
  volume: { is: 'number', unit: 'ml', whole: false, min: 1, max: 100_000 },
} as const

/** A field of a row: how it is entered, and where it goes. */
export interface Column {
  key: string
  label: string
  is:
    | 'text'
    | 'lines'
    | 'count'
    | 'number'
    | 'flag'
    | 'choice'
    | 'choices'
    | 'length'
    | 'torque'
    | 'window'
    | 'volume'
    | 'edges'
    | 'pieces'
    | 'seal'
    | 'setting'
    | 'place'
  /** The row is nothing without it. */
  needed?: boolean
  /** Stands before the value in the list, where the value alone does not say what it is. */
  said?: string
  most?: number
  placeholder?: string
  choices?: Record<string, string>
  /** Lists whose rows an edge may lead to. */
  to?: readonly GraphList[]
  /** Only one of them. */
  one?: boolean
  wide?: boolean
  /** Not in the list, only in the form. */
  quiet?: boolean
}

/** A column that holds a figure with a unit. */
export const isFigure = ({ is }: Pick<Column, 'is'>): boolean => is in SHAPES

export interface RowForm {
  list: Exclude<GraphList, 'tests' | 'sealPairs'> | UnitList | 'service'
  title: string
  /** What the button adds. */
  one: string
  /** Said while the list is empty. */
  empty: string
  columns: Column[]
  /** Columns that are shown at first, by their keys: what a manual prints in one table. */
  shown: readonly string[]
  /** It is also taken from a table. */
  table?: 'parts' | 'groups' | 'joints' | 'spaces'
  /** What taking a row out is called. */
  strike?: string
}

/** Hand of a thread, or way of turning. */
export const HANDS = { right: 'right-hand', left: 'left-hand' }
export const name: Column = { key: 'name', label: 'Name', is: 'text', needed: true, most: 80, wide: true }
/** Where it is on the section drawing. */
export const PLACE: Column = { key: 'place', label: 'Place on the drawing', is: 'place', quiet: true }
/** What has to be off before. */
export const AFTER: Column = {
  key: 'after',
  said: 'after',
  label: 'Cannot come off before',
  is: 'edges',
  to: ['parts', 'groups'],
}
export const BEHIND: Column = {
  key: 'interfaces',
  said: 'got at only once this is parted:',
  label: 'Got at only once this is parted',
  is: 'edges',
  to: ['interfaces'],
}
