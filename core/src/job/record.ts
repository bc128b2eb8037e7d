import type { Entered } from './entered.ts'
import type { UnitSystem } from '../units/format.ts'
import type { Flank } from '../gears/flank.ts'
import type { Outline } from '../contact/marked.ts'
import type { Grade } from '../inspection/criteria.ts'
import type { Estimate } from '../inspection/estimate.ts'
import type { GaugeSpec, ReadingHow } from '../setting/taken.ts'
import type { Prediction } from '../setting/shim-solve.ts'
import type { End, LoggedAct } from '../assembly/act.ts'
import type { Repair } from '../route/repair.ts'
import type { Scope } from '../route/scope.ts'
import type { Waits } from './waits.ts'

/** What is kept of one job, as it is read from the store: nothing here is judged. Times are ISO 8601 in UTC, lengths mm. */
export interface JobRecord extends JobHead {
  sheetId: string
  sheetVersion: number
  newestSheetVersion: number
  heldReason: string | null
  /** Which steps its route had when it was last looked at; null for a job that an older Moray opened. */
  routeHash: string | null
  /** Oldest first; number 0 is the case as found, and always there. */
  builds: BuildRecord[]
  /** Every closing of a step in order, those taken back included. */
  closings: Closing[]
  drafts: StepDraft[]
  row: RowPart[]
  grades: GradeEntry[]
  findings: FindingEntry[]
  outcome: OutcomeEntry | null
  estimates: EstimateEntry[]
  schools: JobSchoolEntry[]
  attachments: Attachment[]
  /** What the job is to reach, every change of it, the newest last; empty for a job that is everything. */
  scopes: ScopeEntry[]
  openItems: OpenItem[]
  loops: LoopEntry[]
  /** Nothing in the record of an older Moray. */
  told?: ToldEntry[]
  /** What was done to the unit, as it was claimed on its day; nothing for a job that nobody has written to since there is a log. */
  log?: LoggedAct[]
  /** The other case of the same unit. */
  partner: Partner | null
  /** Id of the newest event that this reading knows; events up to it bring nothing new. */
  seen: number
}

export type JobState =
  | 'received'
  | 'teardown'
  | 'setting'
  | 'working'
  | 'waiting'
  | 'held'
  | 'finished'
  | 'closed'
  | 'reopened'

/** Handed over, or closed without a rebuild: nothing is added until somebody reopens it. */
export const isOver = (state: JobState): boolean => state === 'finished' || state === 'closed'

export type Water = 'salt' | 'brackish' | 'fresh'

/** What the bench list shows of a job. */
export interface JobHead {
  id: string
  number: string
  serial: string
  boat: string
  owner: string
  water: Water
  hours: number | null
  stand: string | null
  state: JobState
  /** Stage of the route, `setting`, `done` or `closed`. */
  stage: string
  waits: Waits
  complaint: string
  openedAt: string
  touchedAt: string
}

export interface Superseded {
  reason: string
  by: string
  at: string
}

export interface StackPiece {
  /** Id under which the piece can be used again: `d…` drawer line, `c…` out of this case. */
  id: string
  thicknessMm: number
  text: string
  origin: 'drawer' | 'case'
  /** Peeled or ground down from a piece of the drawer for this very place. */
  thinned?: boolean
}

export interface StackEntry {
  id: number
  location: string
  /** Of a threaded carrier: how far it is turned in. */
  thicknessMm: number
  pieces: StackPiece[]
  by: string
  at: string
  superseded: Superseded | null
}

export interface ReadingEntry extends Entered {
  id: number
  measure: string
  /** What the gauge showed, mm; of a torque Nm. */
  raw: number
  /** What is judged, in the same unit as its window. */
  value: number
  text: string
  unit: string
  gaugeId: string
  gaugeName: string
  /** Whether the calibration of the gauge had run out when it was read; null where its day is not known. */
  gaugeOverdue: boolean | null
  /** What the gauge was worth when the reading was taken. */
  gauge: GaugeSpec
  /** How it was taken; null where there is nothing to say of it. */
  how: ReadingHow | null
  masterMm: number | null
  clockDeg: number | null
  note: string | null
  by: string
  at: string
  superseded: (Superseded & { replacedBy: number | null }) | null
}

/** A patch as it was seen on one flank, at one place round the gear. */
export interface PatternMark {
  id: number
  mesh: string
  flank: Flank
  place: number
  outline: Outline
  note: string | null
  by: string
  at: string
  superseded: Superseded | null
}

export interface BuildRecord {
  id: number
  number: number
  by: string
  at: string
  stacks: StackEntry[]
  readings: ReadingEntry[]
  /** Contact patterns as they were seen, those marked anew included. */
  patterns: PatternMark[]
  plan: { predicted: Record<string, Prediction>; probability: number | null } | null
  /** Signed where the code of the name was said for it. */
  acceptance: (Entered & { reason: string | null; by: string; signed: boolean }) | null
}

/** A step that was closed. Taken back, it stays to be read. */
export interface Closing extends Entered {
  id: number
  step: string
  answers: Record<string, boolean | number | string>
  /** Numbers as they were typed. */
  texts: Record<string, string>
  departedFrom: string[]
  reason: string | null
  /** It was gone on from with its work left undone; what that leaves open is said before the drive is handed over. */
  undone?: boolean
  lead: string | null
  by: string
  at: string
  /** `replacedBy`: id of the closing with the corrected answers. */
  takenBack: (Superseded & { replacedBy: number | null }) | null
}

/** What a step said and asked when it was closed, in the words of that day. */
export interface AskedThen {
  what: string
  asks: {
    fact: string
    label: string
    kind: 'tick' | 'choice' | 'list' | 'number' | 'text'
    options?: { value: string; label: string }[]
    unit?: string
    min?: number
    max?: number
  }[]
}

/** A closing with its own words; null where an older Moray did not keep them. */
export interface ClosingRecord extends Closing {
  asked: AskedThen | null
}

/** Answers typed at a step that is not closed yet. */
export interface StepDraft {
  step: string
  answers: Record<string, boolean | number | string>
  begunAt: string
  by: string
  at: string
}

/** A part in the row on the bench. */
export interface RowPart {
  id: number
  /** Part of the sheet; null for one that the sheet does not know. */
  part: string | null
  name: string
  orientation: string | null
  ink: string | null
  stack: string | null
  note: string | null
  offBy: string
  offAt: string
  /** `renewed`: a new one went in. */
  fitted: { by: string; at: string; renewed: boolean } | null
  leftOut: string | null
}

export interface GradeEntry extends Entered {
  id: number
  part: string
  grade: Grade
  reason: string
  seen: string[]
  measuredMm: number | null
  /** What the criteria proposed; differs from `grade` when the technician departed from it. */
  proposed: Grade | null
  by: string
  at: string
  /** An older grade of the same part: it no longer counts. */
  superseded: boolean
}

export interface FindingEntry {
  finding: string
  present: boolean
  by: string
  at: string
}

export interface OutcomeEntry {
  cause: string
  note: string | null
  by: string
  at: string
}

export interface EstimateEntry extends Entered {
  id: number
  body: Estimate & { rate: number; consumables: number; extraHours: number }
  by: string
  at: string
  approval: Approval | null
}

export interface Approval extends Entered {
  choice: ApprovalChoice
  customer: string
  how: string
  by: string
  /** In what it ends, where it is not rebuilt; null where nobody said so. */
  ends?: StopEnd | null
  /** Parts that go over to the unit that takes its place. */
  kept?: string[] | null
}
export type ApprovalChoice = 'rebuild' | 'exchange' | 'used' | 'stop'
/** In what a drive ends that is not rebuilt: back on the boat as it came, as it lies, in boxes, scrapped. */
export type StopEnd = Extract<End, 'boat' | 'as-it-is' | 'boxes' | 'scrapped'>

export interface JobSchoolEntry {
  school: string
  choice: string
  reason: string
  by: string
  at: string
}

export interface Attachment {
  id: number
  hash: string
  type: string
  bytes: number
  subject: 'step' | 'part' | 'grade' | 'job'
  subjectId: string
  note: string | null
  by: string
  at: string
}

/** A scope as it was chosen, or grown, with the reason. */
export interface ScopeEntry extends Scope {
  reason: string
  by: string
  at: string
}

/** Something that has to be settled before the job is handed over; added at any time. */
export interface OpenItem {
  id: number
  text: string
  by: string
  at: string
  closed: { how: string; by: string; at: string } | null
}

/**
 * What somebody said of the job besides its steps. `accepted`: a line of what is checked before the unit leaves may stay as it is; `subject` is its id.
 * `undone`: what a closed step did was undone since; `subject` is the id of the closing. `not-known`: whether one row of the sheet leads to another could
 * not be told; `subject` is that edge.
 */
export interface ToldEntry extends Entered {
  id: number
  kind: 'accepted' | 'undone' | 'not-known'
  subject: string
  reason: string
  by: string
}

export interface LoopEntry extends Repair, Entered {
  by: string
}

/** The other case of a unit, as far as this one has to know of it. */
export interface Partner {
  id: string
  number: string
  sheetId: string
  sheetName: string
  /** This case waits for the other one: joining, joined test, filling and run are done on the other's route. */
  follows: boolean
  /** What the unit stands on in it. */
  facts: Record<string, boolean | number | string>
  /** Closings of its steps that count. */
  closings: Pick<Closing, 'step' | 'answers' | 'departedFrom'>[]
}

/** How the shop works; read with every record, since the route is judged by it. */
export interface ShopWays {
  schools: Record<string, string>
  rules: ShopRules
  stands: string[]
}

export interface ShopRules {
  /** Name and address of the shop, as they head a record; empty where nobody has written them. */
  heading: string
  departuresNeedLead: boolean
  /** Per hour, in the shop's currency. Null while nobody has said it, as with the other two. */
  rate: number | null
  consumables: number | null
  currency: string | null
  /** What is read first by whoever has not chosen. Null while nobody has said it. */
  units: UnitSystem | null
}

/** A shop that has said nothing yet. */
export const USUAL_WAYS: ShopWays = {
  schools: {},
  rules: {
    heading: '',
    departuresNeedLead: false,
    rate: null,
    consumables: null,
    currency: null,
    units: null,
  },
  stands: [],
}
