import type { LengthUnit } from '@moray/contract/requests/setting'
import type { UnitSystem } from '@moray/core/units/format'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { usePeople } from '../wire/queries.ts'

/** Who works at this screen, and how it likes to be shown. Kept in this browser. */
export const useShop = defineStore('shop', () => {
  const known = usePeople()
  const chosen = useStorage('moray.person', '')
  const night = useStorage('moray.night', false)
  const bare = useStorage<Record<string, LengthUnit>>('moray.bare', {})
  const firsts = useStorage<Record<string, UnitSystem>>('moray.first', {})
  /** Last gauge used for a measure, by measure kind. */
  const gauges = useStorage<Record<string, string>>('moray.gauges', {})

  const people = computed(() => known.people ?? [])
  const personId = computed(() => (people.value.some((p) => p.id === chosen.value) ? chosen.value : ''))
  /** Somebody has said who works here; until then nothing is written under a name that happens to come first. */
  const somebody = computed(() => personId.value !== '')
  /** Whether it is being asked who works here; it is asked again before the first thing that would be written. */
  const asking = ref(chosen.value === '')
  /** Unit system that this person reads first. */
  const first = computed<UnitSystem>({
    get: () => firsts.value[personId.value] ?? 'metric',
    set: (system) => (firsts.value = { ...firsts.value, [personId.value]: system }),
  })
  /** What a bare length is in, for this person. */
  const unit = computed<LengthUnit>({
    get: () => bare.value[personId.value] ?? (first.value === 'imperial' ? 'in' : 'mm'),
    set: (u) => (bare.value = { ...bare.value, [personId.value]: u }),
  })
  const leads = computed(() => people.value.filter((p) => p.role === 'lead'))
  return { people, leads, chosen, personId, somebody, asking, night, first, unit, gauges }
})
