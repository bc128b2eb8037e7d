import { fixed, inchDecimals, showBoth, showInch, showMm, showThou } from '@moray/core/units/format'
import { MM_PER_INCH } from '@moray/core/units/factors'
import { computed } from 'vue'
import { useOwn } from '../stores/own.ts'
import { inBoth } from './both-units.ts'

/** Values for the eye, in the unit system of whoever works at this screen; the other one stands beside it. */
export function useUnits() {
  const own = useOwn()
  const imperial = computed(() => own.first === 'imperial')
  return {
    imperial,
    /** Name of the length unit that is read first. */
    lengthUnit: computed(() => (imperial.value ? 'in' : 'mm')),
    /** Digits of a length without its unit; `decimals` are those of millimetres. */
    digits: (mm: number, decimals = 2) =>
      imperial.value ? fixed(mm / MM_PER_INCH, inchDecimals(decimals)) : fixed(mm, decimals),
    length: (mm: number, decimals = 2) => (imperial.value ? showInch(mm, decimals) : showMm(mm, decimals)),
    /** The same in the other system. */
    other: (mm: number, decimals = 2) => (imperial.value ? showMm(mm, decimals) : showThou(mm)),
    both: (mm: number, decimals = 2) => showBoth(mm, decimals, own.first),
    /** A length with all its own digits, such as a step of a gauge, and thousandths to a hundredth of one. */
    exact: (mm: number) => {
      const pair = [`${mm} mm`, showThou(mm, 2)]
      return (imperial.value ? pair.reverse() : pair).join(' · ')
    },
    /** Any canonical value in both systems. */
    value: (value: number, unit: string) => inBoth(value, unit, own.first),
  }
}
