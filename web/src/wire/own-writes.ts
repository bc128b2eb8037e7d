import type { LiveEvent } from '@moray/contract/replies'
import type { QueryClient } from '@tanstack/vue-query'

/** Writes of one job that are under way from this page, and what the line has told of it meanwhile. */
interface UnderWay {
  writes: number
  told: LiveEvent[]
}

const ofClient = new WeakMap<QueryClient, Map<string, UnderWay>>()
const underWayIn = (client: QueryClient): Map<string, UnderWay> => {
  const known = ofClient.get(client) ?? new Map<string, UnderWay>()
  ofClient.set(client, known)
  return known
}

/**
 * Writes to a job. The line tells of a write as soon as it is committed, before its own answer is here: what it tells of this job waits for that
 * answer, which holds all that would be asked for.
 * @param work sends the write and keeps what it answers
 * @param hear what becomes of the events that waited, in their order
 */
export async function writeJob<T>(
  client: QueryClient,
  jobId: string,
  work: () => Promise<T>,
  hear: (event: LiveEvent) => void,
): Promise<T> {
  const all = underWayIn(client)
  const mine = all.get(jobId) ?? { writes: 0, told: [] }
  all.set(jobId, mine)
  mine.writes++
  try {
    return await work()
  } finally {
    mine.writes--
    if (mine.writes === 0) {
      all.delete(jobId)
      for (const event of mine.told) hear(event)
    }
  }
}

/** Keeps an event for later when its job is being written to from here. @returns false when it may be heard now */
export function waitsForAnswer(client: QueryClient, event: LiveEvent): boolean {
  const writing = event.jobId === null ? undefined : underWayIn(client).get(event.jobId)
  writing?.told.push(event)
  return writing !== undefined
}
