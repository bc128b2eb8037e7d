import type { JobDetail, JobSummary } from '@moray/contract/replies'
import { routes } from '@moray/contract/routes'
import { defineStore } from 'pinia'
import { getJson } from '../wire/client.ts'
import { onLive } from '../wire/live.ts'
import { useLoaded } from './use-loaded.ts'

export const useJobs = defineStore('jobs', () => {
  const list = useLoaded<JobSummary[]>()
  const load = () => list.run(() => getJson<JobSummary[]>(routes.jobs))
  onLive((e) => {
    if (list.value.value && (e === 'again' || e.jobId !== null)) void load()
  })
  return { jobs: list.value, error: list.error, load }
})

/** The one job that is open on this screen. */
export const useJob = defineStore('job', () => {
  const job = useLoaded<JobDetail>()
  let open = ''
  const fetch = () => job.run(() => getJson<JobDetail>(routes.job(open)))
  async function load(id: string) {
    if (id !== open) job.set(null)
    open = id
    await fetch()
  }
  // another job's trial changes what the drawer still holds for this one
  onLive((e) => {
    if (
      job.value.value &&
      (e === 'again' || e.jobId === open || ['drawer', 'trial', 'shop'].includes(e.kind))
    )
      void fetch()
  })
  return { job: job.value, error: job.error, load, set: job.set }
})
