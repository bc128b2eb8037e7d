import { refuse } from '../checks/input-error.ts'
import { kindOfGauge, type GaugeKindId } from '../measuring/gauge-kinds.ts'
import { nearestMaster, OTHER_MASTER_MM, type SettingMaster } from '../measuring/setting-master.ts'
import { gaugesFor } from '../measuring/suiting.ts'
import { wayOf, type Measured } from '../setting/measured.ts'
import type { GaugeSpec, ReadingHow } from '../setting/taken.ts'
import { quantityOf } from '../units/plausible.ts'
import { figureKind } from './kinds.ts'

/** What a reading has to know of its gauge. Figures in the unit of the gauge. */
export interface ReadingGauge extends GaugeSpec {
  id: string
  name: string
  kind: GaugeKindId
  /** Travel of one turn of the pointer, mm; null without one. */
  perTurnMm: number | null
  masters: readonly SettingMaster[]
  retired: boolean
}

type Way = ReadingHow['as']

/** Whether a gauge can read this at all, made for it or not: in its unit, from a master where there is one, with a pointer where something goes round. */
export function canRead(measure: Measured, as: Way, { kind }: Pick<ReadingGauge, 'kind'>): boolean {
  const gauge = kindOfGauge(kind)
  if (quantityOf(figureKind(measure, as)) === 'torque')
    return gauge.measures === 'torque' && gauge.suits.includes('rolling-torque')
  if (measure.kind === 'depth' && measure.how.method === 'master-drop') return gauge.masters
  return gauge.unit === 'mm' && !gauge.masters && (measure.kind !== 'runout' || gauge.dial)
}

/** @throws InputError for a gauge that is out of use, or cannot read this */
export function mustRead(measure: Measured, as: Way, gauge: ReadingGauge): void {
  if (gauge.retired) refuse('gaugeId', `"${gauge.name}" takes no more readings; choose another gauge`)
  if (!canRead(measure, as, gauge))
    refuse('gaugeId', `"${gauge.name}" cannot read this: ${measure.label}. Choose a gauge that can`)
}

/**
 * The gauges of a shop for one measure: those that are made for it, and the others that can read it all the same.
 * @param lastUsed id of the gauge that read this last: it is taken again, made for it or not. No other gauge that is not made for it is taken by itself.
 */
export function offeredGauges<G extends ReadingGauge>(
  measure: Measured,
  as: Way,
  gauges: readonly G[],
  lastUsed: string | undefined,
): { suiting: G[]; others: G[]; taken: G | undefined } {
  const able = gauges.filter((g) => !g.retired && canRead(measure, as, g))
  const { suiting, others } = gaugesFor(able, wayOf(measure, as), lastUsed)
  return { suiting, others, taken: able.find((g) => g.id === lastUsed) ?? suiting[0] }
}

/** The length that a depth is read from, as the sheet has it, mm; undefined where it is read from nothing. */
function lengthAsked(measure: Measured): { nominalMm: number; arbor: boolean } | undefined {
  if (measure.kind !== 'depth' || measure.how.method === 'feeler-block') return undefined
  const { how } = measure
  return how.method === 'arbor'
    ? { nominalMm: how.arborDiameterMm, arbor: true }
    : { nominalMm: how.masterMm, arbor: false }
}

/** The gauge's own master or arbor for a depth; undefined where it has none that is near enough, and where none is needed. */
export function masterFor(
  measure: Measured,
  { masters }: Pick<ReadingGauge, 'masters'>,
): SettingMaster | undefined {
  const asked = lengthAsked(measure)
  const nearest = asked && nearestMaster(masters, asked.nominalMm)
  return nearest && Math.abs(nearest.lengthMm - asked.nominalMm) <= OTHER_MASTER_MM ? nearest : undefined
}

/**
 * The measured length that a depth was read from, mm; null where the sheet's own counts: without a master, and of an arbor that the shop has not measured.
 * @param masterId the master that was used; the gauge's nearest when none is named
 * @throws InputError where the gauge has no such master, or it is another length than the sheet asks for
 */
export function masterLength(
  measure: Measured,
  gauge: Pick<ReadingGauge, 'name' | 'masters'>,
  masterId: string | undefined,
): number | null {
  const asked = lengthAsked(measure)
  if (!asked) return null
  const { nominalMm, arbor } = asked
  const what = arbor ? 'arbor' : 'setting master'
  // an arbor without a measured diameter is taken as the sheet has it
  if (arbor && masterId === undefined) return masterFor(measure, gauge)?.lengthMm ?? null
  const named =
    masterId === undefined
      ? nearestMaster(gauge.masters, nominalMm)
      : gauge.masters.find((m) => m.id === masterId)
  if (!named)
    refuse(
      'masterId',
      `${gauge.name} has no ${what}${masterId ? ` "${masterId}"` : ''}; choose the ${arbor ? 'gauge that has it' : 'depth gauge'}`,
    )
  if (Math.abs(named.lengthMm - nominalMm) > OTHER_MASTER_MM)
    refuse(
      'masterId',
      `is ${named.lengthMm} mm; the sheet asks for the ${nominalMm} mm ${arbor ? 'arbor' : 'master'}`,
    )
  return named.lengthMm
}
