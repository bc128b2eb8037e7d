import { settableAdjusters } from '../drives/sheet.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { sensitivities, sensitivityTrust } from '../setting/train.ts'
import { suspects, type Suspect } from '../setting/suspects.ts'
import type { JudgedBuild } from './judge-builds.ts'
import type { BuildRecord } from './record.ts'

/** Readings of a case are never surer of a stack than dirt and seating leave them, relative. */
const LEAST_REL_U = 0.02

/** What may be behind a build that disagrees with its promise, from its own stacks and those of the build before. Nothing where it agrees. */
export function suspectsOf(
  sheet: DriveSheet,
  builds: readonly JudgedBuild[],
  build: Pick<JudgedBuild, 'number' | 'stacks' | 'check'>,
): Suspect[] {
  const before = builds.find((b) => b.number === build.number - 1)
  const [table, trust] = [sensitivities(sheet), sensitivityTrust(sheet)]
  return suspects(
    build.check,
    settableAdjusters(sheet).map((a) => ({
      id: a.id,
      pieces: piecesIn(build, a.id),
      before: before ? piecesIn(before, a.id) : [],
      sensitivity: Object.fromEntries(Object.entries(table).map(([m, row]) => [m, row[a.id] ?? 0])),
      relU: Math.max(LEAST_REL_U, ...Object.values(trust).map((row) => row[a.id]?.relU ?? 0)),
    })),
  )
}

const piecesIn = ({ stacks }: Pick<BuildRecord, 'stacks'>, location: string): number[] =>
  stacks.find((s) => s.location === location && !s.superseded)?.pieces.map((p) => p.thicknessMm) ?? []
