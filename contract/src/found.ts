import type { JobHead } from '@moray/core/job/record'

/** What of something matched. */
export interface FoundLine {
  kind:
    | 'job'
    | 'stack'
    | 'reading'
    | 'answer'
    | 'note'
    | 'open-item'
    | 'grade'
    | 'part'
    | 'outcome'
    | 'approval'
    | 'picture'
    | 'drive-part'
  /** Step, measure or part, as the kind has it; of a stack its place and the number of its trial. */
  ref: string
  text: string
  at: string
}

export interface FoundJob extends Pick<
  JobHead,
  'id' | 'number' | 'serial' | 'boat' | 'owner' | 'state' | 'openedAt'
> {
  sheetId: string
  sheetName: string
}

/** One thing that was found, and what of it matched. */
export type Found = { lines: FoundLine[] } & (
  | { what: 'job'; job: FoundJob }
  | { what: 'foreign'; foreign: ForeignHead }
  | { what: 'drive'; drive: { id: string; name: string } }
)

export interface SearchReply {
  found: Found[]
  /** More was found than is shown. */
  more: boolean
  /** Events that are not searched yet: a shop that was just brought back, or upgraded. */
  behind: number
}

/** A record that another Moray has written. */
export interface ForeignHead {
  id: number
  number: string
  serial: string
  boat: string
  owner: string
  sheetName: string
  /** First line of the heading of the shop that it came from. */
  shop: string
  openedAt: string
  /** When it came here, and by whom. */
  at: string
  by: string
}

/** How a job left its unit: what stands in the record of it. Lengths mm, torques Nm. */
export interface PastJob extends FoundJob {
  complaint: string
  hours: number | null
  acceptedAt: string | null
  /** Stacks as they were accepted; before that, as they were found. */
  stacks: Record<string, number>
  /** What every measure read, the mean of what counted. */
  reads: Record<string, number>
  /** Closed tests for tightness, as they were answered. */
  tests: { step: string; answers: Record<string, boolean | number | string>; at: string }[]
}

/** The same unit before, and units like it. */
export interface UnitsBefore {
  same: PastJob[]
  like: PastJob[]
}
