/**
 * Seed table of the fault finder: causes with how common they are, findings with how strongly each speaks for a
 * cause, and checks with what they can show and what they cost. Likelihoods are P(finding | cause); a pair that is
 * not listed has the finding's background. All are defaults that a shop's own history may overrule.
 */
/** What a drive has, as far as a fault can lie in it. */
export const TRAITS = [
  'propeller',
  'shift',
  'dog-clutch',
  'friction-clutch',
  'driveshaft',
  'carrier',
  'oil',
  'drain-screw',
  'gears',
  'preload',
  'input-joint',
  'pump',
  'telltale',
  'belt',
  'test',
] as const
export type Trait = (typeof TRAITS)[number]

interface OfDrives {
  /** What a drive has to have for it; every drive where left out. */
  of?: readonly Trait[]
}

export interface Cause extends OfDrives {
  id: string
  label: string
  /** How common, relative to the others. */
  weight: number
}

export interface Finding extends OfDrives {
  id: string
  label: string
  /** P(finding) when the cause has nothing to do with it. */
  background: number
  speaksFor: Record<string, number>
}

export interface Check extends OfDrives {
  id: string
  label: string
  /** look 1, drain 2, pressure test 4, open 10. */
  cost: number
  /** How long it takes, about. */
  minutes: number
  shows: string[]
}

export const causes: Cause[] = [
  { id: 'propshaft-seal', label: 'Propeller shaft seal or its land', weight: 5, of: ['propeller'] },
  { id: 'shift-seal', label: 'Shift shaft seal hard, or its O-ring', weight: 3, of: ['shift'] },
  { id: 'driveshaft-seal', label: 'Driveshaft or water pump seal', weight: 2, of: ['driveshaft', 'oil'] },
  { id: 'carrier-o-ring', label: 'Carrier O-ring', weight: 2, of: ['carrier'] },
  { id: 'screw-gasket', label: 'Gasket of a drain or vent screw', weight: 3, of: ['drain-screw'] },
  { id: 'housing-crack', label: 'Cracked or porous housing', weight: 1 },
  { id: 'clutch-slip', label: 'Slipping friction clutch', weight: 1, of: ['friction-clutch'] },
  { id: 'wrong-oil', label: 'Wrong oil, or overload', weight: 1, of: ['oil'] },
  { id: 'dog-rounded', label: 'Rounded clutch dogs and gear windows', weight: 2, of: ['dog-clutch'] },
  {
    id: 'shift-adjustment',
    label: 'Shift rod height, clamp or linkage out of adjustment',
    weight: 3,
    of: ['shift'],
  },
  { id: 'shift-cam', label: 'Worn shift cam', weight: 1, of: ['shift'] },
  { id: 'shaft-bent', label: 'Bent propeller shaft', weight: 2, of: ['propeller'] },
  { id: 'blade-bent', label: 'Bent propeller blade', weight: 2, of: ['propeller'] },
  { id: 'carrier-bearing', label: 'Worn carrier bearing', weight: 1.5, of: ['carrier'] },
  { id: 'contact-off', label: 'Contact off to one end: depth or backlash', weight: 1, of: ['gears'] },
  { id: 'preload-lost', label: 'Bearing preload lost', weight: 1, of: ['preload'] },
  { id: 'shaft-sheared', label: 'Shaft sheared by a shift at speed or a strike', weight: 0.7 },
  { id: 'water-tube', label: 'Water tube not in its grommet, or folded', weight: 1, of: ['pump'] },
  { id: 'pump-key', label: 'Key of the water pump missing or sheared', weight: 0.7, of: ['pump'] },
  { id: 'universal-joint', label: 'Universal joint or input coupling', weight: 1, of: ['input-joint'] },
  { id: 'belt-worn', label: 'Belt worn, slack or jumped', weight: 2, of: ['belt'] },
  { id: 'dry-splines', label: 'Dry splines, or the wrong thrust washer', weight: 1, of: ['propeller'] },
]

export const findings: Finding[] = [
  {
    id: 'milky-oil',
    label: 'Milky oil',
    of: ['oil'],
    background: 0.03,
    speaksFor: {
      'propshaft-seal': 0.7,
      'shift-seal': 0.5,
      'driveshaft-seal': 0.6,
      'housing-crack': 0.6,
      'screw-gasket': 0.5,
      'carrier-o-ring': 0.6,
    },
  },
  {
    id: 'empty-case',
    label: 'Case empty or low',
    of: ['oil'],
    background: 0.03,
    speaksFor: {
      'propshaft-seal': 0.4,
      'shift-seal': 0.6,
      'carrier-o-ring': 0.4,
      'housing-crack': 0.5,
      'screw-gasket': 0.4,
    },
  },
  {
    id: 'film-shift-shaft',
    label: 'Oil film near the shift shaft',
    of: ['shift'],
    background: 0.02,
    speaksFor: { 'shift-seal': 0.7 },
  },
  {
    id: 'film-hub',
    label: 'Oil film near the propeller hub',
    of: ['propeller'],
    background: 0.03,
    speaksFor: { 'propshaft-seal': 0.6, 'carrier-o-ring': 0.6 },
  },
  {
    id: 'fishing-line',
    label: 'Fishing line behind the propeller',
    of: ['propeller'],
    background: 0.05,
    speaksFor: { 'propshaft-seal': 0.4 },
  },
  {
    id: 'leak-turning',
    label: 'Pressure falls only while the propeller shaft turns',
    of: ['test', 'propeller'],
    background: 0.01,
    speaksFor: { 'propshaft-seal': 0.8, 'shaft-bent': 0.2 },
  },
  {
    id: 'leak-still',
    label: 'Pressure falls with everything still',
    of: ['test'],
    background: 0.03,
    speaksFor: {
      'screw-gasket': 0.8,
      'carrier-o-ring': 0.7,
      'housing-crack': 0.8,
      'shift-seal': 0.4,
      'propshaft-seal': 0.3,
      'driveshaft-seal': 0.4,
    },
  },
  {
    id: 'black-oil',
    label: 'Black, burnt oil',
    of: ['oil'],
    background: 0.03,
    speaksFor: { 'clutch-slip': 0.8, 'wrong-oil': 0.6, 'preload-lost': 0.2 },
  },
  {
    id: 'chatter',
    label: 'Chatter at low speed',
    background: 0.03,
    speaksFor: { 'clutch-slip': 0.6, 'wrong-oil': 0.3, 'universal-joint': 0.4, 'belt-worn': 0.5 },
  },
  {
    id: 'jumps-out',
    label: 'Jumps out of gear under load',
    of: ['shift'],
    background: 0.02,
    speaksFor: { 'dog-rounded': 0.8, 'shift-adjustment': 0.4, 'shift-cam': 0.5 },
  },
  {
    id: 'no-shift',
    label: 'Will not shift, or both gears at once',
    of: ['shift'],
    background: 0.02,
    speaksFor: { 'shift-adjustment': 0.7, 'shift-cam': 0.2, 'shaft-sheared': 0.2 },
  },
  {
    id: 'vibration',
    label: 'Vibration',
    background: 0.05,
    speaksFor: { 'shaft-bent': 0.8, 'blade-bent': 0.8, 'carrier-bearing': 0.6 },
  },
  {
    id: 'runout-high',
    label: 'Propeller shaft runout over its limit',
    of: ['propeller'],
    background: 0.03,
    speaksFor: { 'shaft-bent': 0.95, 'carrier-bearing': 0.4, 'propshaft-seal': 0.2 },
  },
  {
    id: 'blade-track',
    label: 'Blades do not track alike',
    of: ['propeller'],
    background: 0.03,
    speaksFor: { 'blade-bent': 0.9, 'shaft-bent': 0.6 },
  },
  {
    id: 'whine-one-way',
    label: 'Whine on drive or on coast only',
    of: ['gears'],
    background: 0.02,
    speaksFor: { 'contact-off': 0.8, 'preload-lost': 0.5 },
  },
  {
    id: 'shaft-shake',
    label: 'Shaft shakes at the seal',
    background: 0.02,
    speaksFor: { 'carrier-bearing': 0.7, 'preload-lost': 0.7 },
  },
  {
    id: 'metal',
    label: 'Flakes or chunks in the oil',
    background: 0.03,
    speaksFor: {
      'carrier-bearing': 0.5,
      'dog-rounded': 0.3,
      'preload-lost': 0.4,
      'shaft-sheared': 0.5,
      'contact-off': 0.2,
    },
  },
  {
    id: 'no-drive',
    label: 'Engine turns, propeller does not',
    background: 0.01,
    speaksFor: { 'shaft-sheared': 0.9, 'shift-adjustment': 0.2, 'clutch-slip': 0.2, 'belt-worn': 0.6 },
  },
  {
    id: 'no-telltale',
    label: 'No water at the telltale after refitting',
    of: ['telltale'],
    background: 0.01,
    speaksFor: { 'water-tube': 0.9, 'pump-key': 0.8 },
  },
  {
    id: 'knock-turning-in',
    label: 'Knocks or clicks under load, more with the drive turned in',
    of: ['input-joint'],
    background: 0.01,
    speaksFor: { 'universal-joint': 0.8 },
  },
  {
    id: 'slips-loaded',
    label: 'On load the engine runs up and the boat does not follow',
    background: 0.01,
    speaksFor: { 'clutch-slip': 0.85, 'dog-rounded': 0.2, 'shaft-sheared': 0.2, 'belt-worn': 0.7 },
  },
  {
    id: 'joint-play',
    label: 'Play or rust in the joint once the input side is open',
    of: ['input-joint'],
    background: 0.01,
    speaksFor: { 'universal-joint': 0.9 },
  },
  {
    id: 'pump-still',
    label: 'The pump does not turn with the driveshaft',
    of: ['pump'],
    background: 0.005,
    speaksFor: { 'pump-key': 0.9, 'shaft-sheared': 0.3 },
  },
  {
    id: 'stub-turns',
    label: 'The driveshaft turns, the pinion does not',
    background: 0.005,
    speaksFor: { 'shaft-sheared': 0.9 },
  },
  {
    id: 'prop-frozen',
    label: 'Propeller frozen on its shaft, or its nut backs off',
    of: ['propeller'],
    background: 0.02,
    speaksFor: { 'dry-splines': 0.8 },
  },
]

export const checks: Check[] = [
  {
    id: 'look-outside',
    label: 'Look over the outside: films, line, blades',
    cost: 1,
    minutes: 5,
    shows: ['film-shift-shaft', 'film-hub', 'fishing-line', 'blade-track'],
  },
  {
    id: 'shake-shaft',
    label: 'Shake and turn the propeller shaft',
    cost: 1,
    minutes: 5,
    of: ['propeller'],
    shows: ['shaft-shake', 'prop-frozen'],
  },
  {
    id: 'runout',
    label: 'Measure propeller shaft runout',
    cost: 2,
    minutes: 20,
    of: ['propeller'],
    shows: ['runout-high'],
  },
  {
    id: 'drain',
    label: 'Drain the oil and look at it',
    cost: 2,
    minutes: 20,
    of: ['oil'],
    shows: ['milky-oil', 'empty-case', 'black-oil', 'metal'],
  },
  {
    id: 'shift-check',
    label: 'Shift through all gears, turning by hand',
    cost: 2,
    minutes: 10,
    of: ['shift'],
    shows: ['no-shift', 'jumps-out'],
  },
  {
    id: 'pressure-still',
    label: 'Pressure test, everything still',
    cost: 4,
    minutes: 45,
    of: ['test'],
    shows: ['leak-still'],
  },
  {
    id: 'pressure-turning',
    label: 'Pressure test, turning the propeller shaft',
    cost: 4,
    minutes: 45,
    of: ['test', 'propeller'],
    shows: ['leak-turning'],
  },
  {
    id: 'run-on-load',
    label: 'Run it on load, straight and turned in',
    cost: 3,
    minutes: 40,
    shows: ['knock-turning-in', 'slips-loaded', 'whine-one-way'],
  },
  {
    id: 'open-input',
    label: 'Open the input side and look at the joint',
    cost: 5,
    minutes: 90,
    of: ['input-joint'],
    shows: ['joint-play', 'stub-turns'],
  },
  {
    id: 'drop-to-pump',
    label: 'Drop it as far as the pump',
    cost: 5,
    minutes: 60,
    of: ['pump'],
    shows: ['pump-still', 'stub-turns'],
  },
]
