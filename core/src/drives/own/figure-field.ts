import type { Quantity } from '../../units/factors.ts'
import type { SourceKind } from './source.ts'

/** The order in which manuals go through a drive. */
export const FIGURE_GROUPS = {
  identity: 'What it is',
  gears: 'Gears',
  setting: 'Depth, backlash, play',
  stacks: 'Stacks',
  bearings: 'Bearings',
  closing: 'Opening and closing',
  tightness: 'Pressure test',
  filling: 'Filling',
} as const
export type FigureGroup = keyof typeof FIGURE_GROUPS

/** What a figure is good for. */
export type Ability =
  | 'setting'
  | 'contact'
  | 'preload'
  | 'crush'
  | 'torque'
  | 'tightness'
  | 'filling'
  | 'inspection'
  | 'service'
  | 'estimate'

/** What kind of value a figure is: one or a range, in which quantity; a count; a choice; words. */
export type FigureShape =
  | {
      is: 'quantity'
      quantity: Quantity
      range?: boolean
      /** One figure may stand for a range: it is both of its limits. */
      single?: boolean
      min: number
      max: number
    }
  | {
      is: 'number'
      unit: 'ml' | 'min' | 'ml/min' | 'teeth' | 'kg' | ''
      whole: boolean
      min: number
      max: number
    }
  | { is: 'choice'; options: { value: string | number | boolean; label: string }[] }
  | { is: 'words'; max: number; list?: boolean }

/** A figure that a sheet can hold. */
export interface FigureField {
  path: string
  group: FigureGroup
  label: string
  help?: string
  shape: FigureShape
  /** Where it usually comes from. */
  usual: SourceKind
  /** Place on the section drawing. */
  place?: string
  /** What it unlocks; without it that cannot be done. */
  for?: Ability
  /** What is taken for it while nobody knows better, in words. */
  otherwise?: string
  /** The drawing stands in for it with something of its own: nothing else may be read off that. */
  drawn?: boolean
  /** A value that may be taken knowingly, marked as assumed. */
  assume?: { value: number; why: string }
}
