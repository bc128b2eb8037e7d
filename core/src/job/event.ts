import type { Flank } from '../gears/flank.ts'
import type { PieceCut } from '../setting/shim-problem.ts'
import type { Turned } from '../setting/turned.ts'
/**
 * What happened, as data that carries its own words: names and labels as they stood on that day. `subject` names what it
 * happened to (`measure:depth`, `step:ratio`). The sentence is made when it is shown (event-text.ts).
 */
export type Told = { subject: string } & Happened

/** A reading: a length, or a torque. */
type Figure = { mm: number; nm?: undefined } | { nm: number; mm?: undefined }

export type Happened =
  | { kind: 'opened'; data: { number: string; sheet: string; boat: string } }
  | { kind: 'note'; data: { text: string } }
  | { kind: 'stack'; data: { label: string; pieces: number; mm: number; wasMm?: number; reason?: string } }
  | { kind: 'reading'; data: Figure & { label: string; gauge: string } }
  | { kind: 'superseded'; data: Figure & { label: string; nowMm?: number; nowNm?: number; reason: string } }
  | {
      kind: 'trial'
      data: { number: number; stacks: { label: string; mm: number; turned?: Turned }[] }
    }
  | { kind: 'pattern'; data: { label: string; flank: Flank; place: number; reason?: string; later?: true } }
  | { kind: 'accepted'; data: { number: number; reason?: string; signed?: boolean } }
  | { kind: 'withdrawn'; data: { number: number; reason: string } }
  | { kind: 'step'; data: { what: string; reason?: string } }
  | { kind: 'attempt'; data: { what: string; why: string[] } }
  | { kind: 'step-corrected'; data: { what: string; later: number; reason: string; over?: true } }
  | { kind: 'corrected'; data: { changes: DetailChange[]; reason: string } }
  | { kind: 'step-back'; data: { what: string; later: number; reason: string } }
  | { kind: 'step-undone'; data: { what: string; reason: string } }
  | { kind: 'line-accepted'; data: { line: string; reason: string } }
  | { kind: 'agreed'; data: { what: string; reason: string } }
  | { kind: 'route-seen'; data: { added: number; removed: number; changed: number } }
  | { kind: 'row-off'; data: { name: string; orientation?: string } }
  | { kind: 'row-order'; data: Record<string, never> }
  | { kind: 'row'; data: { act: RowAct; name: string; reason?: string; marks?: string[]; renewed?: boolean } }
  | { kind: 'grade'; data: { part: string; grade: string; against?: string; reason: string; also: string[] } }
  | { kind: 'finding'; data: { label: string; state: 'there' | 'not' | 'unknown' } }
  | { kind: 'outcome'; data: { label: string } }
  | { kind: 'estimate'; data: { rebuild: number; positions: number } }
  | {
      kind: 'approval'
      data: { customer: string; choice: string; how: string; ends?: string; kept?: string[] }
    }
  | { kind: 'school'; data: { question: string; label: string; reason: string } }
  | { kind: 'life'; data: { act: LifeAct; reason?: string; stand?: string } }
  | { kind: 'picture'; data: { of: string; note?: string } }
  | { kind: 'drawer'; data: DrawerChange }
  | { kind: 'gauge'; data: GaugeChange }
  | { kind: 'sheet'; data: SheetChange }
  | { kind: 'figure'; data: { label: string; as: string } }
  | { kind: 'edge'; data: { row: string; field: string; to: string; seen: 'yes' | 'no' | 'cannot-tell' } }
  | { kind: 'sheet-adopted'; data: { edition: number; changes: number; reason: string } }
  | { kind: 'scope'; data: { label: string; off: number; money: number; hours: number; reason: string } }
  | { kind: 'open-item'; data: { text: string; how?: string } }
  | { kind: 'loop'; data: { number: number; why: string; note: string; parts: string[]; again?: number } }
  | { kind: 'case'; data: { number: string; sheet: string } }
  | { kind: 'moved'; data: { was: string; now: string; reason: string } }
  /** A record of another shop was brought in. */
  | { kind: 'foreign'; data: { number: string; sheet: string; pictures: number } }
  /** The name of an owner was taken out; `masked`: entries of the history that named it. */
  | { kind: 'privacy'; data: { jobs: number; masked: number[]; reason: string } }
  | { kind: 'shop'; data: ShopChange }

export type JobDetail = 'serial' | 'boat' | 'owner' | 'water' | 'hours' | 'complaint'
export interface DetailChange {
  field: JobDetail
  was: string | number
  now: string | number
}

export type RowAct = 'fit' | 'unfit' | 'leave-out' | 'mark' | 'remove'
export type LifeAct = 'hold' | 'resume' | 'stand' | 'close' | 'reopen'
export type DrawerChange =
  | { act: 'line'; mm: number; pieces: number; cut?: PieceCut }
  | { act: 'add'; mm: number; pieces: number }
  | { act: 'count'; mm: number; pieces: number; was: number; reason: string }
  | { act: 'thickness'; mm: number; wasMm: number; reason: string }
export type GaugeChange =
  | { act: 'added'; name: string }
  | { act: 'changed'; name: string; figures: GaugeFigure[]; reason: string }
  | { act: 'calibrated'; name: string; on: string; note: string }
  | { act: 'retired' | 'back'; name: string; reason: string }
export type SheetChange =
  | { act: 'added' | 'begun' | 'imported'; name: string }
  | { act: 'figure'; name: string; label: string; as: string | null }
  | { act: 'row'; name: string; row: string; out: boolean }
  | { act: 'rows' | 'moved' | 'undone'; name: string; list: string; rows: number }
  | { act: 'list'; name: string; list: string; rows: number }
  | { act: 'checked'; name: string; figures: number }
  | { act: 'published'; name: string; edition: number; note: string }
/** A figure of a gauge that changed, in the gauge's unit; null where it had or has none. */
export interface GaugeFigure {
  figure: 'resolution' | 'mpe' | 'repeatability' | 'perTurnMm' | 'intervalMonths' | 'masters' | 'wrench'
  was: string | number | null
  now: string | number | null
}
export type ShopChange =
  | { about: 'school'; question: string; label: string }
  | { about: 'rules'; departuresNeedLead: boolean; rate?: number; currency?: string }
  | { about: 'likelihood'; finding: string; cause: string; likelihood?: number; reason: string }
  | { about: 'person'; name: string; role: string }
  | { about: 'person-changed'; was: PersonSaid; now: PersonSaid }
  | { about: 'left-demo' }
  | { about: 'copies'; nightly: boolean; folder?: string }
  /** By Moray itself: rows that it wrote without anybody, or found. */
  | { about: 'sealed'; why: string }
  | { about: 'wrong-code'; name: string; device: string; tries: number }
  | { about: 'pairing' }
  | { about: 'device'; name: string; revoked: boolean }
  | { about: 'code'; name: string; set: boolean }

export interface PersonSaid {
  name: string
  role: string
  retired: boolean
}

/** An event as it is read back. */
export interface EventEntry {
  id: number
  at: string
  by: string
  kind: string
  jobId: string | null
  subject: string
  data: Record<string, unknown>
  /** A sentence that an older Moray kept in place of data. */
  text: string | null
  /** Seconds by which the clock had run back when it was written; null when it had not. */
  clockBackS: number | null
}
