/** Places round a gear or a cover, degrees: as on a clock at 12, 3, 6 and 9. */
export const QUARTERS = [0, 90, 180, 270] as const

/** How the next reading of a bearing is taken. */
export interface BearingDraft {
  as?: 'gap' | 'float' | 'play' | undefined
  drag: string
  runIn: boolean
}

/** What the pair wants of its depth, while it is being found: by which way, and the points of a search as they were typed. */
export interface RideDraft {
  as: 'ride-height' | 'loose-pair'
  points: { place: string; ride: string }[]
}

/** A swing that is being read: the samples as they were typed, at even steps. */
export interface SwingDraft {
  extreme: 'highest' | 'lowest'
  samples: string[]
}

/** What a gear's seat is worked out from, as it was typed. */
export interface SeatDraft {
  as: 'case-and-gear' | 'float'
  case: string
  nominal: string
  trial: string
  clearance: string
  preload: string
}

export const EMPTY_SEAT: SeatDraft = {
  as: 'case-and-gear',
  case: '',
  nominal: '',
  trial: '',
  clearance: '',
  preload: '',
}

/** The texts that go with this way of reading; the trial stack is the one that is built in where nobody says another. */
export function seatTexts(draft: SeatDraft, builtMm: number | undefined): Record<string, string> {
  const { case: ofCase, nominal, clearance, preload } = draft
  const trial = draft.trial || (builtMm === undefined ? '' : `${builtMm} mm`)
  const texts = draft.as === 'float' ? { trial, clearance, preload } : { case: ofCase, nominal }
  return Object.fromEntries(Object.entries(texts).filter(([, t]) => t.trim() !== ''))
}
