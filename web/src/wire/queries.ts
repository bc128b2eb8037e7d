import { endpoints } from '@moray/contract/endpoints'
import type { JobReply, LiveEvent } from '@moray/contract/replies'
import type { StepDraft } from '@moray/core/job/record'
import { QueryClient, useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, reactive, toValue, type MaybeRefOrGetter } from 'vue'
import { asked } from './asked.ts'
import { asWireError, read } from './client.ts'
import { keys } from './keys.ts'
import { waitsForAnswer, writeJob } from './own-writes.ts'

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
  if (['sheet', 'figure', 'edge'].includes(event.kind)) stale(keys.drives)
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

export { keys, useQueryClient }
