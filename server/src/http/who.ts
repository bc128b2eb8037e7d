/** Who writes, and when. */
export interface Who {
  id: string
  role: 'technician' | 'lead'
  at: Date
  /** A code stands behind the name; `now` where it was said a moment ago, as for a signature. */
  code: 'none' | 'today' | 'now'
}
