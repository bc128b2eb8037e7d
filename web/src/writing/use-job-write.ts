import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import type { JobReply } from '@moray/contract/replies'
import { useQueryClient } from '@tanstack/vue-query'
import type { ParamsFor } from '../wire/client.ts'
import { sendForJob } from '../wire/queries.ts'
import { useWrite } from './use-write.ts'

type JobEndpoint = Endpoint<string, object, JobReply>

/** A write that answers with the job as it then stands: what comes back is shown at once, and nothing is loaded again. */
export function useJobWrite() {
  const client = useQueryClient()
  const write = useWrite()
  return {
    busy: write.busy,
    error: write.error,
    clear: write.clear,
    send<E extends JobEndpoint>(
      endpoint: E,
      params: ParamsFor<E>,
      body: BodyOf<E>,
    ): Promise<JobReply | undefined> {
      // one that is just being opened has no id yet, and nobody hears of it as one that is known
      const { id = '' } = params as { id?: string | number }
      return sendForJob(
        client,
        String(id),
        () => write.send(endpoint, params, body) as Promise<JobReply | undefined>,
      )
    },
  }
}
