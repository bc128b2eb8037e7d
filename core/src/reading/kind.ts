import type { Measured } from '../setting/measured.ts'
import type { ReadingHow } from '../setting/taken.ts'
import type { PlausibleKind } from '../units/plausible.ts'

/** A reading as it was typed: every figure in bench notation, bare numbers in `unit`. The contract's request says the same. */
export interface TypedReading {
  text: string
  unit: string
  /** The way it is read, where its measure has several. */
  as?: ReadingHow['as']
  /** The value was questioned and is meant. */
  confirmed?: boolean
  /** Of a seat: what else it is worked out from. */
  seat?: { case?: string; nominal?: string; trial?: string; clearance?: string; preload?: string }
  /** Of a rolling torque: drag of lips that are in, and whether the bearings have run. */
  drag?: string
  runIn?: boolean
  /** Where round, degrees; of a runout how far along the shaft, mm. */
  clockDeg?: number
  alongMm?: number
  /** Of a swing: places along it with what was read there, and which turning point is meant. */
  swing?: readonly { at: number; text: string }[]
  extreme?: 'highest' | 'lowest'
  /** Of a ride-height search: places of the pinion and how far out the gear rode. */
  rides?: readonly { place: string; ride: string }[]
}

/** What was read, before it is worth anything. */
export interface Shown {
  /** What the gauge showed, in mm or Nm. */
  raw: number
  /** The unit that it was typed in. */
  unit: string
  /** As it was typed. */
  text: string
  /** Standard uncertainty that several points leave of one figure; 0 of a single one. In the unit of `raw`. */
  u: number
  /** How it was taken, where that says what it is worth. */
  how: ReadingHow
}

/** How words show a figure: its own system first where the reader has one. */
export type ShowFigure = (value: number, unit: 'mm' | 'Nm') => string

/** One way in which something is read. A reading is of just one kind; `kindOf` says of which. */
export interface ReadingKind {
  /** What a request may say with it that belongs to some kinds only; of another kind it is refused. */
  extras: readonly Extra[]
  /** Which range a figure of it is held against, and whether it is a length or a torque. */
  figure: (measure: Measured) => PlausibleKind
  /**
   * Reads what was typed.
   * @throws InputError where something is missing, or is not understood
   */
  parse: (measure: Measured, typed: TypedReading, dialPerTurnMm: number | null) => Shown
  /**
   * What is judged, in the unit of the measure.
   * @param masterMm measured length of the setting master, or diameter of the arbor, that was used; the sheet's when left out
   * @throws InputError where the figures do not go together
   */
  value: (measure: Measured, shown: { raw: number; how: ReadingHow }, masterMm?: number) => number
  /** @throws InputError where such a figure says nothing of what is measured */
  check: (measure: Measured, shown: Shown, value: number) => void
  /** How it was taken, in parts of a sentence; empty for what it knows nothing of. */
  explain: (reading: { raw: number; how: ReadingHow }, show: ShowFigure) => string[]
}

export type Extra = 'seat' | 'drag' | 'runIn' | 'alongMm' | 'swing' | 'rides'
