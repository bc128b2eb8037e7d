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
