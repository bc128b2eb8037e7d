import { GAUGE_KINDS, kindOfGauge, type GaugeKindId } from './gauge-kinds.ts'

/** Ways of measuring that some kind of gauge is made for; of any other nobody says which gauge suits. */
const KNOWN_WAYS: ReadonlySet<string> = new Set(Object.values(GAUGE_KINDS).flatMap((k) => k.suits))

/** Whether a gauge of this kind is made for a way of measuring; true where no kind is said to be. */
export const suits = (kind: GaugeKindId, way: string): boolean =>
  !KNOWN_WAYS.has(way) || kindOfGauge(kind).suits.includes(way)

/**
 * Gauges for a way of measuring: those that are made for it, the one that was used last first, then those that have it as their first use; and the others,
 * which can be used all the same, with their own uncertainty.
 */
export function gaugesFor<G extends { id: string; kind: GaugeKindId }>(
  gauges: readonly G[],
  way: string,
  lastUsed: string | undefined,
): { suiting: G[]; others: G[] } {
  const turn = (g: G) => (g.id === lastUsed ? -1 : kindOfGauge(g.kind).suits.indexOf(way))
  const suiting = gauges.filter((g) => suits(g.kind, way)).toSorted((a, b) => turn(a) - turn(b))
  return { suiting, others: gauges.filter((g) => !suits(g.kind, way)) }
}
