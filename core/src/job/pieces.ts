import type { PieceCut } from '../setting/shim-problem.ts'
import { showMm } from '../units/format.ts'
import type { PlannedStack } from '../setting/shim-solve.ts'
import type { BuildRecord } from './record.ts'

/** What a plan may use: a drawer line with its count, or a piece of this very case. */
export interface AvailablePiece {
  id: string
  thicknessMm: number
  count: number
  label: string
  origin: 'drawer' | 'case'
  /** It can be made thinner before it goes in. */
  cut?: PieceCut
}

/** The pieces of a planned stack, the one that is made thinner with what it is brought to. */
export function plannedPieces({
  pieceIds,
  thin,
}: Pick<PlannedStack, 'pieceIds' | 'thin'>): { id: string; toMm?: number }[] {
  const at = thin ? pieceIds.indexOf(thin.pieceId) : -1
  return pieceIds.map((id, i) => (thin && i === at ? { id, toMm: thin.toMm } : { id }))
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
 * taken apart), the pieces that were found in the case, and those that were peeled or ground for it: they are no pieces of the drawer any more.
 */
export function availablePieces(
  lines: readonly { id: string; thicknessMm: number; count: number; cut?: PieceCut }[],
  builds: readonly Pick<BuildRecord, 'stacks'>[],
): AvailablePiece[] {
  const inCase = piecesInUse(builds.at(-1))
  const found = (builds[0]?.stacks ?? []).filter((s) => !s.superseded)
  const thinned = builds.slice(1).flatMap((b) => b.stacks.flatMap((s) => s.pieces.filter((p) => p.thinned)))
  return [
    ...lines.map((l) => ({
      id: `d${l.id}`,
      thicknessMm: l.thicknessMm,
      count: l.count + (inCase.get(`d${l.id}`) ?? 0),
      label: `${showMm(l.thicknessMm, 3)} drawer`,
      origin: 'drawer' as const,
      ...(l.cut ? { cut: l.cut } : {}),
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
    ...thinned.map((p) => ({
      id: p.id,
      thicknessMm: p.thicknessMm,
      count: 1,
      label: `${showMm(p.thicknessMm, 3)} made for this case`,
      origin: 'case' as const,
    })),
  ]
}
