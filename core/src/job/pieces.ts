import { showMm } from '../units/format.ts'
import type { BuildRecord } from './record.ts'

/** What a plan may use: a drawer line with its count, or a piece of this very case. */
export interface AvailablePiece {
  id: string
  thicknessMm: number
  count: number
  label: string
  origin: 'drawer' | 'case'
}

/** How often each piece id sits in a build. Found pieces count as the case's own, whatever they were likened to. */
export function piecesInUse(build: Pick<BuildRecord, 'stacks'> | undefined): Map<string, number> {
  const used = new Map<string, number>()
  for (const s of build?.stacks ?? [])
    if (!s.superseded) for (const p of s.pieces) used.set(p.id, (used.get(p.id) ?? 0) + 1)
  return used
}

/**
 * What a job can build with: the drawer's free stock, the drawer pieces in its own newest trial (they come out when it is
 * taken apart), and the pieces that were found in the case.
 */
export function availablePieces(
  lines: readonly { id: string; thicknessMm: number; count: number }[],
  builds: readonly Pick<BuildRecord, 'stacks'>[],
): AvailablePiece[] {
  const inCase = piecesInUse(builds.at(-1))
  const found = (builds[0]?.stacks ?? []).filter((s) => !s.superseded)
  return [
    ...lines.map((l) => ({
      id: `d${l.id}`,
      thicknessMm: l.thicknessMm,
      count: l.count + (inCase.get(`d${l.id}`) ?? 0),
      label: `${showMm(l.thicknessMm, 3)} drawer`,
      origin: 'drawer' as const,
    })),
    ...found.flatMap((s) =>
      s.pieces.map((p) => ({
        id: p.id,
        thicknessMm: p.thicknessMm,
        count: 1,
        label: `${showMm(p.thicknessMm, 3)} out of ${s.location}`,
        origin: 'case' as const,
      })),
    ),
  ]
}
