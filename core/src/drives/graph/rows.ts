import type { Window } from '../../checks/window.ts'
import type { LeakPlan } from '../leak-plan.ts'
import type { Fastener } from '../fasteners.ts'
import type {
  AnodeRow,
  Attitude,
  PropellerRow as OldPropeller,
  SealDetail,
  ShiftState,
  ToolRow,
} from '../further.ts'
import type { Part } from '../parts.ts'
import type { Edges } from './edges.ts'

/** Words of an older sheet that name no row: kept, shown, and never decided by. */
export interface Said {
  of: 'closes' | 'captive-until' | 'sealed-by' | 'closed-by' | 'anodes'
  text: string
}

/** One part, or one lot of equal ones, in the order in which they come off. */
export interface GraphPart extends Omit<Part, 'count' | 'after' | 'inside' | 'thread' | 'apart'> {
  /** The owner's own number. */
  number?: string
  count?: number
  /** Which way round it goes, in words. */
  way?: string
  /** Parts and groups that cover it; what holds it says so itself. */
  after?: Edges
  /** It lies loose in this part, and comes along with it. */
  in?: Edges
  /** It is pressed on or into this part. */
  on?: Edges
  /** What a lip or a needle runs on. */
  runsOn?: Edges
  /** Interfaces of the unit that are parted before anybody gets at it. */
  interfaces?: Edges
  inside?: boolean
}

/** A loose piece of a group: nut, tab washer, pin. It lies in the tray like a part. */
export interface Piece
  extends
    Pick<Part, 'id' | 'name' | 'place' | 'set' | 'kit' | 'price' | 'waitDays' | 'role' | 'pointedAtBy'>,
    Partial<Pick<Part, 'kind' | 'count' | 'inside'>> {
  number?: string
  useOnce?: boolean
}

/** One group of equal fasteners at one place. */
export interface Group extends Omit<Fastener, 'count' | 'closes' | 'captiveUntil'> {
  /** How many; left out while nobody has counted them. */
  count?: number
  place?: string
  pieces?: Piece[]
  /** Parts that cannot leave while it is on. */
  holds?: Edges
  /** Parts and groups that cover it. */
  after?: Edges
  interfaces?: Edges
  /** What says that it is tight. @default torque where one is known */
  tightenedBy?: 'torque' | 'preload' | 'turns' | 'hand' | 'alignment'
  /** Threads that show beyond the nut. */
  threads?: number
  /** Joints or interfaces after whose closing it cannot go in any more. */
  captiveUntil?: Edges
  /** It pinches, and stays in its holes. */
  pinches?: boolean
  /** The screw of a port. */
  port?: 'drain' | 'vent' | 'fill' | 'level' | 'passage'
  plug?: 'magnetic' | 'plain'
  /** Nobody has said that it is there: every drive of the kind has one. */
  assumed?: boolean
  said?: Said[]
}

export const PROOFS = {
  air: 'proved by the pressure test',
  vacuum: 'proved by vacuum',
  'joined-air': 'proved with the unit joined',
  'dry-after-run': 'dry after the run',
  none: 'not proved',
} as const
export type ProvedBy = keyof typeof PROOFS

/** A joint of the case. */
export interface Joint {
  id: string
  name: string
  kind: 'cover' | 'carrier' | 'retainer' | 'halves' | 'plug' | 'shaft'
  /** Parts that meet here. */
  between?: Edges
  sealedBy?: Edges
  /** Groups that close it. */
  closedBy?: Edges
  /** Spaces that it keeps in, or out. */
  behind?: Edges
  /** Above or below the level of what stands behind it, as the drive hangs. */
  level?: 'above' | 'below'
  interfaces?: Edges
  provedBy?: ProvedBy
  /** Why it is not proved. */
  unproved?: string
  /** Groups that close the ports of its test. */
  ports?: Edges
  assumed?: boolean
  said?: Said[]
}

/** A joint of the unit: case to case, case to leg, transom or bed. */
export interface Interface {
  id: string
  name?: string
  kind?: 'case' | 'leg' | 'transom' | 'bed'
  /** Both sides share their oil. */
  sharesOil?: boolean
  /** Gear in which both sides stand as they are joined. */
  gear?: 'neutral' | 'forward'
  closedBy?: Edges
}

/** A space that holds something, or should be dry. */
export interface Space {
  id: string
  name: string
  holds: 'oil' | 'grease' | 'water' | 'dry'
  /** Of the empty space, ml: what a pressure test reckons with. */
  volumeMl?: number
  /** What goes in, ml. */
  fillMl?: number
  /** What the level is read by. */
  levelBy?: string
  /** Interfaces across which it is one space with the other case. */
  connected?: Edges
}

/** State in which a reading of a setting counts. */
export const READ_WHEN = {
  locked: 'locked at its final torque',
  'out-of-mesh': 'gears out of mesh',
  'clutch-neutral': 'clutch in neutral',
  'driveshaft-free': 'driveshaft free',
  'driveshaft-up': 'driveshaft drawn up',
  'rings-in': 'rings and lips in',
  'rings-out': 'rings and lips out',
} as const
export type ReadWhen = keyof typeof READ_WHEN

/** Edges of what is set: its id is that of the measure, `bearing:` and the bearing, or `seat:` and the stack. */
export interface Setting {
  id: string
  /** Parts that carry it, where that differs from the parts at its gears, stacks and bearings. */
  carriedBy?: Edges
  /** The group that preloads it. */
  preloadedBy?: Edges
  /** The sleeve or spacer that it is preloaded through. */
  through?: Edges
  readWhen?: ReadWhen[]
}

/** How one seal goes in. */
export interface SealFit extends SealDetail {
  /** The part that it is. */
  part?: Edges
}

/** Seals that share a bore. */
export interface SealPair {
  id: string
  /** They stand on one step: the one with the smaller diameter goes in first. */
  sharedStep?: boolean
  springs?: 'facing each other' | 'both outward' | 'both inward'
  /** The part, or the parts, that they are. */
  part?: Edges
}

export interface Propeller extends Omit<OldPropeller, 'torqueNm' | 'held'> {
  held?: OldPropeller['held']
  part?: Edges
  heldBy?: Edges
  afterRun?: boolean
  /** The hub that belongs to it. */
  hub?: string
}

export interface Anode extends AnodeRow {
  part?: Edges
  said?: Said[]
}

export interface Tool extends ToolRow {
  /** Groups and parts that it is for. */
  for?: Edges
}

/** Something that lies in no list of parts but has to lie right: letters of races, an oil hole, a tube. */
export interface Way {
  id: string
  text: string
  at?: Edges
}

/** A clearance that is read after the assembly, mm. */
export interface Clearance {
  id: string
  name: string
  between?: Edges
  window?: Window
}

/** Grease or sealant at one place. */
export interface Lubricant {
  id: string
  what: string
  /** Parts, groups, joints or seals. */
  at?: Edges
  where?: string
  cureHours?: number
}

/** How a case is proved tight with air. Its volume is that of its space. */
export interface Test extends Partial<LeakPlan> {
  /** A volume of its own has the joined unit, where nobody adds the two cases up. */
  id: 'case' | 'joined'
  /** Why there is none. */
  noTest?: string
}

/** What belongs to the unit, and not to one of its rows. */
export interface Unit {
  /** Gear in which it stands as it is opened. */
  openGear?: 'neutral' | 'forward' | 'reverse'
  shifts?: boolean
  telltale?: boolean
  weightKg?: number
  hours?: { openHours: number; setHours: number; closeHours: number }
  exchange?: { price: number; waitDays: number }
  used?: { price: number; waitDays: number }
  levers?: ShiftState[]
  attitudes?: Attitude[]
  cautions?: string[]
  trimTab?: string
  partner?: string
  plateAt?: string
  stampsAt?: string
}

/** What a sheet was brought up from: which old single fact is which row now, so that old answers find it. */
export interface Upgraded {
  from: number
  rows: Record<string, string>
}

/** What a drive is made of, as one graph. Every list but the parts may be missing. */
export interface Graph {
  parts: GraphPart[]
  groups?: Group[]
  joints?: Joint[]
  interfaces?: Interface[]
  spaces?: Space[]
  settings?: Setting[]
  sealFits?: SealFit[]
  sealPairs?: SealPair[]
  propellers?: Propeller[]
  anodes?: Anode[]
  tools?: Tool[]
  ways?: Way[]
  clearances?: Clearance[]
  lubricants?: Lubricant[]
  tests?: Test[]
  unit?: Unit
  upgraded?: Upgraded
}

export const GRAPH_LISTS = [
  'parts',
  'groups',
  'joints',
  'interfaces',
  'spaces',
  'settings',
  'sealFits',
  'sealPairs',
  'propellers',
  'anodes',
  'tools',
  'ways',
  'clearances',
  'lubricants',
  'tests',
] as const satisfies (keyof Graph)[]
export type GraphList = (typeof GRAPH_LISTS)[number]

/** Rows that a sheet has one of each at most, named by what they are. */
export const WAYS = ['race-letters', 'oil-feed', 'water-tube', 'shift-rod'] as const
/** The space that every case has, and the interface by which it is on its unit. */
export const CASE_SPACE = 'case'
export const MOUNT = 'mount'
