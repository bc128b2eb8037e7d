import type { BuildFacts } from '@moray/core/setting/assess'
import type { ReadingEntry, StackEntry } from './replies.ts'

/** What the core needs to know of a build: the entries that count. Server and browser ask the core with the same facts. */
export function factsOf(stacks: StackEntry[], readings: ReadingEntry[]): BuildFacts {
  const pieces: Record<string, string[]> = {}
  const facts: BuildFacts = { stacks: {}, readings: {}, pieces }
  for (const s of stacks) {
    if (s.superseded) continue
    facts.stacks[s.location] = s.thicknessMm
    pieces[s.location] = s.pieces.map((p) => p.id)
  }
  for (const r of readings)
    if (!r.superseded) (facts.readings[r.measure] ??= []).push({ valueMm: r.valueMm, gauge: r.gauge })
  return facts
}
