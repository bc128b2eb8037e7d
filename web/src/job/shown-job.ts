import type { FaultCase, JobReply, Shop } from '@moray/contract/replies'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { LikelihoodEdit } from '@moray/core/inspection/fault-history'
import type { JudgedBuild } from '@moray/core/job/judge-builds'
import { judged, type JudgedJob } from '@moray/core/job/judged'
import { availablePieces, type AvailablePiece } from '@moray/core/job/pieces'
import { useNow } from '@vueuse/core'
import { computed, inject, provide, reactive, toValue, type InjectionKey, type MaybeRefOrGetter } from 'vue'
import type { WireError } from '../wire/client.ts'
import { useDrawer, useFaultHistory, useJobReply, useSheet, useShopWays } from '../wire/queries.ts'

export type ShownBuild = JudgedBuild

/** A job as the pages show it: judged, with what it can be built with and what the shop knows of faults. */
export interface ShownJob extends JudgedJob {
  pieces: AvailablePiece[]
  history: FaultCase[]
  edits: LikelihoodEdit[]
}

/** Puts together what is shown of a job. */
export function showJob(
  reply: JobReply,
  sheet: DriveSheet,
  shop: Shop,
  lines: Parameters<typeof availablePieces>[0],
  history: FaultCase[],
  now: Date,
): ShownJob {
  const job = judged(reply, sheet, shop, now)
  return { ...job, pieces: availablePieces(lines, job.builds), history, edits: shop.edits }
}

export interface OpenJob {
  /** null while something of it is still being loaded. */
  job: ShownJob | null
  error: WireError | null
  load: () => Promise<void>
}

const KEY: InjectionKey<OpenJob> = Symbol('open job')

/** Loads the job of a page and all that it is judged by, and hands it to what stands in the page. */
export function provideJob(id: MaybeRefOrGetter<string>): OpenJob {
  const reply = useJobReply(id)
  const shop = useShopWays()
  const drawer = useDrawer()
  const history = useFaultHistory(id)
  const sheet = useSheet(() => {
    const r = reply.reply
    return r && r.id === toValue(id) ? { id: r.sheetId, version: r.sheetVersion } : undefined
  })
  // what soaks or cures goes on while the page stands open
  const now = useNow({ interval: 30_000 })
  const job = computed<ShownJob | null>((before) => {
    const r = reply.reply
    if (!r || r.id !== toValue(id)) return null
    // a figure typed at the bench makes a version of the sheet: until that is here the job stays as it was, and so does what is being typed
    if (!sheet.sheet || !shop.ways || !drawer.lines || !history.history)
      return before?.id === r.id ? before : null
    return showJob(r, sheet.sheet, shop.ways, drawer.lines, history.history, now.value)
  })
  const open = reactive({
    job,
    error: computed(() => reply.error ?? sheet.error ?? shop.error ?? drawer.error ?? history.error),
    load: async () => {
      await Promise.all([reply.load(), shop.load(), drawer.load(), history.load()])
    },
  }) as OpenJob
  provide(KEY, open)
  return open
}

/** For tests: a job that is there already. */
export const provideShown = (open: OpenJob): [typeof KEY, OpenJob] => [KEY, open]

/** The job of the page that this stands in. */
export function useJob(): OpenJob {
  const open = inject(KEY, undefined)
  if (!open) throw new Error('useJob() stands outside of a page that provides a job')
  return open
}
