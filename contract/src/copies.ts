/** A copy of the shop in the folder of its copies. */
export interface CopyFile {
  name: string
  /** When it was made, by its name. */
  at: string
  nightly: boolean
  bytes: number
}

export interface DiskState {
  /** The least that is free where the shop or its copies lie; null where nobody can say. */
  freeBytes: number | null
  nearlyFull: boolean
}

/** What the Bench has to say about copies. */
export type CopyNotice =
  | { kind: 'never'; since: string }
  | { kind: 'old'; at: string }
  /** The last one is dated ahead of the clock: one of the two is wrong. */
  | { kind: 'ahead'; at: string }
  | { kind: 'disk'; freeBytes: number }

/** The copies of a shop. A file under a copy's name was proved when it was made. */
export interface Copies {
  /** Where they go. */
  folder: string
  /** Whether somebody named the folder; otherwise it lies beside the shop's own data. */
  own: boolean
  folderThere: boolean
  nightly: boolean
  demo: boolean
  kept: { days: number; weeks: number; months: number }
  /** The newest first. */
  copies: CopyFile[]
  /** The newest that was proved, wherever it lies; `broken` things were wrong in the shop itself. */
  last: { file: string; at: string; bytes: number; jobs: number; broken: number } | null
  /** The newest try that came to nothing. */
  failed: { what: 'copy' | 'back'; at: string; why: string } | null
  running: { what: 'copy' | 'back'; since: string } | null
  disk: DiskState
}
