import type { OpenJob } from '@moray/contract/requests/life'
import { filled } from '@moray/core/drives/own/fill'
import { withBenchFigures } from '@moray/core/drives/own/from-bench'
import { refuse } from '@moray/core/checks/input-error'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Told } from '@moray/core/job/event'
import { needsComplaint } from '@moray/core/route/scope'
import { routeOf } from '@moray/core/route/route-of'
import type { Transaction } from '../db/database.ts'
import { bodyOfVersion, holdDrive, publishedSheet, theVariant, versionFor } from '../drives/sheets.ts'
import { draftFromBench, readDraft } from '../drives/drafts.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { keepScope, scopeFrom } from '../scope/scope.ts'
import { shopStands } from '../shop/shop.ts'
import { keepPrint } from '../steps/route-seen.ts'

/**
 * Refuses a stand that the shop does not have, or that another drive is on, by name. Of two who take it at the same moment the second meets the
 * constraint job_on_stand.
 */
export async function mustBeStand(tx: Transaction, stand: string, jobId: string | null) {
  const stands = await shopStands(tx)
  if (!stands.includes(stand))
    throw new Refusal(
      422,
      'no-stand',
      `"${stand}" is no stand of this shop; there are ${stands.join(', ')}.`,
      [{ path: 'stand', message: 'does not exist' }],
    )
  const [taken] = await tx.query<{ number: string; boat: string }>(
    "select number, boat from job where stand = $1 and state not in ('finished', 'closed') and id <> $2",
    [stand, jobId ?? ''],
  )
  if (taken)
    throw new Refusal(
      409,
      'stand-taken',
      `${stand} is taken by ${taken.number}, ${taken.boat}. Clear it first.`,
      [{ path: 'stand', message: 'is taken' }],
    )
}

/** Opens a job for a customer's drive, with the newest sheet. @returns its id */
export async function openJob(tx: Transaction, body: OpenJob, who: Who): Promise<{ id: string; told: Told }> {
  const sheet = await sheetForJob(tx, body.sheetId, body.variant, who)
  const stand = body.stand || null
  if (stand) await mustBeStand(tx, stand, null)
  const number = await nextNumber(tx, who.at)
  const id = `job-${number}`
  const scope = body.scope && scopeFrom(sheet, body.scope)
  if (body.complaint === undefined && needsComplaint(scope?.mode))
    refuse('complaint', 'is missing: write what the owner says; only a yearly service may come without one')
  const complaint = body.complaint ?? ''
  await insertJob(tx, { ...body, complaint, id, number, stand, hours: body.hours ?? null, sheet }, who)
  if (scope) await keepScope(tx, id, scope, complaint, who)
  if (scope?.lying) await layBeside(tx, id, sheet, scope.lying, who)
  return {
    id,
    told: { kind: 'opened', subject: `job:${id}`, data: { number, sheet: sheet.name, boat: body.boat } },
  }
}

/**
 * The newest edition, with what was entered at the bench since. Of a drive that has none yet, what its draft says by now; of one of its variants, the sheet
 * as it is of that. What is no edition is kept as a version for this job, and for the next one that needs the very same.
 */
export async function sheetForJob(
  tx: Transaction,
  id: string,
  variantId: string | undefined,
  who: Who,
): Promise<DriveSheet> {
  const published = await publishedSheet(tx, id)
  const draft = await draftFromBench(tx, id)
  if (published && !draft && variantId === undefined) return published
  await holdDrive(tx, id)
  const body = published ? await bodyOfVersion(tx, id, published.version) : (await readDraft(tx, id)).body
  const entered = published && draft ? withBenchFigures(body, draft) : body
  if (published && entered === body && variantId === undefined) return published
  const made = variantId === undefined ? entered : theVariant(entered, variantId)
  const version = await versionFor(tx, made, who)
  return filled({ ...made, version })
}

/** What lay beside the unit when it came, lies in the row from the beginning: how it lay before that, nobody here has seen. */
async function layBeside(tx: Transaction, job: string, sheet: DriveSheet, lying: string[], who: Who) {
  const rows = lying.map((id) => {
    const { name, place } = sheet.parts.find((p) => p.id === id)!
    return { id, name, stack: place?.startsWith('stack:') ? place.slice(6) : null }
  })
  await tx.query(
    `insert into row_part (job_id, part, name, position, stack, note, off_by, off_at)
     select $1, x.id, x.name, x.n, x.stack, 'came so', $3, $4
     from rows from (jsonb_to_recordset($2::jsonb) as (id text, name text, stack text)) with ordinality as x (id, name, stack, n)`,
    [job, JSON.stringify(rows), who.id, who.at],
  )
}

/** The next number of the year; the counter's row is held until the commit, so that two jobs never share one. */
async function nextNumber(tx: Transaction, at: Date): Promise<string> {
  const year = String(at.getUTCFullYear()).slice(2)
  const [row] = await tx.query<{ last: number }>(
    `insert into counter (name, last) values ($1, 1)
     on conflict (name) do update set last = counter.last + 1 returning last`,
    [`job ${year}`],
  )
  return `${year}-${String(row!.last).padStart(3, '0')}`
}

export interface NewJob {
  id: string
  number: string
  sheet: DriveSheet
  serial: string
  boat: string
  owner: string
  water: string
  hours: number | null
  stand: string | null
  complaint: string
}

/** The job's row with its as-found build, and the print of its route. */
export async function insertJob(tx: Transaction, job: NewJob, who: { id: string; at: Date }): Promise<void> {
  const hash = await keepPrint(tx, routeOf(job.sheet))
  await tx.query(
    `with opened as (
       insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, state, stage, complaint,
         opened_at, touched_at, route_hash)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, 'received', 'receive', $11, $12, $12, $13) returning id
     )
     insert into build (job_id, number, by_person, at) select id, 0, $14, $12 from opened`,
    [
      job.id,
      job.number,
      job.sheet.id,
      job.sheet.version,
      job.serial,
      job.boat,
      job.owner,
      job.water,
      job.hours,
      job.stand,
      job.complaint,
      who.at,
      hash,
      who.id,
    ],
  )
}
