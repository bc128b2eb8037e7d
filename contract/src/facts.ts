import type { BuildFacts } from '@moray/core/setting/assess'
import type { ReadingEntry, StackEntry } from './replies.ts'

/** What the core needs to know of a build: the entries that count. Server and browser ask the core with the same facts. */
export function factsOf(stacks: StackEntry[], readings: ReadingEntry[]): BuildFacts {
  const facts: BuildFacts = { stacks: {}, readings: {} }
  for (const s of stacks) if (!s.superseded) facts.stacks[s.location] = s.thicknessMm
  for (const r of readings)
    if (!r.superseded) (facts.readings[r.measure] ??= []).push({ valueMm: r.valueMm, gauge: r.gauge })
  return facts
}
