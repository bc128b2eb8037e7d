import type { DriveSheet } from '@moray/core/drives/sheet'
import type { SettingMaster } from '@moray/core/measuring/setting-master'
import type { Assessment, GaugeSpec, PredictionCheck } from '@moray/core/setting/assess'
import type { Prediction } from '@moray/core/setting/shim-solve'

export interface Person {
  id: string
  name: string
  role: 'technician' | 'lead'
}

export type JobState = 'received' | 'teardown' | 'setting' | 'waiting' | 'finished' | 'reopened'

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
