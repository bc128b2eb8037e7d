import type { LengthUnit } from '@moray/contract/requests/setting'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { usePeople } from '../wire/queries.ts'

/** Who works at this screen, and how it likes to be shown. Kept in this browser. */
export const useShop = defineStore('shop', () => {
  const known = usePeople()
  const chosen = useStorage('moray.person', '')
  const night = useStorage('moray.night', false)
  const unit = useStorage<LengthUnit>('moray.unit', 'mm')
  /** Last gauge used for a measure, by measure kind. */
  const gauges = useStorage<Record<string, string>>('moray.gauges', {})

  const people = computed(() => known.people ?? [])
  const personId = computed(() =>
    people.value.some((p) => p.id === chosen.value) ? chosen.value : (people.value[0]?.id ?? ''),
  )
  const leads = computed(() => people.value.filter((p) => p.role === 'lead'))
  return { people, leads, chosen, personId, night, unit, gauges }
})
