import type { Gauge } from '@moray/contract/replies'
import type { GaugeFigures } from '@moray/contract/requests/gauges'
import { kindOfGauge, type GaugeKindId } from '@moray/core/measuring/gauge-kinds'
import { MM_PER_INCH } from '@moray/core/units/factors'
import type { UnitSystem } from '@moray/core/units/format'
import { plainNumber } from '@moray/core/units/plain-number'
import { readTyped } from '../ui/both-units.ts'

/** The figures of a gauge as they are typed: texts, with their units where they have any. */
export interface TypedFigures {
  resolution: string
  mpe: string
  repeatability: string
  perTurnMm: string
  intervalMonths: string
  masters: Length[]
  /** Of a torque wrench. */
  fromNm: string
  toNm: string
  wrenchMm: string
  adapters: Length[]
}
export interface Length {
  label: string
  lengthMm: string
}
/** Lists of named lengths. */
export type LengthList = 'masters' | 'adapters'
export type FigureField = Exclude<keyof TypedFigures, LengthList>

const isWrench = (kind: GaugeKindId) => kindOfGauge(kind).measures === 'torque'
const NO_WRENCH = { fromNm: '', toNm: '', wrenchMm: '', adapters: [] }

/** A figure with its unit; a round number of inches stays one for whoever reads inches first. */
function withUnit(value: number | null | undefined, unit: string, first: UnitSystem): string {
  if (value == null) return ''
  const inch = Number((value / MM_PER_INCH).toFixed(5))
  const isRound = Math.abs(inch * MM_PER_INCH - value) < 1e-9
  return unit === 'mm' && first === 'imperial' && isRound ? `${inch} in` : `${value} ${unit}`.trim()
}

/** The unit that is typed with a figure: none with degrees, since an error of them is a difference and not a temperature. */
function typedUnit(kind: GaugeKindId): string {
  const { unit, quantity } = kindOfGauge(kind)
  return quantity === 'temperature' ? '' : unit
}

/**
 * What is proposed for a new gauge of that kind: a usual one of a metric shop, or of an inch shop, whose gauges are made to other round figures.
 */
export function usualFigures(kind: GaugeKindId, first: UnitSystem): TypedFigures {
  const { usual, usualInch, masters, dial } = kindOfGauge(kind)
  const inch = first === 'imperial' ? usualInch : undefined
  const unit = inch?.unit ?? typedUnit(kind)
  const { resolution, mpe, repeatability } = inch ?? usual
  const typed = (v: number) => `${v} ${unit}`.trim()
  return {
    resolution: typed(resolution),
    mpe: typed(mpe),
    repeatability: typed(repeatability),
    perTurnMm: dial ? (first === 'imperial' ? '0.1 in' : '1 mm') : '',
    intervalMonths: '12',
    masters: masters ? [{ label: '', lengthMm: '' }] : [],
    ...NO_WRENCH,
  }
}

/** The figures of a gauge that is there. */
export function figuresOf(gauge: Gauge, first: UnitSystem): TypedFigures {
  const unit = typedUnit(gauge.kind)
  return {
    resolution: withUnit(gauge.resolution, unit, first),
    mpe: withUnit(gauge.mpe, unit, first),
    repeatability: withUnit(gauge.repeatability, unit, first),
    perTurnMm: withUnit(gauge.perTurnMm, 'mm', first),
    intervalMonths: String(gauge.intervalMonths),
    masters: gauge.masters.map((m) => ({ label: m.label, lengthMm: withUnit(m.lengthMm, 'mm', first) })),
    ...(gauge.wrench
      ? {
          fromNm: withUnit(gauge.wrench.fromNm, 'Nm', first),
          toNm: withUnit(gauge.wrench.toNm, 'Nm', first),
          wrenchMm: withUnit(gauge.wrench.lengthMm, 'mm', first),
          adapters: gauge.wrench.adapters.map((a) => ({
            label: a.label,
            lengthMm: withUnit(a.lengthMm, 'mm', first),
          })),
        }
      : NO_WRENCH),
  }
}

/** What was typed, read: the figures, or what is wrong, by field (`masters.0.lengthMm`). */
export function readFigures(
  kind: GaugeKindId,
  typed: TypedFigures,
  first: UnitSystem,
): { figures?: GaugeFigures; wrong: Record<string, string> } {
  const { quantity } = kindOfGauge(kind)
  const unit = typedUnit(kind)
  const wrong: Record<string, string> = {}
  function read(field: string, text: string, of: string, bare?: typeof quantity): number {
    const said = readTyped(text, of, bare === 'temperature' ? undefined : bare, first)
    if (said.state === 'value') return said.value
    wrong[field] = said.state === 'not' ? said.why : 'is missing'
    return NaN
  }
  const lengths = (list: LengthList) =>
    typed[list].map((m, i) => ({
      label: m.label.trim(),
      lengthMm: read(`${list}.${i}.lengthMm`, m.lengthMm, 'mm', 'length'),
    }))
  // a wrench without its range is known by its error alone
  const ranged = isWrench(kind) && [typed.fromNm, typed.toNm, typed.wrenchMm].some((t) => t.trim())
  const figures = {
    ...(ranged
      ? {
          wrench: {
            fromNm: read('fromNm', typed.fromNm, 'Nm', 'torque'),
            toNm: read('toNm', typed.toNm, 'Nm', 'torque'),
            ...(typed.wrenchMm.trim() ? { lengthMm: read('wrenchMm', typed.wrenchMm, 'mm', 'length') } : {}),
            adapters: lengths('adapters'),
          },
        }
      : {}),
    resolution: read('resolution', typed.resolution, unit, quantity),
    mpe: read('mpe', typed.mpe, unit, quantity),
    repeatability: read('repeatability', typed.repeatability, unit, quantity),
    ...(typed.perTurnMm.trim() ? { perTurnMm: read('perTurnMm', typed.perTurnMm, 'mm', 'length') } : {}),
    intervalMonths: plainNumber(typed.intervalMonths) ?? NaN,
    masters: lengths('masters'),
  }
  if (!Number.isInteger(figures.intervalMonths))
    wrong['intervalMonths'] = 'a whole number of months is needed'
  for (const list of ['masters', 'adapters'] as const)
    typed[list].forEach((m, i) => {
      if (!m.label.trim()) wrong[`${list}.${i}.label`] = 'what is marked on it?'
    })
  return Object.keys(wrong).length ? { wrong } : { figures, wrong }
}
