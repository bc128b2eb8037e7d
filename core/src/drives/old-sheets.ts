import type { BenchFacts } from './bench-facts.ts'
import type { DriveSheet } from './sheet.ts'

/** Bench facts of a sheet that was written before sheets had them: nothing special about the drive. */
const PLAIN: BenchFacts = {
  openGear: null,
  shifts: false,
  joins: null,
  leftHand: null,
  captive: null,
  hidden: null,
  lockTabs: null,
  pinchScrews: null,
  sealSprings: 'both inward',
  seals: { pair: false },
  raceLetters: null,
  oilFeed: null,
  waterTube: null,
  shiftRod: null,
  propeller: null,
  thrustHub: null,
  leak: {
    blocks: 2,
    lowKpa: 20,
    workKpa: 50,
    maxKpa: 70,
    holdMin: 30,
    allowedMlPerMin: 0.2,
    volumeMl: 600,
    turns: 'Every shaft, both ways',
  },
  lubricant: 'oil',
  drainPlug: null,
  anodes: null,
  weightKg: 25,
  labour: { openHours: 3, setHours: 3, closeHours: 3 },
  exchange: null,
  used: null,
}

/** A stored sheet as this Moray knows sheets. Sheets written by an older one lack parts and bench facts. */
export function asSheet(
  stored: DriveSheet | (Omit<DriveSheet, 'parts' | 'bench'> & Partial<DriveSheet>),
): DriveSheet {
  return { ...stored, parts: stored.parts ?? [], bench: stored.bench ?? PLAIN }
}
