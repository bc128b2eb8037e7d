import type { End, Topic } from './act.ts'

/** What a job is to come to, each with the number of the act from which it counts: what was done before that does not count for it. */
export interface Goal {
  /** Parts that come off. */
  off: ReadonlyMap<string, number>
  /** Parts that are new in the end. */
  renew: ReadonlyMap<string, number>
  /** Settings that are set anew whatever was touched. */
  set: ReadonlyMap<string, number>
  /** The unit comes off what it hangs on. */
  apart: boolean
  /** The oil is let out. */
  empties: boolean
  /** What is looked at whatever was touched. */
  know: ReadonlyMap<Topic, number>
  /** What is unsafe or leaks is got at and mended; where it is only looked at, that is for the owner to say. */
  mends: boolean
  /** It is put back together, and not left as it lies. */
  closes: boolean
  /** In what it ends, after which act. */
  end: End
  endsAfter: number
}
