/** Who writes, and when. */
export interface Who {
  id: string
  role: 'technician' | 'lead'
  /** Taken once everything that the write needs is locked: of two writes to one unit the later one never has the earlier time. */
  at: Date
  /** A code stands behind the name; `now` where it was said a moment ago, as for a signature. */
  code: 'none' | 'today' | 'now'
}
