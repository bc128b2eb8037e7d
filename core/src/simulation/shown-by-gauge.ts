import { unitOf, type SetMeasure } from '../setting/measures.ts'
import { seatReading } from './seat-reading.ts'

/** The gauge of the demo that is made for a measure. */
const gaugeFor = (m: SetMeasure): string => {
  if (m.kind === 'rolling-torque') return 'g09'
  if (m.kind !== 'depth') return 'g02'
  return { 'master-drop': 'g01', arbor: 'g07', 'feeler-block': 'g08' }[m.how.method]
}

/** What a gauge shows, mm or Nm, when the measure truly is `value`. */
function rawOf(measure: SetMeasure, value: number): number {
  if (measure.kind !== 'depth') return Math.abs(value)
  const { how } = measure
  if (how.method === 'master-drop') return 50.003 - value
  return how.method === 'arbor'
    ? value - how.arborDiameterMm / 2
    : how.nominalClearanceMm + value - how.nominalDepthMm
}

/**
 * A reading as somebody would type it in the shop of the demo, when the measure truly is `truth`: with what is said beside it.
 * @param stackMm thickness of the stack that sets a seat
 */
export function typedReading(m: SetMeasure, truth: number, stackMm = 0) {
  const seat = m.kind === 'seat' ? seatReading(m, stackMm + truth) : undefined
  return {
    measure: m.id,
    text: `${(seat?.raw ?? rawOf(m, truth)).toFixed(3)} ${unitOf(m)}`,
    unit: unitOf(m),
    gaugeId: gaugeFor(m),
    confirmed: true,
    ...(seat
      ? {
          as: seat.how.as,
          seat: { case: `${seat.how.seat!.caseMm} mm`, nominal: `${seat.how.seat!.nominalMm} mm` },
        }
      : {}),
    ...(m.kind === 'crush' ? { as: truth < 0 ? 'float' : 'gap' } : {}),
  }
}
