import { endpoints } from '@moray/contract/endpoints'
import type { ReadingEntry } from '@moray/core/job/record'
import { useJobWrite } from '../../writing/use-job-write.ts'

/** Sets readings of a job aside, each with its reason. */
export function useSetAside(job: () => string, done: () => void) {
  const write = useJobWrite()
  return {
    busy: write.busy,
    error: write.error,
    async setAside(reading: ReadingEntry, reason: string) {
      const path = { id: job(), reading: reading.id }
      if (await write.send(endpoints.supersedeReading, path, { reason })) done()
    },
  }
}
