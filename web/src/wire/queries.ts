import { endpoints } from '@moray/contract/endpoints'
import type { JobReply, LiveEvent } from '@moray/contract/replies'
import type { StepDraft } from '@moray/core/job/record'
import { QueryClient, useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, toValue, type MaybeRefOrGetter } from 'vue'
import { asWireError, read } from './client.ts'
import { waitsForAnswer, writeJob } from './own-writes.ts'

/** What the server has told us, kept by what was asked. */
export const keys = {
  people: ['people'],
  shop: ['shop'],
  devices: ['devices'],
  copies: ['copies'],
  copyNotice: ['copies', 'notice'],
  drawer: ['drawer'],
  movements: (line: string) => ['drawer', line],
  gauges: ['gauges'],
  gaugeHistory: (id: string) => ['gauges', id],
  drives: ['drives'],
  draft: (id: string) => ['drives', id, 'draft'],
  experience: (id: string, without: string) => ['experience', id, without],
  versions: (id: string) => ['drives', id, 'versions'],
  lastBuilt: (id: string) => ['last-built', id] as const,
  referencePatterns: (id: string) => ['reference-patterns', id] as const,
  sheetFile: (id: string, version: number) => ['sheet', id, version, 'file'],
  sheet: (id: string, version: number) => ['sheet', id, version],
  jobs: ['jobs'],
  jobPage: (state: string, search: string) => ['jobs', state, search],
  units: (search: string) => ['jobs', 'units', search],
  search: (typed: string) => ['jobs', 'search', typed],
  unitJobs: (sheet: string, serial: string) => ['jobs', 'unit', sheet, serial],
  unitsBefore: (id: string) => ['jobs', 'before', id],
  newestSheet: (id: string) => ['drives', id, 'newest'],
  foreign: ['foreign'],
  foreignJob: (id: string) => ['foreign', id],
  job: (id: string) => ['job', id],
  events: (id: string) => ['job', id, 'events'],
  closings: (id: string) => ['job', id, 'closings'],
  routeChanges: (id: string) => ['job', id, 'route-changes'],
  faultHistory: (id: string) => ['fault-history', id],
} as const

const FRESH_MS = 30_000

export function createQueries(): QueryClient {
  return new QueryClient({
    defaultOptions: {
      queries: {
        // the live line says when something has changed; this only bounds what a silent line could hide
        staleTime: FRESH_MS,
        refetchOnWindowFocus: true,
        retry: (failures, e) => asWireError(e).unsure && failures < 2,
        // a server on this very machine answers without a network
        networkMode: 'always',
        // what was read is replaced, never changed in place: watching every value of a job and its sheet would cost more than judging them
        shallow: true,
      },
      mutations: { networkMode: 'always' },
    },
  })
}

/** One thing read: its value under its own name, why it is not there, and how to ask again. */
function asked<Name extends string, T>(
  name: Name,
  key: () => readonly unknown[],
  load: () => Promise<T>,
  on?: () => boolean,
) {
  const query = useQuery({
    queryKey: computed(key),
    queryFn: load,
    enabled: computed(() => on?.() ?? true),
  })
  return reactive({
    [name]: computed(() => query.data.value ?? null),
    error: computed(() => (query.error.value ? asWireError(query.error.value) : null)),
    load: async () => void (await query.refetch()),
  }) as Record<Name, T | null> & { error: ReturnType<typeof asWireError> | null; load: () => Promise<void> }
}

export const usePeople = () =>
  asked(
    'people',
    () => keys.people,
    () => read(endpoints.people, {}),
  )
export const useDevices = () =>
  asked(
    'devices',
    () => keys.devices,
    () => read(endpoints.devices, {}),
  )
export const useShopWays = () =>
  asked(
    'ways',
    () => keys.shop,
    () => read(endpoints.shop, {}),
  )
export const useCopies = () =>
  asked(
    'copies',
    () => keys.copies,
    () => read(endpoints.copies, {}),
  )
export const useCopyNotice = () =>
  asked(
    'notice',
    () => keys.copyNotice,
    () => read(endpoints.copyNotice, {}),
  )
export const useDrawer = () =>
  asked(
    'lines',
    () => keys.drawer,
    () => read(endpoints.drawer, {}),
  )
export const useGauges = () =>
  asked(
    'gauges',
    () => keys.gauges,
    () => read(endpoints.gauges, {}),
  )
export const useGaugeHistory = (id: string) =>
  asked(
    'history',
    () => keys.gaugeHistory(id),
    () => read(endpoints.gaugeHistory, { id }),
  )
export const useDrives = () =>
  asked(
    'sheets',
    () => keys.drives,
    () => read(endpoints.drives, {}),
  )

export const useDraft = (id: MaybeRefOrGetter<string>) =>
  asked(
    'draft',
    () => keys.draft(toValue(id)),
    () => read(endpoints.draft, { id: toValue(id) }),
  )
export const useVersions = (id: MaybeRefOrGetter<string>) =>
  asked(
    'versions',
    () => keys.versions(toValue(id)),
    () => read(endpoints.versions, { id: toValue(id) }),
  )
export const useExperience = (id: MaybeRefOrGetter<string>, without: MaybeRefOrGetter<string> = '') =>
  asked(
    'taught',
    () => keys.experience(toValue(id), toValue(without)),
    () =>
      read(endpoints.experience, { id: toValue(id) }, toValue(without) ? { without: toValue(without) } : {}),
  )
/** As this unit left here the last time. */
export const useLastBuilt = (id: MaybeRefOrGetter<string>) =>
  asked(
    'lastBuilt',
    () => keys.lastBuilt(toValue(id)),
    () => read(endpoints.lastBuilt, { id: toValue(id) }),
  )
/** Contact patterns of a good build of this drive. */
export const useReferencePatterns = (id: MaybeRefOrGetter<string>) =>
  asked(
    'references',
    () => keys.referencePatterns(toValue(id)),
    () => read(endpoints.referencePatterns, { id: toValue(id) }),
  )
/** The body of a version, as it was published; it never changes. */
export const useSheetFile = (at: () => { id: string; version: number } | undefined) =>
  asked(
    'body',
    () => keys.sheetFile(at()?.id ?? '', at()?.version ?? 0),
    () => read(endpoints.sheetFile, at()!),
    () => at() !== undefined,
  )

export const useMovements = (line: string) =>
  asked(
    'movements',
    () => keys.movements(line),
    () => read(endpoints.movements, { id: line }),
  )

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

const ofJob = (id: MaybeRefOrGetter<string>) => () => toValue(id) !== ''

export const useJobReply = (id: MaybeRefOrGetter<string>) =>
  asked(
    'reply',
    () => keys.job(toValue(id)),
    () => read(endpoints.job, { id: toValue(id) }),
    ofJob(id),
  )

/** A version of a sheet never changes: asked for once. */
export function useSheet(at: () => { id: string; version: number } | undefined) {
  const query = useQuery({
    queryKey: computed(() => keys.sheet(at()?.id ?? '', at()?.version ?? 0)),
    queryFn: () => read(endpoints.driveVersion, at()!),
    enabled: computed(() => at() !== undefined),
    staleTime: Infinity,
    gcTime: Infinity,
  })
  return reactive({
    sheet: computed(() => query.data.value ?? null),
    error: computed(() => (query.error.value ? asWireError(query.error.value) : null)),
  })
}

export const useEvents = (id: MaybeRefOrGetter<string>) =>
  asked(
    'events',
    () => keys.events(toValue(id)),
    () => read(endpoints.events, { id: toValue(id) }),
    ofJob(id),
  )
export const useClosings = (id: MaybeRefOrGetter<string>) =>
  asked(
    'closings',
    () => keys.closings(toValue(id)),
    () => read(endpoints.closings, { id: toValue(id) }),
    ofJob(id),
  )
export const useRouteChanges = (id: MaybeRefOrGetter<string>, on: () => boolean) =>
  asked(
    'changes',
    () => keys.routeChanges(toValue(id)),
    () => read(endpoints.routeChanges, { id: toValue(id) }),
    on,
  )
export const useFaultHistory = (id: MaybeRefOrGetter<string>) =>
  asked(
    'history',
    () => keys.faultHistory(toValue(id)),
    () => read(endpoints.faultHistory, { id: toValue(id) }),
    ofJob(id),
  )

/** Sends a write of a job and keeps what it answers: the job as it then stands is not asked for again. */
export const sendForJob = <R extends JobReply | undefined>(
  client: QueryClient,
  jobId: string,
  send: () => Promise<R>,
): Promise<R> =>
  writeJob(
    client,
    jobId,
    async () => {
      const reply = await send()
      if (reply) keepJob(client, reply)
      return reply
    },
    (event) => hear(client, event),
  )

/** Keeps a job as a write has answered it, unless something newer is here already. */
export function keepJob(client: QueryClient, reply: JobReply): void {
  const before = client.getQueryData<JobReply>(keys.job(reply.id))
  if (before && before.seen > reply.seen) return
  client.setQueryData(keys.job(reply.id), reply)
  for (const other of otherCases(client, reply.id))
    void client.invalidateQueries({ queryKey: keys.job(other) })
  void client.invalidateQueries({ queryKey: keys.events(reply.id) })
  void client.invalidateQueries({ queryKey: keys.closings(reply.id) })
  void client.invalidateQueries({ queryKey: keys.jobs })
}

/** Jobs that are here and know this one as the other case of their unit: what they stand on may have changed. */
const otherCases = (client: QueryClient, id: string): string[] =>
  client
    .getQueriesData<JobReply>({ queryKey: ['job'] })
    .flatMap(([, job]) => (job?.partner?.id === id ? [job.id] : []))

/** Changes the drafts of a job here, without asking: they are working state, and on their way to the server. */
export function keepDrafts(
  client: QueryClient,
  id: string,
  change: (before: StepDraft[]) => StepDraft[],
): void {
  client.setQueryData<JobReply>(keys.job(id), (job) => job && { ...job, drafts: change(job.drafts) })
}

const DRAWER_KINDS = ['drawer', 'trial', 'accepted']

/** What an event makes stale. One's own write answers for itself: a job that knows the event is not asked for again. */
export function hear(client: QueryClient, event: LiveEvent): void {
  if (waitsForAnswer(client, event)) return
  const stale = (queryKey: readonly unknown[]) => void client.invalidateQueries({ queryKey })
  if (event.jobId !== null) {
    const known = client.getQueryData<JobReply>(keys.job(event.jobId))
    if (!known || known.seen < event.id) {
      stale(keys.job(event.jobId))
      stale(keys.jobs)
    }
    for (const other of otherCases(client, event.jobId)) stale(keys.job(other))
  }
  if (DRAWER_KINDS.includes(event.kind)) stale(keys.drawer)
  if (event.kind === 'accepted' || event.kind === 'withdrawn') stale(['experience'])
  if (event.kind === 'gauge') stale(keys.gauges)
  if (event.kind === 'sheet' || event.kind === 'figure') stale(keys.drives)
  if (event.kind === 'foreign') stale(keys.foreign)
  // in any job
  if (event.kind === 'privacy') {
    stale(['job'])
    stale(keys.jobs)
  }
  if (event.kind === 'outcome') stale(['fault-history'])
  if (event.kind === 'outcome' || event.kind === 'shop') stale(keys.shop)
  if (event.kind === 'shop') stale(keys.people)
  if (event.kind === 'shop') stale(keys.devices)
}

/**
 * The line stands (again), and the server's newest event is `last`: whatever may be older is asked for again. Sheets never are.
 */
export function catchUp(client: QueryClient, last: number): void {
  void client.invalidateQueries({
    predicate: ({ queryKey, state }) => {
      if (queryKey[0] === 'sheet') return false
      if (queryKey[0] === 'job' && queryKey.length === 2)
        return ((state.data as JobReply | undefined)?.seen ?? 0) < last
      return true
    },
  })
}

export { useQueryClient }
