import type { TorqueUnit } from './torque-unit.ts'
import { KPA_PER_PSI, MM_PER_INCH, NM_PER_FTLB, NM_PER_INLB } from './factors.ts'

/** Fixed decimals without a minus sign in front of a zero. */
export function fixed(value: number, decimals: number): string {
  const text = value.toFixed(decimals)
  return /^-0(?:\.0*)?$/.test(text) ? text.slice(1) : text
}

/** Millimetres for the eye: `0.42 mm`. Rounded here and nowhere else. */
export function showMm(mm: number, decimals = 2): string {
  return `${fixed(mm, decimals)} mm`
}

/** Thousandths of an inch for the eye: `16.5 t`; inches from 2 in upwards: `2.1535 in`. */
export function showThou(mm: number, decimals = 1): string {
  const inch = mm / MM_PER_INCH
  return Math.abs(inch) >= 1 ? `${fixed(inch, 4)} in` : `${fixed(inch * 1000, decimals)} t`
}

/** Which unit system stands first: the reader's own. */
export type UnitSystem = 'metric' | 'imperial'

/** Decimals of an inch for so many decimals of a millimetre: a ten-thousandth at most, finer than which no gauge here reads. */
export const inchDecimals = (decimals: number): number => Math.min(4, decimals + 2)

/** Inches for the eye: `0.0165 in`. */
export function showInch(mm: number, decimals = 2): string {
  return `${fixed(mm / MM_PER_INCH, inchDecimals(decimals))} in`
}

/** Both unit systems side by side, the reader's own first: `0.42 mm · 16.5 t`, or `0.0165 in · 0.42 mm`. */
export function showBoth(mm: number, decimals = 2, first: UnitSystem = 'metric'): string {
  return first === 'metric'
    ? `${showMm(mm, decimals)} · ${showThou(mm)}`
    : `${showInch(mm, decimals)} · ${showMm(mm, decimals)}`
}

/** A figure of a sheet for a text: what was typed in another system has digits without end in this one. */
export const plainDigits = (value: number): string => String(Number(value.toPrecision(SHOWN_DIGITS)))

const ML_PER_OUNCE = 29.5735

/** A volume for a text: `620 ml (21.0 oz)`. US fluid ounces. */
export const volumeInWords = (ml: number): string =>
  `${plainDigits(ml)} ml (${fixed(ml / ML_PER_OUNCE, 1)} oz)`

/** As many digits say everything that a bench can read. */
const SHOWN_DIGITS = 4

/** A value with its unit, for a text that is shown to readers of either system: `70 kPa (10.2 psi)`. */
export function inWords(value: number, unit: string, torqueUnit?: TorqueUnit): string {
  const other =
    unit === 'kPa'
      ? `${fixed(value / KPA_PER_PSI, 1)} psi`
      : unit === 'mm'
        ? showInch(value, 2)
        : showOther(value, unit, torqueUnit)
  // what was typed in the other system is kept whole, and has digits without end in this one
  const shown = `${plainDigits(value)} ${unit}`
  return other ? `${shown} (${other})` : shown
}

/** Below this torque inch-pounds are read more easily than foot-pounds. */
const SMALL_TORQUE_NM = 15

/** The unit of an inch shop in which a torque is read best. */
export const smallerUnit = (nm: number): 'inlb' | 'ftlb' => (Math.abs(nm) < SMALL_TORQUE_NM ? 'inlb' : 'ftlb')

/**
 * A value of the canonical units in those of the other system, for the eye; empty where there is no other.
 * @param unit mm, Nm, kPa, C, K, or one of them per min
 * @param torqueUnit the one that the manual prints, where it is known; by the size of the torque otherwise
 */
export function showOther(value: number, unit: string, torqueUnit?: TorqueUnit): string {
  switch (unit) {
    case 'mm':
      return showThou(value)
    case 'Nm':
      return (torqueUnit === 'inlb' || torqueUnit === 'ftlb' ? torqueUnit : smallerUnit(value)) === 'inlb'
        ? `${fixed(value / NM_PER_INLB, 1)} in-lb`
        : `${fixed(value / NM_PER_FTLB, 1)} ft-lb`
    case 'kPa':
      return `${fixed(value / KPA_PER_PSI, 2)} psi`
    case 'kPa/min':
      return `${fixed(value / KPA_PER_PSI, 4)} psi/min`
    case 'C':
      return `${fixed((value * 9) / 5 + 32, 1)} °F`
    case 'K':
      return `${fixed((value * 9) / 5, 1)} °F apart`
    default:
      return ''
  }
}
