import type { Flank } from '@moray/core/gears/flank'
import type { Outline } from '@moray/core/contact/marked'
import type { SheetBody } from '@moray/core/drives/own/body'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { PieceCut } from '@moray/core/setting/shim-problem'
import type { Experience } from '@moray/core/setting/with-experience'
import type { EventEntry } from '@moray/core/job/event'
import type { JobHead, JobRecord, ShopRules } from '@moray/core/job/record'
import type { LikelihoodEdit } from '@moray/core/inspection/fault-history'
import type { GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import type { Wrench } from '@moray/core/torque/wrench'
import type { SettingMaster } from '@moray/core/measuring/setting-master'

export type { FaultCase } from '@moray/core/inspection/fault-history'
export type { ClosingRecord } from '@moray/core/job/record'
export type { EventEntry } from '@moray/core/job/event'
export type { RouteChanges } from '@moray/core/route/route-print'

/** An answer without a body (204). */
export type Nothing = undefined

export interface Health {
  ok: boolean
  /** How the database answered when it was last asked. */
  database: 'answers' | 'silent'
}

export interface Person {
  id: string
  name: string
  role: 'technician' | 'lead'
  /** Works here no more; what he wrote keeps his name. */
  retired: boolean
  /** A code is asked for under this name. */
  coded: boolean
}

/** Another machine of the shop that may read and write here. */
export interface Device {
  id: string
  name: string
  pairedBy: string
  pairedAt: string
  seenAt: string
  revoked: boolean
}

/** A code that lets one device in. */
export interface Pairing {
  code: string
  endsAt: string
  /** Where other devices find this server; empty while it listens to this machine only. */
  addresses: string[]
}

export interface JobSummary extends JobHead {
  sheetId: string
  sheetName: string
  family: string
}

export interface JobPage {
  jobs: JobSummary[]
  /** `before` of the next page; null on the last. */
  next: string | null
  /** Jobs that could not be read: their page of the database is damaged. 0 in all ordinary cases. */
  damaged: number
}

/** A job as it is kept; judged by core, with its sheet and the shop's ways, wherever it is shown. */
export type JobReply = JobRecord

/** The shop's own ways. */
export interface Shop {
  schools: Record<string, string>
  rules: ShopRules
  stands: string[]
  edits: LikelihoodEdit[]
  /** How often each cause was found here. */
  found: Record<string, number>
  /** True while this is the invented workshop. */
  demo: boolean
}

/** How a unit left here the last time: the build that was accepted then. Lengths mm, torques Nm. */
export interface LastBuilt {
  job: string
  number: string
  by: string
  at: string
  stacks: { location: string; pieces: { thicknessMm: number; text: string }[]; turnedMm?: number }[]
  /** What every measure read, the mean of what counted. */
  reads: Record<string, number>
}

/** A drive that has been here before, or lies in the books. */
export interface KnownUnit {
  serial: string
  sheetId: string
  sheetName: string
  boat: string
  owner: string
  water: JobHead['water']
  jobs: number
  lastAt: string
  lastJob: string
  lastState: JobHead['state']
  /** Its jobs before that one, the newest first; twelve at most. */
  earlier: { id: string; number: string; at: string }[]
}

export interface DrawerLine {
  id: string
  place: string
  thicknessMm: number
  /** As it was entered: `0.10` or `4t`. */
  text: string
  /** Its pieces can be made thinner before they go in. */
  cut?: PieceCut
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
  /** What it is; unit, ways of measuring and label follow from it (core/measuring/gauge-kinds). */
  kind: GaugeKindId
  name: string
  /** Figures in the unit of the kind. */
  resolution: number
  mpe: number
  repeatability: number
  perTurnMm: number | null
  masters: SettingMaster[]
  /** Of a torque wrench, where it was entered. */
  wrench: Wrench | null
  intervalMonths: number
  /** Null where nobody knows the day; whether it ran out is not known then either. */
  calibratedOn: string | null
  dueOn: string | null
  overdue: boolean | null
  /** Takes no more readings. */
  retired: boolean
}

/** What became of a gauge, the newest first. */
/** How the epoch of a demo shop begins: what was typed there is of no use to the shop that comes after it. */
export const DEMO_EPOCH = 'demo-'

/** A sheet as the list of drives shows it. */
export interface DriveEntry extends DriveSheet {
  /** A draft of its next version is open. */
  drafted: boolean
  /** Changes in that draft that the newest edition lacks: new jobs work without them until it is published. 0 where nothing is published yet. */
  waiting: number
}

/** The next version of a sheet, as far as it is typed. */
export interface SheetDraft {
  body: SheetBody
  changedAt: string
  changedBy: string
  /** Newest edition that is published; null while there is none. */
  edition: number | null
  /** Version of that edition. */
  version: number | null
  /** What was changed last in it, the newest first. */
  changes: DraftChange[]
}

/** One change of a draft. */
export interface DraftChange {
  id: number
  /** Id of whoever made it. */
  by: string
  name: string
  at: string
  /** The change that it took back. */
  undoes: number | null
  /** It was taken back itself. */
  undone: boolean
  /** The first rows that it changed. */
  rows: { list: string; name: string; did: 'in' | 'out' | 'changed' | 'moved' }[]
  /** How many rows it changed. */
  count: number
}

/** What the finished units of a sheet have taught; null while there are too few. */
export interface SheetExperience {
  experience: Experience | null
}

export interface SheetVersion {
  version: number
  edition: number
  note: string
  at: string | null
  by: string | null
  /** Jobs that work on it. */
  jobs: number
}

export interface GaugeHistory {
  calibrations: { on: string; note: string; by: string | null }[]
  events: EventEntry[]
}

/** A line of the live event stream. */
export interface LiveEvent {
  id: number
  kind: string
  jobId: string | null
}

/** The result of a calculation; its fields are described in the registry. */
export type CalculationResult = Record<string, unknown>

/** A contact pattern that was kept from a good build of this drive. */
export interface ReferencePattern {
  mesh: string
  flank: Flank
  /** As it was marked. */
  outline: Outline
  /** Of the job it comes from. */
  number: string
  at: string
  /** From this very unit. */
  sameUnit: boolean
}
