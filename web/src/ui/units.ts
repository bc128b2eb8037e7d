import {
  fixed,
  inchDecimals,
  showBoth,
  showInch,
  showMm,
  showOther,
  showThou,
} from '@moray/core/units/format'
import { MM_PER_INCH, NM_PER_INLB } from '@moray/core/units/factors'
import { computed } from 'vue'
import { useOwn } from '../stores/own.ts'
import { inBoth } from './both-units.ts'

/** How a figure of one quantity is shown; `decimals` are those of the canonical unit. */
export interface Shown {
  /** Name of the unit that is read first. */
  unit: string
  /** Digits alone. */
  digits: (value: number, decimals?: number) => string
  /** With the unit. */
  say: (value: number, decimals?: number) => string
  /** The same in the other system. */
  other: (value: number, decimals?: number) => string
  both: (value: number, decimals?: number) => string
}

/** Values for the eye, in the unit system of whoever works at this screen; the other one stands beside it. */
export function useUnits() {
  const own = useOwn()
  const imperial = computed(() => own.first === 'imperial')
  const lengths: Shown = {
    get unit() {
      return imperial.value ? 'in' : 'mm'
    },
    digits: (mm, decimals = 2) =>
      imperial.value ? fixed(mm / MM_PER_INCH, inchDecimals(decimals)) : fixed(mm, decimals),
    say: (mm, decimals = 2) => (imperial.value ? showInch(mm, decimals) : showMm(mm, decimals)),
    other: (mm, decimals = 2) => (imperial.value ? showMm(mm, decimals) : showThou(mm)),
    both: (mm, decimals = 2) => showBoth(mm, decimals, own.first),
  }
  /** Small torques, as bearings have them: an inch-pound is a ninth of a newton metre. */
  const inlb = (nm: number, decimals: number) => fixed(nm / NM_PER_INLB, Math.max(0, decimals - 1))
  const torques: Shown = {
    get unit() {
      return imperial.value ? 'in-lb' : 'Nm'
    },
    digits: (nm, decimals = 2) => (imperial.value ? inlb(nm, decimals) : fixed(nm, decimals)),
    say: (nm, decimals = 2) => (imperial.value ? `${inlb(nm, decimals)} in-lb` : `${fixed(nm, decimals)} Nm`),
    other: (nm, decimals = 2) => (imperial.value ? `${fixed(nm, decimals)} Nm` : showOther(nm, 'Nm')),
    both: (nm, decimals = 2) => `${torques.say(nm, decimals)} · ${torques.other(nm, decimals)}`,
  }
  return {
    imperial,
    /** The same for figures of this canonical unit. */
    of: (unit: 'mm' | 'Nm'): Shown => (unit === 'Nm' ? torques : lengths),
    /** Name of the length unit that is read first. */
    lengthUnit: computed(() => (imperial.value ? 'in' : 'mm')),
    digits: lengths.digits,
    length: lengths.say,
    other: lengths.other,
    both: lengths.both,
    /** A length with all its own digits, such as a step of a gauge, and thousandths to a hundredth of one. */
    exact: (mm: number) => {
      const pair = [`${mm} mm`, showThou(mm, 2)]
      return (imperial.value ? pair.reverse() : pair).join(' · ')
    },
    /** Any canonical value in both systems. */
    value: (value: number, unit: string) => inBoth(value, unit, own.first),
  }
}
