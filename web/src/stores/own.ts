import type { LengthUnit, TorqueUnit } from '@moray/contract/requests/reading-units'
import type { UnitSystem } from '@moray/core/units/format'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'

/** What is the user's own at this screen: who he says he is, and how he likes to be shown things. Kept in this browser. */
export const useOwn = defineStore('own', () => {
  /** Id of whoever was chosen last; '' when nobody was. */
  const chosen = useStorage('moray.person', '')
  const night = useStorage('moray.night', false)
  const bare = useStorage<Record<string, LengthUnit>>('moray.bare', {})
  const bareTorque = useStorage<Record<string, TorqueUnit>>('moray.bare-torque', {})
  const firsts = useStorage<Record<string, UnitSystem>>('moray.first', {})
  /** Last gauge used for a measure, by measure kind. */
  const gauges = useStorage<Record<string, string>>('moray.gauges', {})
  /** What is read first by whoever has not chosen: the shop's own, once it has said so. */
  const usualFirst = useStorage<UnitSystem>('moray.usual-first', 'metric')
  /** Unit system that this person reads first. */
  const first = computed<UnitSystem>({
    get: () => firsts.value[chosen.value] ?? usualFirst.value,
    set: (system) => (firsts.value = { ...firsts.value, [chosen.value]: system }),
  })
  /** What a bare length is in, for this person. */
  const unit = computed<LengthUnit>({
    get: () => bare.value[chosen.value] ?? (first.value === 'imperial' ? 'in' : 'mm'),
    set: (u) => (bare.value = { ...bare.value, [chosen.value]: u }),
  })
  /** The same of a torque. */
  const torqueUnit = computed<TorqueUnit>({
    get: () => bareTorque.value[chosen.value] ?? (first.value === 'imperial' ? 'inlb' : 'Nm'),
    set: (u) => (bareTorque.value = { ...bareTorque.value, [chosen.value]: u }),
  })
  return { chosen, night, first, usualFirst, unit, torqueUnit, gauges }
})
