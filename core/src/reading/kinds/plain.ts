import { refuse } from '../../checks/input-error.ts'
import { depth } from '../../measuring/depth.ts'
import type { Measured } from '../../setting/measured.ts'
import { saidBack, typedFigure } from '../../units/typed-figure.ts'
import type { PlausibleKind } from '../../units/plausible.ts'
import type { ReadingKind, Shown, TypedReading } from '../kind.ts'

/** One figure, read off the gauge. */
export const plain: ReadingKind = {
  extras: [],
  figure: plainFigure,
  parse: (measure, typed, dialPerTurnMm) => readOne(plainFigure(measure), typed, dialPerTurnMm),
  value: (measure, { raw }, masterMm) => (measure.kind === 'depth' ? depthOf(measure, raw, masterMm) : raw),
  check(measure, { raw, text }) {
    if (raw < 0 && !SIGNED.has(measure.kind))
      refuse('text', `"${text}" is negative, which this cannot be: ${measure.label}`)
  },
  // of a pair that was tried on a plate; anything else is read as everybody reads it
  explain: ({ raw, how }, show) =>
    how.as === 'loose-pair' ? [`read as loose pair on a plate ${show(raw, 'mm')}`] : [],
}

/** Reads the one figure of a reading. */
export function readOne(
  kind: PlausibleKind,
  { text, unit, confirmed = false }: TypedReading,
  dialPerTurnMm: number | null,
): Shown {
  const read = typedFigure('text', text, unit, kind, { dialPerTurnMm, confirmed })
  return { raw: read.value, unit: read.unit, text, u: 0, how: {} }
}

/** What may lie on either side of zero. */
const SIGNED: ReadonlySet<Measured['kind']> = new Set(['depth', 'runout'])

export function plainFigure(measure: Measured): PlausibleKind {
  if (measure.kind === 'end-play' || measure.kind === 'backlash') return measure.kind
  if (measure.kind === 'depth') return DEPTHS[measure.how.method]
  return measure.kind === 'runout' ? 'round-a-shaft' : measure.kind === 'pair-depth' ? 'depth' : 'clearance'
}
const DEPTHS = { 'master-drop': 'drop', arbor: 'depth', 'feeler-block': 'clearance' } as const

function depthOf(
  { how }: Extract<Measured, { kind: 'depth' }>,
  raw: number,
  masterMm: number | undefined,
): number {
  const result =
    how.method === 'master-drop'
      ? depth({ ...how, masterMm: masterMm ?? how.masterMm, dropMm: raw })
      : how.method === 'arbor'
        ? depth({ ...how, arborDiameterMm: masterMm ?? how.arborDiameterMm, readingMm: raw })
        : depth({ ...how, clearanceMm: raw })
  if (!('depthMm' in result)) refuse('method', 'gives a shim, not a depth')
  return result.depthMm
}

/** What was typed, with what was understood. */
export const asTyped = (text: string, raw: number, kind: PlausibleKind): string =>
  `"${text}" is ${saidBack(raw, kind)}`
