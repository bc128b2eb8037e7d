import type { KnownUnit } from '@moray/contract/replies'
import type { ChangeLife, OpenJob } from '@moray/contract/requests/route'
import { FAMILIES } from '@moray/core/drives/sheet'
import type { Queryable, Transaction } from '../db/database.ts'
import { newestSheets } from '../drives/sheets.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../http/write.ts'
import { listSteps, takeBack } from '../route/steps.ts'
import { shopStands } from '../shop/shop.ts'
import type { JobStep } from './on-job.ts'
import { setProgress } from './rows.ts'

/** Drives that have been here, by serial number, newest visit first. */
export async function knownUnits(db: Queryable): Promise<KnownUnit[]> {
  const rows = await db.query<{
    serial: string
    sheet_id: string
    sheet_name: string
    boat: string
    owner: string
    water: KnownUnit['water']
    jobs: number
    last_at: Date
  }>(
    `select distinct on (j.serial) j.serial, j.sheet_id, d.body->>'name' as sheet_name, j.boat, j.owner, j.water,
       (select count(*)::int from job n where n.serial = j.serial) as jobs, j.opened_at as last_at
     from job j join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version
     order by j.serial, j.opened_at desc`,
  )
  return rows
    .map((r) => ({
      serial: r.serial,
      sheetId: r.sheet_id,
      sheetName: r.sheet_name,
      boat: r.boat,
      owner: r.owner,
      water: r.water,
      jobs: r.jobs,
      lastAt: r.last_at.toISOString(),
    }))
    .sort((a, b) => b.lastAt.localeCompare(a.lastAt))
}

/** Refuses a stand that another drive is on. */
async function mustBeFree(tx: Transaction, stand: string, jobId: string | null) {
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
export async function openJob(
  tx: Transaction,
  body: OpenJob,
  who: Who,
): Promise<{ id: string; text: string }> {
  const sheet = (await newestSheets(tx)).find((s) => s.id === body.sheetId)
  if (!sheet) throw notFound('Drive sheet', body.sheetId)
  const stand = body.stand?.trim() || null
  if (stand) await mustBeFree(tx, stand, null)
  const year = String(who.at.getUTCFullYear()).slice(2)
  const [last] = await tx.query<{ n: number }>(
    "select coalesce(max(substring(number from 4)::int), 0) as n from job where number ~ ('^' || $1 || '-[0-9]+$')",
    [year],
  )
  const number = `${year}-${String(last!.n + 1).padStart(3, '0')}`
  const id = `job-${number}`
  await tx.query(
    `insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, state, stage,
       waits_for, complaint, opened_at, touched_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, 'received', 'Receive', 'Receive it', $11, $12, $12)`,
    [
      id,
      number,
      sheet.id,
      sheet.version,
      body.serial.trim(),
      body.boat.trim(),
      body.owner.trim(),
      body.water,
      body.hours ?? null,
      stand,
      body.complaint.trim(),
      who.at,
    ],
  )
  await tx.query('insert into build (job_id, number, by_person, at) values ($1, 0, $2, $3)', [
    id,
    who.id,
    who.at,
  ])
  return { id, text: `${number} opened: ${sheet.name} (${FAMILIES[sheet.family]}), ${body.boat.trim()}` }
}

/** Holds, resumes, moves, closes or reopens a job. */
export async function changeLife(at: JobStep, body: ChangeLife): Promise<string> {
  const { tx, job } = at
  const reason = body.reason?.trim()
  const mustSay = () => {
    if (!reason || reason.length < 3)
      throw new Refusal(422, 'reason-needed', 'Say why.', [{ path: 'reason', message: 'is missing' }])
    return reason
  }
  switch (body.act) {
    case 'hold':
      await tx.query('update job set held_reason = $2 where id = $1', [job.id, mustSay()])
      return `Held: ${mustSay()}`
    case 'resume':
      if (job.held_reason === null) throw new Refusal(409, 'not-held', 'This job is not held.')
      await tx.query('update job set held_reason = null where id = $1', [job.id])
      return 'Goes on'
    case 'stand': {
      const stand = body.stand?.trim() || null
      if (stand) await mustBeFree(tx, stand, job.id)
      await tx.query('update job set stand = $2 where id = $1', [job.id, stand])
      return stand ? `On ${stand}` : 'On the shelf'
    }
    case 'close':
      await tx.query('update job set held_reason = null, stand = null where id = $1', [job.id])
      await setProgress(tx, job.id, {
        state: 'closed',
        stage: 'Closed',
        waitsFor: `Nothing: ${mustSay()}`,
      })
      return `Closed: ${mustSay()}`
    case 'reopen':
      return reopen(at, mustSay(), body.step)
  }
}

/** A job that comes back: from the step named on, everything is done again; what was done stays to be read. */
async function reopen(at: JobStep, reason: string, step: string | undefined): Promise<string> {
  const { tx, job } = at
  if (job.state !== 'finished' && job.state !== 'closed')
    throw new Refusal(409, 'still-open', 'This job is open; take a step back instead.')
  if (job.state === 'closed')
    await setProgress(tx, job.id, { state: 'reopened', stage: '', waitsFor: reason })
  const done = (await listSteps(tx, job.id)).filter((s) => !s.takenBack)
  const from = step === undefined ? done.at(-1) : done.find((s) => s.step === step)
  if (step !== undefined && !from) throw notFound('Closed step', step)
  if (from) await takeBack(at, from.id, reason)
  return `Reopened: ${reason}`
}
