import type { Part } from '@moray/core/drives/parts'
import type { RowPart } from '@moray/core/job/record'

/** The part that a scanned code or a typed name means: its id, its whole name, or the only one whose name holds it. */
export function partMeant(parts: readonly Part[], text: string): Part | undefined {
  const wanted = text.trim().toLowerCase()
  if (!wanted) return undefined
  const exact = parts.find((p) => p.id === wanted || p.name.toLowerCase() === wanted)
  if (exact) return exact
  const near = parts.filter((p) => p.name.toLowerCase().includes(wanted))
  return near.length === 1 ? near[0] : undefined
}

/** Built back in the order in which it came off, from the end. */
export const buildBack = (row: readonly RowPart[]): RowPart[] => [...row].reverse()
