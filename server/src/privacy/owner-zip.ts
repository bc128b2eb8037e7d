import { csvText } from '@moray/contract/csv'
import type { Queryable } from '../db/database.ts'
import type { FileStore } from '../files/file-store.ts'
import { notFound } from '../http/refusal.ts'
import { pictureName } from '../exchange/job-zip.ts'
import { zipOf } from '../files/write-zip.ts'

interface Kept {
  number: string
  openedAt: string
  boat: string
  drive: string
  serial: string
  complaint: string
}

/** All that is kept here about an owner and what is theirs: jobs, what they agreed to, pictures, and which records of other shops name them. @throws Refusal 404 when nobody of that name was here */
export async function ownerZip(db: Queryable, files: FileStore, owner: string, now: Date): Promise<Buffer> {
  const jobs = await db.query<Kept & { id: string }>(
    `select j.id, j.number, iso(j.opened_at) as "openedAt", j.boat, d.name as drive, j.serial, j.complaint
     from job j join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version where j.owner = $1 order by j.opened_at`,
    [owner],
  )
  if (!jobs.length) throw notFound('Owner', owner.slice(0, 80))
  const ids = [jobs.map((j) => j.id)]
  const approvals = await db.query<Record<'number' | 'customer' | 'choice' | 'how' | 'at', string>>(
    `select j.number, a.customer, a.choice, a.how, iso(a.at) as at from approval a join estimate e on e.id = a.estimate_id join job j on j.id = e.job_id
     where j.id = any($1) order by a.id`,
    ids,
  )
  const pictures = await db.query<{ hash: string; type: string }>(
    'select distinct f.hash, f.type from attachment a join file f on f.hash = a.hash where a.job_id = any($1) order by f.hash',
    ids,
  )
  const records = await db.query<{ number: string; at: string }>(
    `select file #>> '{job,number}' as number, iso(at) as at from foreign_job where file #>> '{job,owner}' = $1 order by id`,
    [owner],
  )
  const about = {
    owner,
    exportedAt: now.toISOString(),
    jobs: jobs.map(({ id: _, ...j }) => j),
    approvals,
    records,
  }
  const columns = (['number', 'openedAt', 'boat', 'drive', 'serial', 'complaint'] as const).map((name) => ({
    name,
    of: (j: Kept) => j[name],
  }))
  const entries: [string, Uint8Array][] = [
    ['owner.json', Buffer.from(`${JSON.stringify(about, null, 1)}\n`)],
    ['jobs.csv', Buffer.from(csvText(columns, jobs))],
  ]
  for (const p of pictures) {
    const content = await files.get(db, p.hash)
    if (content && content !== 'damaged') entries.push([pictureName(p.hash, p.type), content])
  }
  return zipOf(entries)
}
