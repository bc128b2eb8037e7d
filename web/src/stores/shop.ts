import { defineStore, storeToRefs } from 'pinia'
import { computed, ref } from 'vue'
import { usePeople } from '../wire/queries.ts'
import { useOwn } from './own.ts'

/** Who works at this screen, out of those who work in the shop; with what is his own. */
export const useShop = defineStore('shop', () => {
  const known = usePeople()
  const { chosen, night, first, unit, torqueUnit, gauges } = storeToRefs(useOwn())
  const people = computed(() => (known.people ?? []).filter((p) => !p.retired))
  const personId = computed(() => (people.value.some((p) => p.id === chosen.value) ? chosen.value : ''))
  /** Somebody has said who works here; until then nothing is written under a name that happens to come first. */
  const somebody = computed(() => personId.value !== '')
  /** Whether it is being asked who works here; it is asked again before the first thing that would be written. */
  const asking = ref(chosen.value === '')
  /** Under whose name a code has to be said before anything is written; '' while none is asked for. */
  const codeFor = ref('')
  const leads = computed(() => people.value.filter((p) => p.role === 'lead'))
  return {
    people,
    leads,
    chosen,
    personId,
    somebody,
    asking,
    codeFor,
    night,
    first,
    unit,
    torqueUnit,
    gauges,
  }
})
