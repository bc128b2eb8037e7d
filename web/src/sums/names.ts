/** Words and units of fields that stand inside a result; those at its top are described with the calculation. */
const NESTED: Record<string, readonly [label: string, unit?: string]> = {
  stacks: ['stacks'],
  predicted: ['will read'],
  thicknessMm: ['thickness', 'mm'],
  pieceIds: ['pieces'],
  pieces: ['number of pieces'],
  value: ['value', 'mm'],
  U: ['give or take', 'mm'],
  probability: ['chance', 'share'],
  atMm: ['at', 'mm'],
  tirMm: ['total runout', 'mm'],
  countedTirMm: ['of the readings that count', 'mm'],
  eccentricityMm: ['bend', 'mm'],
  sineTirMm: ['what the bend alone reads', 'mm'],
  highAtDeg: ['highest at', 'deg'],
  secondHarmonicMm: ['ovality', 'mm'],
  blips: ['nicks, by place'],
  slopeChange: ['change of slope', 'mm/mm'],
  fraction: ['share of the torque', 'share'],
  order: ['order'],
  upperId: ['upper'],
  lowerId: ['lower'],
  ratio: ['ratio'],
  matches: ['matches'],
  mean: ['mean'],
  sd: ['spread (one sigma)'],
  lengthMin: ['toward the toe'],
  lengthMax: ['toward the heel'],
  profileMin: ['toward the root'],
  profileMax: ['toward the top'],
  kind: ['kind'],
  means: ['what it is'],
  moves: ['what moves'],
  effect: ['what it does'],
  label: ['what'],
  speaksFor: ['speaks for it'],
  speaksAgainst: ['speaks against it'],
  seenHere: ['times found here'],
  cost: ['effort'],
  expectedBits: ['what it tells, of one yes-or-no'],
  tauMin: ['time constant', 'min'],
  leakMlPerMin: ['leak', 'ml/min'],
  pinionMm: ['pinion', 'mm'],
  gearMm: ['gear', 'mm'],
  agrees: ['agrees'],
  trial: ['trial'],
  quantity: ['measure'],
  off: ['off by', 'mm'],
}
/** Fields that are for programs and say nothing to a reader. */
const HIDDEN = ['id']

export const isShown = (field: string): boolean => !HIDDEN.includes(field)
/** The label of a field inside a result; a name that the input gave (a stack, a measure) stays as it is. */
export const labelOf = (field: string): string => NESTED[field]?.[0] ?? field
export const unitOf = (field: string): string | undefined => NESTED[field]?.[1]

/** What the words of a result stand for. */
const WORDS: Record<string, string> = {
  tight: 'tight',
  leaks: 'leaks',
  'too-short': 'too short to tell',
  invalid: 'cannot be: the pressure rose',
  fit: 'a plan fits',
  'no-fit': 'nothing in the drawer fits',
  straight: 'straight',
  offset: 'runs off centre, not bent',
  skew: 'stands askew',
  kink: 'bent at one place',
  line: 'a straight line',
  decay: 'a decay',
  centred: 'centred',
  setting: 'a matter of setting: a shim mends it',
  axes: 'the axes: no shim mends it',
  date: 'the calendar',
  hours: 'the running hours',
}
export const wordOf = (value: string): string => WORDS[value] ?? value
