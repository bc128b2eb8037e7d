import type { Window } from '../../checks/window.ts'
import type { LeakPlan } from '../leak-plan.ts'

/** What a sheet before format 4 said of a drive beside its gears: single facts, of each kind one. */
export interface BenchFacts {
  /** Gear in which it has to stand to be opened; null where nothing is shifted. */
  openGear: 'neutral' | 'forward' | 'reverse' | null
  /** It is shifted, and the shift is checked at both ends. */
  shifts: boolean
  /** What it is joined to, the gear in which both are joined, and the test of both together; null where they share no oil. */
  joins: { to: string; gear: 'neutral' | 'forward'; oilJoint: LeakPlan | null } | null
  /** A fastener that loosens clockwise. */
  leftHand: { what: string; place: string } | null
  /** A fastener that can only go in while the halves are apart. */
  captive: string | null
  /** Fasteners that are easily forgotten, and where they are. */
  hidden: { count: number; where: string } | null
  /** Locking of the big nut or ring: tabs that must be bent into slots. */
  lockTabs: {
    what: string
    tabs: number
    torqueNm: Window
    /** It can still be reached once the drive is on the boat. */
    reachedMounted: boolean
  } | null
  /** Screws that only pinch and stay in their holes. */
  pinchScrews: { count: number; where: string } | null
  /** Which way the springs of a seal pair look; null where the sheet does not say. */
  sealSprings: 'facing each other' | 'both outward' | 'both inward' | null
  /** Where two seals share a step: the one with the smaller diameter goes first. */
  seals: { pair: boolean }
  raceLetters: string | null
  /** An oil hole in a cup or carrier that must line up with its passage. */
  oilFeed: string | null
  /** How the water tube goes into its grommet. */
  waterTube: string | null
  shiftRod: string | null
  propeller:
    | (({ kind: 'tabs'; tabs: number; threads: number; torqueNm: Window } | { kind: 'pin' }) & {
        /** It stays off until the drive has run on a hose. */
        afterRun: boolean
      })
    | null
  /** Cooling water shows at a telltale. */
  telltale: boolean
  /** The thrust hub or washer that belongs to the propellers fitted. */
  thrustHub: string | null
  /** The test of this case by itself; null where it holds grease and none belongs. */
  leak: LeakPlan | null
  /** Why none belongs. */
  noTest?: string
  lubricant: 'oil' | 'grease'
  drainPlug: 'magnetic' | 'plain' | null
  anodes: string | null
  /** Weight that two hands do not hold, kg; for the caution. */
  /** Null where nobody has weighed it. */
  weightKg: number | null
  labour: { openHours: number; setHours: number; closeHours: number }
  /** Whole units for comparison, kroner and days of waiting. */
  exchange: { price: number; waitDays: number } | null
  used: { price: number; waitDays: number } | null
}
