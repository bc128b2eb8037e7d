import type { BodyOf, Endpoint } from '@moray/contract/endpoint'
import type { JobReply } from '@moray/contract/replies'
import { useQueryClient } from '@tanstack/vue-query'
import type { ParamsFor } from './client.ts'
import { keepJob } from './queries.ts'
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
    async send<E extends JobEndpoint>(
      endpoint: E,
      params: ParamsFor<E>,
      body: BodyOf<E>,
    ): Promise<JobReply | undefined> {
      const reply = (await write.send(endpoint, params, body)) as JobReply | undefined
      if (reply) keepJob(client, reply)
      return reply
    },
  }
}
