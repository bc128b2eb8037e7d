import type { JobDetail } from '@moray/contract/replies'
import { useJob } from '../stores/jobs.ts'
import { useWrite } from './use-write.ts'

/** A write that answers with the whole job: what comes back is shown at once. */
export function useJobWrite() {
  const store = useJob()
  const write = useWrite<JobDetail>()
  return {
    busy: write.busy,
    error: write.error,
    clear: write.clear,
    async send(path: string, body: object): Promise<JobDetail | undefined> {
      const reply = await write.send(path, body)
      if (reply) store.set(reply)
      return reply
    },
  }
}
