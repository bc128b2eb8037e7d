import type { SeatFigures } from '../../setting/taken.ts'
import { typedFigure } from '../../units/typed-figure.ts'
import type { PlausibleKind } from '../../units/plausible.ts'
import type { ShowFigure, TypedReading } from '../kind.ts'

type Typed = NonNullable<TypedReading['seat']>

/** What a seat is worked out from besides its reading: under which name it comes, is kept, is held against, and is said. */
const FIGURES: [typed: keyof Typed, kept: keyof SeatFigures, kind: PlausibleKind, words: string][] = [
  ['case', 'caseMm', 'dimension', 'case'],
  ['nominal', 'nominalMm', 'dimension', 'nominal'],
  ['trial', 'trialMm', 'shim-stack', 'trial stack'],
  ['clearance', 'clearanceMm', 'clearance', 'clearance to leave'],
  ['preload', 'preloadMm', 'clearance', 'preload to give'],
]

/** @returns lengths in mm; nothing where none was typed */
export function seatFigures({ seat, unit, confirmed = false }: TypedReading): { seat?: SeatFigures } {
  if (!seat) return {}
  const figures: SeatFigures = {}
  for (const [typed, kept, kind] of FIGURES) {
    const text = seat[typed]
    if (text !== undefined)
      figures[kept] = typedFigure(`seat.${typed}`, text, unit, kind, { confirmed }).value
  }
  return { seat: figures }
}

export const seatWords = (seat: SeatFigures = {}, show: ShowFigure): string[] =>
  FIGURES.flatMap(([, kept, , words]) =>
    seat[kept] === undefined ? [] : [`${words} ${show(seat[kept], 'mm')}`],
  )
