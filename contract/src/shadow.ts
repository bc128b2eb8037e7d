import type { Line } from '@moray/core/assembly/invariants'

/** What the list of what must be so says of the open jobs, while nothing depends on it. */
export interface ShadowReply {
  jobs: ShadowJob[]
}

export interface ShadowJob {
  id: string
  number: string
  boat: string
  sheetName: string
  /** How many acts are known of it, and how many had to be concluded. */
  acts: number
  inferred: number
  /** The plan of today has nothing left. */
  nothingLeft: boolean
  /** Nothing is left on the route, and a line here is red. */
  overlooked: boolean
  lines: (Line & { text: string })[]
}
