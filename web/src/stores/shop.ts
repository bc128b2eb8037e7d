import type { Person, Shop } from '@moray/contract/replies'
import type { LengthUnit } from '@moray/contract/requests/setting'
import { routes } from '@moray/contract/routes'
import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { getJson } from '../wire/client.ts'
import { onLive } from '../wire/live.ts'
import { useLoaded } from './use-loaded.ts'

/** Who works at this screen, and how it likes to be shown. Kept in this browser. */
export const useShop = defineStore('shop', () => {
  const people = ref<Person[]>([])
  const chosen = useStorage('moray.person', '')
  const night = useStorage('moray.night', false)
  const unit = useStorage<LengthUnit>('moray.unit', 'mm')
  /** Last gauge used for a measure, by measure kind. */
  const gauges = useStorage<Record<string, string>>('moray.gauges', {})

  const personId = computed(() =>
    people.value.some((p) => p.id === chosen.value) ? chosen.value : (people.value[0]?.id ?? ''),
  )
  const leads = computed(() => people.value.filter((p) => p.role === 'lead'))
  async function load() {
    people.value = await getJson<Person[]>(routes.people)
  }
  return { people, leads, chosen, personId, night, unit, gauges, load }
})

/** The shop's own ways: schools, rules, stands, what was found here. */
export const useShopWays = defineStore('shop-ways', () => {
  const ways = useLoaded<Shop>()
  const load = () => ways.run(() => getJson<Shop>(routes.shop))
  onLive((e) => {
    if (ways.value.value && (e === 'again' || e.kind === 'shop')) void load()
  })
  return { ways: ways.value, error: ways.error, load, set: ways.set }
})
