import { JOB_FORMAT, JOB_LAYOUT, type JobFile } from '@moray/contract/job-file'
import type { ClosingRecord, EventEntry } from '@moray/contract/replies'
import type { Transaction } from '../db/database.ts'
import { bodyOfVersion } from '../drives/sheets.ts'
import { listEvents } from '../jobs/events.ts'
import { readRecord } from '../job/read-record.ts'
import { waysOf } from '../job/ways.ts'
import { listClosings } from '../steps/closings.ts'

/** Everything of one job, as it stands at one moment. @param tx in which it is read: repeatable, so that nothing changes in between. @throws Refusal 404 */
export async function jobFile(tx: Transaction, id: string, moray: string, now: Date): Promise<JobFile> {
  const { record, ways } = await readRecord(tx, id)
  const sheet = await bodyOfVersion(tx, record.sheetId, record.sheetVersion)
  const [of] = await tx.query<{ edition: number | null; after: number | null }>(
    'select edition, after_edition as after from drive_sheet where id = $1 and version = $2',
    [record.sheetId, record.sheetVersion],
  )
  const [seal] = await tx.query<{ event: number; digest: string }>(
    'select id::float8 as event, digest from event order by id desc limit 1',
  )
  const events: EventEntry[] = []
  for (;;) {
    const more = await listEvents(tx, id, events.at(-1)?.id ?? 0)
    events.push(...more)
    if (!more.length) break
  }
  const closings: ClosingRecord[] = await listClosings(tx, id)
  return {
    format: JOB_FORMAT,
    layout: JOB_LAYOUT,
    moray,
    exportedAt: now.toISOString(),
    seal: seal ?? null,
    job: record,
    sheet,
    edition: of!.edition,
    ...(of!.after === null ? {} : { after: of!.after }),
    ways: waysOf(ways ?? {}),
    events,
    closings,
  }
}
