import { FASTENER_TORQUE } from '@moray/core/drives/own/figures'
import type { FurtherList } from '@moray/core/drives/own/further-rows'

/** What may be typed where a unit belongs to it. */
export const SHAPES = {
  torque: FASTENER_TORQUE,
  length: { is: 'quantity', quantity: 'length', range: false, min: -1000, max: 1000 },
} as const

/** A field of a row: how it is entered, and where it goes. */
export interface Column {
  key: string
  label: string
  is: 'text' | 'lines' | 'count' | 'flag' | 'choice' | 'length' | 'torque' | 'fasteners' | 'seal'
  /** The row is nothing without it. */
  needed?: boolean
  /** Stands before the value in the list, where the value alone does not say what it is. */
  said?: string
  most?: number
  placeholder?: string
  choices?: Record<string, string>
  wide?: boolean
}

export interface RowForm {
  list: FurtherList
  title: string
  /** What the button adds. */
  one: string
  /** Said while the list is empty. */
  empty: string
  columns: Column[]
}

const HANDS = { right: 'right-hand', left: 'left-hand' }
const name: Column = { key: 'name', label: 'Name', is: 'text', needed: true, most: 80, wide: true }

/** The lists that a sheet may hold besides its figures, each with what is entered of a row. */
export const ROW_FORMS: RowForm[] = [
  {
    list: 'sealDetails',
    title: 'Seals',
    one: 'a seal',
    empty: 'Size, order and spring side of each seal, so that building back says them.',
    columns: [
      name,
      {
        key: 'at',
        label: 'Sits',
        is: 'choice',
        needed: true,
        choices: {
          shaft: 'on a shaft',
          carrier: 'in the carrier',
          cover: 'in a cover',
          plug: 'at a plug',
          passage: 'at a passage',
          'shift-shaft': 'on the shift shaft',
        },
      },
      { key: 'seal', label: 'On the drawing', is: 'seal' },
      { key: 'size', label: 'Size', is: 'text', most: 60, placeholder: '25 × 35 × 7' },
      { key: 'order', said: 'in its bore number', label: 'Number in its bore', is: 'count', most: 9 },
      {
        key: 'springs',
        said: 'spring',
        label: 'Spring looks',
        is: 'choice',
        choices: { inward: 'to the oil', outward: 'to the water' },
      },
      { key: 'depth', label: 'How deep', is: 'text', most: 80, placeholder: 'flush, or 2 mm in' },
      { key: 'film', label: 'Film on its outside', is: 'text', most: 80 },
      {
        key: 'moves',
        said: 'shaft',
        label: 'There the shaft',
        is: 'choice',
        choices: { turns: 'turns', slides: 'slides', nothing: 'stands still' },
      },
    ],
  },
  {
    list: 'closures',
    title: 'Joints',
    one: 'a joint',
    empty: 'What closes the case, and what seals it.',
    columns: [
      name,
      {
        key: 'kind',
        label: 'Kind',
        is: 'choice',
        needed: true,
        choices: {
          cover: 'cover',
          carrier: 'bearing carrier',
          retainer: 'threaded retainer',
          halves: 'two halves',
          plug: 'plug',
        },
      },
      {
        key: 'sealedBy',
        said: 'sealed by',
        label: 'Sealed by',
        is: 'text',
        most: 120,
        placeholder: 'O-ring, oiled',
      },
      { key: 'fasteners', label: 'Closed by', is: 'fasteners', wide: true },
      { key: 'tested', label: 'proved tight with the case', is: 'flag' },
    ],
  },
  {
    list: 'shiftStates',
    title: 'Rod and lever',
    one: 'a place of the rod',
    empty: 'Where rod or lever stand for opening, closing and joining.',
    columns: [
      {
        key: 'act',
        label: 'For',
        is: 'choice',
        needed: true,
        choices: {
          opening: 'opening',
          closing: 'closing',
          joining: 'joining upper and lower',
          measuring: 'measuring',
        },
      },
      {
        key: 'gear',
        label: 'Gear',
        is: 'choice',
        needed: true,
        choices: { neutral: 'neutral', forward: 'forward', reverse: 'reverse' },
      },
      { key: 'rod', label: 'Rod or lever', is: 'text', most: 120, placeholder: 'flat to port', wide: true },
      { key: 'heightMm', label: 'Height of the rod', is: 'length' },
    ],
  },
  {
    list: 'propellers',
    title: 'Propellers',
    one: 'a propeller',
    empty: 'What belongs on the shaft, in which order, and how it is locked.',
    columns: [
      name,
      {
        key: 'place',
        label: 'Place',
        is: 'choice',
        choices: { only: 'the only one', front: 'front one', rear: 'rear one' },
      },
      {
        key: 'held',
        label: 'Held by',
        is: 'choice',
        needed: true,
        choices: {
          'tab-washer': 'nut and tab washer',
          'castle-pin': 'castle nut and split pin',
          'spring-washer': 'nut and spring washer',
          'shear-pin': 'shear pin',
          'self-locking': 'self-locking nut',
        },
      },
      {
        key: 'turnsForward',
        said: 'in forward',
        label: 'Turns in forward, seen from aft',
        is: 'choice',
        choices: HANDS,
      },
      { key: 'torqueNm', label: 'Torque', is: 'torque' },
      { key: 'washers', label: 'Washers and hub in order, one a line', is: 'lines', most: 10, wide: true },
    ],
  },
  {
    list: 'anodes',
    title: 'Anodes',
    one: 'an anode',
    empty: 'Where they sit, and of which alloy for which water.',
    columns: [
      { key: 'place', label: 'Where', is: 'text', needed: true, most: 80, wide: true },
      { key: 'count', said: '×', label: 'How many', is: 'count', most: 40 },
      { key: 'salt', said: 'salt', label: 'In salt water', is: 'text', most: 40 },
      { key: 'brackish', said: 'brackish', label: 'In brackish water', is: 'text', most: 40 },
      { key: 'fresh', said: 'fresh', label: 'In fresh water', is: 'text', most: 40 },
    ],
  },
  {
    list: 'tools',
    title: 'Tools',
    one: 'a tool',
    empty: 'What lies ready before the case is opened.',
    columns: [
      name,
      {
        key: 'substitute',
        said: 'in its place:',
        label: 'What serves in its place',
        is: 'text',
        most: 200,
        wide: true,
      },
      { key: 'serials', label: 'Fits serial numbers', is: 'text', most: 80 },
    ],
  },
  {
    list: 'attitudes',
    title: 'Which way up',
    one: 'an attitude',
    empty: 'How the case stands for an act, and what falls out when it is turned.',
    columns: [
      { key: 'act', label: 'For', is: 'text', needed: true, most: 80, wide: true },
      { key: 'up', label: 'Up', is: 'text', needed: true, most: 80 },
      { key: 'falls', said: 'falls out:', label: 'Falls out', is: 'text', most: 120 },
    ],
  },
]
