import { computed, reactive } from 'vue'
import { useJobs } from '../wire/found.ts'
import { useShopWays } from '../wire/queries.ts'

/** The shop's stands, and the job on each: the first page of open jobs holds all that stand on one. @param shown whether anybody looks at them */
export function useStands(shown: () => boolean = () => true) {
  const ways = useShopWays()
  const open = useJobs('open', '', shown)
  const stands = computed(() => ways.ways?.stands ?? [])
  const on = computed(
    () => new Map((open.jobs ?? []).flatMap((j) => (j.stand ? [[j.stand, j] as const] : []))),
  )
  return reactive({
    stands,
    on,
    /** null while it is not known. */
    free: computed(() => (open.jobs && ways.ways ? stands.value.filter((s) => !on.value.has(s)) : null)),
  })
}
