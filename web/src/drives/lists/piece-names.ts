import type { Piece } from '@moray/core/drives/graph/rows'
import { freeId } from '../own/use-draft-write.ts'

/** The loose pieces of a group in one line, as they are typed in its table. */
export const namesOf = (pieces: readonly Piece[]): string => pieces.map((p) => p.name).join(', ')

/** The pieces that a line names: those that are there keep their price and all else, new ones get an id. */
export function withNames(before: readonly Piece[], line: string, taken: ReadonlySet<string>): Piece[] {
  const ids = new Set([...taken, ...before.map((p) => p.id)])
  return line
    .split(/[,;]/)
    .map((n) => n.trim())
    .filter(Boolean)
    .map((name) => {
      const known = before.find((p) => p.name.toLowerCase() === name.toLowerCase())
      if (known) return known
      const id = freeId(name, ids)
      ids.add(id)
      return { id, name }
    })
}
