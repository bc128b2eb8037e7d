/** How a closed case is proved tight with air: what is blocked, how much, how long, and what may escape. */
export interface LeakPlan {
  /** Ports to be blocked or capped, by name. */
  ports: string[]
  lowKpa: number
  workKpa: number
  maxKpa: number
  holdMin: number
  /** What a manual prints: it may fall by so much over the hold, or over minutes of its own; 0 is no drop at all. This or a rate, or both. */
  allowedDrop?: { kpa: number; minutes?: number }
  /** A leak rate that the shop allows: stricter, and seldom printed. */
  allowedMlPerMin?: number
  volumeMl: number
  /** What is moved by hand meanwhile. */
  turns: string
}
