import { endpoints } from '@moray/contract/endpoints'
import { useInfiniteQuery } from '@tanstack/vue-query'
import { computed, reactive, toValue, type MaybeRefOrGetter } from 'vue'
import { asked } from './asked.ts'
import { asWireError, read } from './client.ts'
import { keys } from './keys.ts'

/** What the bench list asks for. @param before `next` of the page before */
export const readJobs = (state: 'open' | 'over', search: string, before: string | null = null) =>
  read(endpoints.jobs, {}, { state, ...(search ? { search } : {}), ...(before === null ? {} : { before }) })

/** The bench list, page by page as more is asked for. @param on whether anybody looks at it */
export function useJobs(
  state: 'open' | 'over',
  search: MaybeRefOrGetter<string> = '',
  on: () => boolean = () => true,
) {
  const query = useInfiniteQuery({
    queryKey: computed(() => keys.jobPage(state, toValue(search))),
    queryFn: ({ pageParam }) => readJobs(state, toValue(search), pageParam),
    initialPageParam: null as string | null,
    getNextPageParam: (page) => page.next,
    enabled: computed(on),
  })
  return reactive({
    /** null while nothing has come yet. */
    jobs: computed(() => query.data.value?.pages.flatMap((p) => p.jobs) ?? null),
    damaged: computed(() => query.data.value?.pages.some((p) => p.damaged) ?? false),
    hasMore: query.hasNextPage,
    more: async () => void (await query.fetchNextPage()),
    error: computed(() => (query.error.value ? asWireError(query.error.value) : null)),
    load: async () => void (await query.refetch()),
  })
}

export const useUnits = (search: MaybeRefOrGetter<string>) =>
  asked(
    'units',
    () => keys.units(toValue(search)),
    () => read(endpoints.units, {}, toValue(search) ? { search: toValue(search) } : {}),
  )

export const useSearch = (typed: MaybeRefOrGetter<string>) =>
  asked(
    'reply',
    () => keys.search(toValue(typed)),
    () => read(endpoints.search, {}, { search: toValue(typed) }),
    () => toValue(typed) !== '',
  )
export const useUnitJobs = (sheet: () => string, serial: () => string) =>
  asked(
    'jobs',
    () => keys.unitJobs(sheet(), serial()),
    () => read(endpoints.unitJobs, { sheet: sheet() }, { serial: serial() }),
  )
export const useUnitsBefore = (id: () => string) =>
  asked(
    'units',
    () => keys.unitsBefore(id()),
    () => read(endpoints.unitsBefore, { id: id() }),
  )
/** The newest version of a drive's sheet. */
export const useSheetOf = (id: () => string) =>
  asked(
    'sheet',
    () => keys.newestSheet(id()),
    () => read(endpoints.drive, { id: id() }),
  )
export const useForeignJobs = () =>
  asked(
    'records',
    () => keys.foreign,
    () => read(endpoints.foreignJobs, {}),
  )
export const useForeignJob = (id: () => string) =>
  asked(
    'file',
    () => keys.foreignJob(id()),
    () => read(endpoints.foreignJob, { id: id() }),
  )

/** Every unit that a search finds, not the newest alone. */
export const readAllUnits = (search: string) =>
  read(endpoints.units, {}, { all: 'yes', ...(search ? { search } : {}) })
