/** What a job waits for, as ids with the words that name them; the sentence is made where it is shown. */
export type Waits = WaitsFor & Meanwhile

/** What goes on beside it, as names: work that other hands can do, and what works by itself until when (ISO 8601). */
export interface Meanwhile {
  also?: string[]
  running?: { kind: 'soak' | 'cure'; until: string }[]
}

type WaitsFor =
  | { kind: 'nothing' }
  | { kind: 'closed'; reason: string }
  | { kind: 'held'; reason: string }
  | { kind: 'step'; step: string; what: string }
  | { kind: 'shut'; step: string; why: string }
  | { kind: 'running'; step: string; what: string; since: string }
  | { kind: 'stack'; stack: string; label: string; build: number }
  | { kind: 'reading'; measure: string; label: string; build: number; missing: number }
  | { kind: 'accept' | 'choose-stacks' | 'decide'; build: number }
  /** Kept by an older Moray as a sentence. */
  | { kind: 'said'; text: string }
