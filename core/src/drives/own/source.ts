import { torqueUnitIn, type TorqueUnit } from '../../units/torque-unit.ts'

/** Where a figure comes from. */
export const SOURCE_KINDS = {
  manual: 'manual',
  plate: 'plate or stamp',
  counted: 'counted',
  measured: 'measured',
  learned: 'learned from builds',
  seen: 'seen on the drive',
  assumed: 'assumed',
} as const
export type SourceKind = keyof typeof SOURCE_KINDS

export interface Source {
  /** Path of the figure. */
  path: string
  kind: SourceKind
  /** Page of the manual, or what it was measured with. */
  where?: string
  /** As it stands there, with its unit and its digits: `0.019 in`. */
  as?: string
  by?: string
  /** Day on which it was entered. */
  on?: string
  /** It came with somebody else's sheet, and nobody here has held it against his own manual yet. */
  unchecked?: boolean
  /** It was entered at the bench, and nobody has confirmed it on the sheet yet. The next job works with it all the same. */
  atBench?: boolean
}

/** The unit in which the manual prints a torque of the sheet; undefined where its source does not say. */
export function torqueUnitAt(sources: readonly Source[] | undefined, path: string): TorqueUnit | undefined {
  const as = sourceOf(sources, path)?.as
  return as === undefined ? undefined : torqueUnitIn(as)
}

/** The source of a figure; undefined where none is kept. */
export const sourceOf = (sources: readonly Source[] | undefined, path: string): Source | undefined =>
  sources?.find((s) => s.path === path)
