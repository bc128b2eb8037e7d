import type { TrayPart } from '@moray/contract/replies'
import type { ChangeTrayPart, LayOnTray, OrderTray } from '@moray/contract/requests/route'
import { heldBy } from '@moray/core/drives/parts'
import type { Queryable } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { JobStep } from '../jobs/on-job.ts'

interface TrayRow {
  id: number
  part: string | null
  name: string
  position: number
  orientation: string | null
  ink: string | null
  stack: string | null
  note: string | null
  off_name: string
  off_at: Date
  fitted_name: string | null
  fitted_at: Date | null
  left_out: string | null
}

/** The row in its order. */
export async function listTray(db: Queryable, jobId: string): Promise<TrayPart[]> {
  const rows = await db.query<TrayRow>(
    `select t.id, t.part, t.name, t.position, t.orientation, t.ink, t.stack, t.note, o.name as off_name, t.off_at,
       f.name as fitted_name, t.fitted_at, t.left_out
     from tray_part t join person o on o.id = t.off_by left join person f on f.id = t.fitted_by
     where t.job_id = $1 order by t.position, t.id`,
    [jobId],
  )
  return rows.map((r) => ({
    id: r.id,
    part: r.part,
    name: r.name,
    position: r.position,
    orientation: r.orientation,
    ink: r.ink,
    stack: r.stack,
    note: r.note,
    offBy: r.off_name,
    offAt: r.off_at.toISOString(),
    fitted: r.fitted_at ? { by: r.fitted_name!, at: r.fitted_at.toISOString() } : null,
    leftOut: r.left_out,
  }))
}

const blank = (text: string | undefined) => text?.trim() || null

/** Lays a part at the end of the row. One that another still holds is questioned: it cannot have come out yet. */
export async function layOnTray({ tx, job, sheet, who }: JobStep, body: LayOnTray): Promise<string> {
  const row = await listTray(tx, job.id)
  const part = body.part === undefined ? undefined : sheet.parts.find((p) => p.id === body.part)
  if (body.part !== undefined && !part) throw notFound('Part', body.part)
  const name = part?.name ?? blank(body.name)
  if (!name)
    throw new Refusal(422, 'invalid-input', 'Name the part.', [{ path: 'name', message: 'is missing' }])
  if (part && row.some((t) => t.part === part.id))
    throw new Refusal(409, 'on-the-tray', `${part.name} lies in the row already.`)
  if (part && !body.confirmed) {
    const holding = heldBy(sheet.parts, part.id, new Set(row.flatMap((t) => t.part ?? [])))
    if (holding.length)
      throw new Refusal(
        422,
        'too-early',
        `${part.name} cannot come out yet: ${holding.map((p) => p.name).join(', ')} must be off first. Do not force it.`,
        [{ path: 'part', message: `is held by ${holding.map((p) => p.name).join(', ')}` }],
      )
  }
  await tx.query(
    `insert into tray_part (job_id, part, name, position, orientation, ink, stack, note, off_by, off_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)`,
    [
      job.id,
      part?.id ?? null,
      name,
      (row.at(-1)?.position ?? 0) + 1,
      blank(body.orientation),
      blank(body.ink),
      blank(body.stack) ?? (part?.place?.startsWith('stack:') ? part.place.slice(6) : null),
      blank(body.note),
      who.id,
      who.at,
    ],
  )
  return `${name} off, into the row${body.orientation ? ` (${body.orientation.trim()})` : ''}`
}

/** Puts the row into another order. */
export async function orderTray({ tx, job }: JobStep, body: OrderTray): Promise<string> {
  const row = await listTray(tx, job.id)
  const asked = body.ids.map(Number)
  if (
    asked.length !== row.length ||
    !row.every((t) => asked.includes(t.id)) ||
    new Set(asked).size !== asked.length
  )
    throw new Refusal(409, 'stale-tray', 'The row has changed meanwhile; look at it again.')
  for (const [i, id] of asked.entries())
    await tx.query('update tray_part set position = $3 where job_id = $1 and id = $2', [job.id, id, i + 1])
  return 'The row was put into another order'
}

/** Fits a part, takes it out again, leaves it out or takes it off the row for a reason, or marks it. */
export async function changeTrayPart(
  { tx, job, who }: JobStep,
  id: number,
  body: ChangeTrayPart,
): Promise<string> {
  const entry = (await listTray(tx, job.id)).find((t) => t.id === id)
  if (!entry) throw notFound('Part in the row', String(id))
  const reason = blank(body.reason)
  const needReason = () => {
    if (!reason)
      throw new Refusal(422, 'reason-needed', 'Say why.', [{ path: 'reason', message: 'is missing' }])
    return reason
  }
  switch (body.act) {
    case 'fit':
      if (entry.fitted) throw new Refusal(409, 'already-fitted', `${entry.name} is in already.`)
      await tx.query('update tray_part set fitted_by = $2, fitted_at = $3, left_out = null where id = $1', [
        id,
        who.id,
        who.at,
      ])
      return `${entry.name} fitted`
    case 'unfit':
      if (!entry.fitted && entry.leftOut === null)
        throw new Refusal(409, 'not-fitted', `${entry.name} lies in the row.`)
      await tx.query(
        'update tray_part set fitted_by = null, fitted_at = null, left_out = null where id = $1',
        [id],
      )
      return `${entry.name} back in the row: ${needReason()}`
    case 'leave-out':
      if (entry.fitted) throw new Refusal(409, 'already-fitted', `${entry.name} is in; take it out first.`)
      await tx.query('update tray_part set left_out = $2 where id = $1', [id, needReason()])
      return `${entry.name} stays out: ${needReason()}`
    case 'remove':
      // the row is working state: an entry that was never true goes, and the history says so
      if (entry.fitted) throw new Refusal(409, 'already-fitted', `${entry.name} is in; take it out first.`)
      await tx.query('delete from tray_part where id = $1', [id])
      return `${entry.name} was not off after all: ${needReason()}`
    case 'mark':
      await tx.query(
        'update tray_part set orientation = coalesce($2, orientation), ink = coalesce($3, ink), note = coalesce($4, note) where id = $1',
        [id, blank(body.orientation), blank(body.ink), blank(body.note)],
      )
      return `${entry.name} marked: ${[body.orientation, body.ink, body.note].filter(Boolean).join(', ') || 'nothing new'}`
  }
}
