import type { Mesh } from '../gears/mesh.ts'
import type { Member } from '../gears/backlash.ts'
import type { Window } from '../checks/window.ts'
import type { Fastener } from './fasteners.ts'
import type { Further } from './further.ts'
import type { Source } from './own/source.ts'
import type { Graph } from './graph/rows.ts'
import type { Variant } from './own/variant.ts'
import type { Part } from './parts.ts'
import type { Turn } from '../torque/thread-turn.ts'

/**
 * A drive sheet: one drive's gear train as a small graph, with the windows that its manual gives.
 * All lengths in mm, torques in Nm. A place along an axis is measured from the apex, where the axes cross,
 * positive upward on the vertical axis and aft on the horizontal one.
 */
export interface DriveSheet {
  id: string
  version: number
  /** What it was published as; a version without is what a job works on meanwhile. */
  edition?: number
  /** Edition that it goes on from, of a version that is no edition itself. */
  after?: number
  name: string
  family: Family
  /** Invented figures: shown wherever the sheet is. */
  demo: boolean
  summary: string
  ratio?: { overall: string; stamps: Stamp[] }
  oilCapacityMl?: number
  axes: Axis[]
  gears: Gear[]
  meshes: GearMesh[]
  adjusters: Adjuster[]
  bearings: Bearing[]
  seals: Seal[]
  belts?: Belt[]
  measures: Measure[]
  /** Runout limits by zone, TIR in mm. */
  runoutLimits: { zone: string; tirMm: number }[]
  /** What it is made of. */
  graph: Graph
  /** Out of the graph, for plan and route: what comes off, in order. */
  parts: Part[]
  /** Out of the graph: its groups as lines of a torque list. */
  fasteners?: Fastener[]
  /** Out of the graph: what is read beside the figures. */
  further?: Further
  service?: ServiceInterval[]
  /** The manual that its figures come from. */
  manual?: string
  sources?: Source[]
  variants?: Variant[]
  /** Which of its variants this is. */
  variant?: { id: string; label: string }
  /** Paths of the figures that it needs for what it is made of, and has not yet. */
  lacks?: string[]
}

/** What is due again after so long, or after so many hours. */
export interface ServiceInterval {
  id: string
  what: string
  months?: number
  hours?: number
  /** In salt, where that is sooner. */
  saltMonths?: number
}

export const FAMILIES = {
  'outboard-fnr': 'Outboard lower unit, forward and reverse',
  'stern-upper': 'Sterndrive upper case',
  'stern-upper-reversing': 'Reversing sterndrive upper case',
  'stern-lower-fnr': 'Sterndrive lower, forward and reverse',
  'stern-lower-twin': 'Twin-propeller lower',
  'right-angle-threaded': 'Right-angle drive, threaded carriers',
  'outboard-straight': 'Small outboard, straight bevel',
  'belt-lower': 'Belt-driven straight lower',
} as const
export type Family = keyof typeof FAMILIES

export interface Stamp {
  code: string
  teeth: string
  note: string
  /** The code of the very drive that this sheet describes. */
  own?: boolean
}

export interface Axis {
  id: string
  label: string
  line: 'vertical' | 'horizontal'
  /** Ends of the shaft on the drawing, from the apex. */
  fromMm: number
  toMm: number
  radiusMm: number
  /** Sideways shift of an axis that does not pass through the apex (a belt drive's second shaft). @default 0 */
  offsetMm?: number
  /** A shaft that runs inside another one's tube. */
  insideOf?: string
}

export interface Gear {
  id: string
  label: string
  teeth: number
  axis: string
  /** On which side of the apex the gear sits: +1 up or aft, −1 down or forward. */
  side: 1 | -1
  /** Over the heel tips, by calliper, mm. */
  outsideMm?: number
  /** Axial runout of its face at most, TIR in mm. */
  faceTirMm?: number
}

export interface GearMesh {
  id: string
  label: string
  pinion: string
  gear: string
  mesh: Mesh
  /**
   * What the geometry stands on: a drawing that gives it, teeth counted and diameters measured, or nothing but what the section is drawn with;
   * then only the manual's own rules say how backlash answers. @default 'given'
   */
  basis?: 'given' | 'measured' | 'drawn'
  /** Standard uncertainties of what was measured or assumed. */
  u?: MeshUncertainty
  /** Hand of the pinion's spiral, and the way it turns as the drive goes ahead, seen from its shaft. */
  pinionHand?: 'left' | 'right'
  pinionTurns?: Turn
  /** The flank of the gear that is pushed as the drive goes ahead, where somebody has seen it. */
  pushed?: 'concave' | 'convex'
}

/** Of the figures behind a sensitivity; angles in degrees, the module relative. */
export interface MeshUncertainty {
  pressureAngleDeg: number
  spiralAngleDeg: number
  faceWidthMm: number
  moduleRel: number
}

/** What moves a gear along its own axis. */
export interface Adjuster {
  id: string
  label: string
  kind: 'shim' | 'threaded'
  axis: string
  atMm: number
  /** The gear it moves; left out when it only sets a bearing (a cover's crush). */
  moves?: string
  /** +1: more shim moves the gear outward (away from the mesh), −1: inward; 0: nobody has said yet. */
  effect: 1 | -1 | 0
  minMm: number
  maxMm: number
  maxPieces: number
  startMm: number
  /** How this stack is found; all but `readings` stacks are moved only once what they set was read. @default 'readings' */
  setBy?: 'readings' | 'case-and-gear' | 'crush' | 'preload'
  leadMm?: number
  notches?: number
  /** The sheet's own rule of thumb: change of a measure per mm of this stack. Replaces the geometry's. */
  rules?: Record<string, number>
}

export interface Bearing {
  id: string
  label: string
  kind: 'taper' | 'ball' | 'needle' | 'thrust'
  axis: string
  atMm: number
  setting?:
    | {
        kind: 'rolling-torque'
        newNm: Window
        runInNm?: Window
        /** Id of the stack that sets it; left out where a nut does. */
        by?: string
        /** Its nut crushes a sleeve, which never springs back. */
        sleeve?: boolean
        /** Change of the torque per mm of that stack; negative when a thicker one slackens. */
        nmPerMm?: number
      }
    | {
        kind: 'crush'
        crushMm: number
        /** What is still right beside it. */
        toleranceMm?: number
        /** Where the shims sit that set it. @default 'bearing' */
        shimsAt?: 'bearing' | 'cover'
        /** Id of the stack that sets it; the one that is set by crush when left out. */
        by?: string
      }
}

export interface Seal {
  id: string
  label: string
  axis: string
  atMm: number
}

/** A toothed belt between pulleys on two parallel shafts. */
export interface Belt {
  id: string
  pulleys: { axis: string; atMm: number; radiusMm: number }[]
  widthMm: number
}

interface MeasureBase {
  id: string
  label: string
  /** Without limits where the sheet has none yet: readings are kept, and judged against nothing. */
  window: Window
  target?: number
  /** Readings asked for before the set is judged. */
  readings: number
  /** What has to be true before the reading counts. */
  before: string[]
}

/** Where a gear stands on its axis. The raw reading is what the chosen gauge shows. */
export interface DepthMeasure extends MeasureBase {
  kind: 'depth'
  gear: string
  /** Where nobody prints it, it is found for each pair of gears, and no window is asked for. @default 'printed' */
  nominal?: 'printed' | 'of-the-pair'
  how:
    | { method: 'master-drop'; masterMm: number; extends: boolean }
    | { method: 'arbor'; arborDiameterMm: number; farSide: boolean }
    | { method: 'feeler-block'; nominalClearanceMm: number; nominalDepthMm: number }
}

/** Backlash as the indicator shows it at the sheet's radius; windows are at the indicator too. */
export interface BacklashMeasure extends MeasureBase {
  kind: 'backlash'
  mesh: string
  member: Member
  radiusMm: number
  /** What is held while the other shaft is rocked. */
  hold: string
  /** The held gear is pushed onto its own bearing, away from its mesh: a free gear on a clutch shaft would float. */
  load?: 'none' | 'outward'
}

export interface EndPlayMeasure extends MeasureBase {
  kind: 'end-play'
  axis: string
}

export type Measure = DepthMeasure | BacklashMeasure | EndPlayMeasure

/** Stacks of shim, in the sheet's order. */
export function shimAdjusters(sheet: DriveSheet): Adjuster[] {
  return sheet.adjusters.filter((a) => a.kind === 'shim')
}

/** A carrier that moves its gear by being turned, with a lead that the sheet gives. Its place is how far it is turned in, mm. */
export const isCarrier = (a: Adjuster): a is Adjuster & { leadMm: number } =>
  a.kind === 'threaded' && a.leadMm !== undefined && a.moves !== undefined

/** Steps of a turn at which a carrier can be locked; one that locks anywhere is set to five degrees. */
export const stepsPerTurn = (a: Adjuster): number => a.notches ?? 72

/** Way of a carrier from one place where it can be locked to the next, mm. */
export const lockStepMm = (a: Adjuster): number => a.leadMm! / stepsPerTurn(a)

/** What a build sets: stacks of shim and threaded carriers, in the sheet's order. */
export function settableAdjusters(sheet: DriveSheet): Adjuster[] {
  return sheet.adjusters.filter((a) => a.kind === 'shim' || isCarrier(a))
}

/** What the solver may change: stacks that move a gear and are found by readings, and those that set a bearing or a seat, once that was read. */
export function solvableAdjusters(sheet: DriveSheet): Adjuster[] {
  return settableAdjusters(sheet).filter(
    (a) => (a.setBy ?? 'readings') !== 'readings' || a.moves !== undefined,
  )
}

/**
 * The stacks of a build, carriers with them: one that nobody has turned stands where it was found, which is marked on the case and counted as the
 * sheet's usual place.
 */
export function withCarriers(
  sheet: DriveSheet,
  stacks: Readonly<Record<string, number>>,
): Record<string, number> {
  const found = sheet.adjusters.filter(isCarrier).map((a) => [a.id, a.startMm] as const)
  return { ...Object.fromEntries(found), ...stacks }
}
