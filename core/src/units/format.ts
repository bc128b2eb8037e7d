import { MM_PER_INCH } from './factors.ts'

/** Number of decimals that shows one step of `resolution`, at most 4. 0.01 → 2, 0.002 → 3, 0.0254 → 4. */
export function decimalsFor(resolution: number): number {
  if (!(resolution > 0)) return 3
  let decimals = 0
  let step = resolution
  while (decimals < 4 && Math.abs(step - Math.round(step)) > 1e-9 * Math.max(1, step)) {
    step *= 10
    decimals++
  }
  return decimals
}

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

/** Both unit systems side by side: `0.42 mm · 16.5 t`. */
export function showBoth(mm: number, decimals = 2): string {
  return `${showMm(mm, decimals)} · ${showThou(mm)}`
}
