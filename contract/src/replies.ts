import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Grade } from '@moray/core/inspection/criteria'
import type { Estimate } from '@moray/core/inspection/estimate'
import type { FaultCase, LikelihoodEdit } from '@moray/core/inspection/fault-history'
import type { Facts } from '@moray/core/route/facts'
import type { SettingMaster } from '@moray/core/measuring/setting-master'
import type { Assessment, GaugeSpec, PredictionCheck } from '@moray/core/setting/assess'
import type { Prediction } from '@moray/core/setting/shim-solve'

export interface Person {
  id: string
  name: string
  role: 'technician' | 'lead'
}

export type JobState =
  'received' | 'teardown' | 'setting' | 'working' | 'waiting' | 'held' | 'finished' | 'closed' | 'reopened'

export interface JobSummary {
  id: string
  number: string
  sheetId: string
  sheetName: string
  family: string
  serial: string
  boat: string
  owner: string
  water: 'salt' | 'brackish' | 'fresh'
  hours: number | null
  stand: string | null
  state: JobState
  stage: string
  waitsFor: string
  complaint: string
  openedAt: string
  touchedAt: string
}

export interface StackPiece {
  /** Id under which the piece can be used again: `d…` drawer line, `c…` out of this case. */
  id: string
  thicknessMm: number
  text: string
  origin: 'drawer' | 'case'
}

export interface StackEntry {
  id: number
  location: string
  thicknessMm: number
  pieces: StackPiece[]
  by: string
  at: string
  superseded: { reason: string; by: string; at: string } | null
}

export interface ReadingEntry {
  id: number
  measure: string
  /** What the gauge showed, mm. */
  rawMm: number
  /** What is judged, mm. */
  valueMm: number
  text: string
  unit: string
  gaugeId: string
  gaugeName: string
  /** The gauge was past its calibration date when the reading was taken. */
  gaugeOverdue: boolean
  /** What the gauge was worth when the reading was taken, mm. */
  gauge: GaugeSpec
  masterMm: number | null
  clockDeg: number | null
  note: string | null
  by: string
  at: string
  superseded: { reason: string; by: string; at: string; replacedBy: number | null } | null
}

export interface Build {
  number: number
  kind: 'found' | 'trial'
  by: string
  at: string
  stacks: StackEntry[]
  readings: ReadingEntry[]
  plan: { predicted: Record<string, Prediction>; probability: number | null } | null
  assessment: Assessment
  check: PredictionCheck[]
}

export interface AvailablePiece {
  id: string
  thicknessMm: number
  count: number
  label: string
  origin: 'drawer' | 'case'
}

export interface Acceptance {
  build: number
  reason: string | null
  by: string
  at: string
}

export interface JobDetail extends JobSummary {
  sheet: DriveSheet
  newerSheetVersion: number | null
  builds: Build[]
  acceptance: Acceptance | null
  pieces: AvailablePiece[]
  events: EventEntry[]
  work: JobWork
}

/** What the route, the tray, the grades, the estimate and the faults of a job hold. */
export interface JobWork {
  /** Everything that is known, answers and what follows from them; the route is judged by these. */
  facts: Facts
  steps: DoneStep[]
  drafts: StepDraft[]
  tray: TrayPart[]
  grades: GradeEntry[]
  findings: FindingEntry[]
  outcome: OutcomeEntry | null
  /** Faults of this shop that were followed to their end, and likelihoods it has set: the fault finder reads them. */
  history: FaultCase[]
  edits: LikelihoodEdit[]
  estimates: EstimateEntry[]
  schools: JobSchoolEntry[]
  attachments: Attachment[]
  heldReason: string | null
  rules: ShopRules
}

/** A step that was closed. Taken back, it stays to be read. */
export interface DoneStep {
  id: number
  step: string
  answers: Record<string, boolean | number | string>
  /** Numbers as they were typed. */
  texts: Record<string, string>
  departedFrom: string[]
  reason: string | null
  lead: string | null
  by: string
  at: string
  takenBack: { reason: string; by: string; at: string } | null
}

/** Answers typed at a step that is not closed yet. */
export interface StepDraft {
  step: string
  answers: Record<string, boolean | number | string>
  begunAt: string
  by: string
  at: string
}

export interface TrayPart {
  id: number
  /** Part of the sheet; null for one that the sheet does not know. */
  part: string | null
  name: string
  position: number
  orientation: string | null
  ink: string | null
  stack: string | null
  note: string | null
  offBy: string
  offAt: string
  fitted: { by: string; at: string } | null
  leftOut: string | null
}

export interface GradeEntry {
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

export interface EstimateEntry {
  id: number
  body: Estimate & { rate: number; consumables: number; extraHours: number }
  by: string
  at: string
  approval: { choice: ApprovalChoice; customer: string; how: string; by: string; at: string } | null
}
export type ApprovalChoice = 'rebuild' | 'exchange' | 'used' | 'stop'

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

export interface ShopRules {
  departuresNeedLead: boolean
  /** Per hour, in the shop's currency. */
  rate: number
  consumables: number
  currency: string
}

/** The shop's own ways. */
export interface Shop {
  schools: Record<string, string>
  rules: ShopRules
  stands: string[]
  edits: LikelihoodEdit[]
  /** How often each cause was found here. */
  found: Record<string, number>
}

/** A drive that has been here before, or lies in the books. */
export interface KnownUnit {
  serial: string
  sheetId: string
  sheetName: string
  boat: string
  owner: string
  water: JobSummary['water']
  jobs: number
  lastAt: string
}

export interface EventEntry {
  id: number
  at: string
  by: string
  kind: string
  jobId: string | null
  text: string
}

export interface DrawerLine {
  id: string
  place: string
  thicknessMm: number
  /** As it was entered: `0.10` or `4t`. */
  text: string
  count: number
  /** Pieces that sit in open trial builds. */
  reserved: number
  touchedAt: string
}

export interface DrawerMovement {
  id: number
  lineId: string
  kind: string
  delta: number
  reason: string
  by: string
  at: string
  jobNumber: string | null
}

export interface Gauge {
  id: string
  name: string
  type: string
  measures: string
  resolution: number
  mpe: number
  repeatability: number
  unit: string
  perTurnMm: number | null
  masters: SettingMaster[]
  calibratedOn: string
  dueOn: string
  overdue: boolean
}

/** A line of the live event stream. */
export interface LiveEvent {
  id: number
  kind: string
  jobId: string | null
}
