import type { ChangeRowPart, LayInRow, OrderRow } from '@moray/contract/requests/parts'
import { heldBy } from '@moray/core/drives/parts'
import { isCondemned } from '@moray/core/job/bench-row'
import type { Told } from '@moray/core/job/event'
import { mustSay, notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

const blank = (text: string | undefined) => text || null

/** Lays a part at the end of the row. One that another still holds is questioned: it cannot have come out yet. */
export async function layInRow({ tx, job, who }: At, body: LayInRow): Promise<Told> {
  const { row, sheet } = job
  const part = body.part === undefined ? undefined : sheet.parts.find((p) => p.id === body.part)
  if (body.part !== undefined && !part) throw notFound('Part', body.part)
  const name = part?.name ?? blank(body.name)
  if (!name)
    throw new Refusal(422, 'invalid-input', 'Name the part.', [{ path: 'name', message: 'is missing' }])
  if (part && row.some((t) => t.part === part.id))
    throw new Refusal(409, 'in-the-row', `${part.name} lies in the row already.`)
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
    `insert into row_part (job_id, part, name, position, orientation, ink, stack, note, off_by, off_at)
     select $1, $2, $3, coalesce((select max(position) from row_part where job_id = $1), 0) + 1, $4, $5, $6, $7, $8, $9`,
    [
      job.id,
      part?.id ?? null,
      name,
      blank(body.orientation),
      blank(body.ink),
      blank(body.stack) ?? (part?.place?.startsWith('stack:') ? part.place.slice(6) : null),
      blank(body.note),
      who.id,
      who.at,
    ],
  )
  return {
    kind: 'row-off',
    subject: `part:${part?.id ?? name}`,
    data: { name, ...(body.orientation ? { orientation: body.orientation } : {}) },
  }
}

/** Puts the row into another order. */
export async function orderRow({ tx, job }: At, body: OrderRow): Promise<Told> {
  const asked = body.ids.map(Number)
  if (
    asked.length !== job.row.length ||
    !job.row.every((t) => asked.includes(t.id)) ||
    new Set(asked).size !== asked.length
  )
    throw new Refusal(409, 'stale-row', 'The row has changed meanwhile; look at it again.')
  await tx.query(
    `update row_part r set position = o.n from unnest($2::bigint[]) with ordinality o (id, n)
     where r.job_id = $1 and r.id = o.id`,
    [job.id, asked],
  )
  return { kind: 'row-order', subject: 'row', data: {} }
}

/** Fits a part, takes it out again, leaves it out or takes it off the row for a reason, or marks it. */
export async function changeRowPart({ tx, job, who }: At, body: ChangeRowPart, id: number): Promise<Told> {
  const entry = job.row.find((t) => t.id === id)
  if (!entry) throw notFound('Part in the row', String(id))
  const told = (more: { reason?: string; marks?: string[]; renewed?: boolean } = {}): Told => ({
    kind: 'row',
    subject: `part:${entry.part ?? entry.name}`,
    data: { act: body.act, name: entry.name, ...more },
  })
  const mustBeOut = (then: string) => {
    if (entry.fitted) throw new Refusal(409, 'already-fitted', `${entry.name} is in${then}.`)
  }
  switch (body.act) {
    case 'fit':
      mustBeOut(' already')
      if (!body.renewed && isCondemned(job.grades, entry.part))
        throw new Refusal(
          422,
          'condemned',
          `${entry.name} is condemned: a new one goes in. Fit the new one, or grade it again with the reason.`,
          [{ path: 'renewed', message: 'is missing: the old part does not go back' }],
        )
      await tx.query(
        'update row_part set fitted_by = $2, fitted_at = $3, left_out = null, renewed = $4 where id = $1',
        [id, who.id, who.at, body.renewed === true],
      )
      return told(body.renewed ? { renewed: true } : {})
    case 'unfit': {
      if (!entry.fitted && entry.leftOut === null)
        throw new Refusal(409, 'not-fitted', `${entry.name} lies in the row.`)
      const reason = mustSay(body.reason)
      await tx.query(
        'update row_part set fitted_by = null, fitted_at = null, left_out = null, renewed = false where id = $1',
        [id],
      )
      return told({ reason })
    }
    case 'leave-out': {
      mustBeOut('; take it out first')
      const reason = mustSay(body.reason)
      await tx.query('update row_part set left_out = $2 where id = $1', [id, reason])
      return told({ reason })
    }
    case 'remove': {
      // the row is working state: an entry that was never true goes, and the history says so
      mustBeOut('; take it out first')
      const reason = mustSay(body.reason)
      await tx.query('delete from row_part where id = $1', [id])
      return told({ reason })
    }
    case 'mark':
      await tx.query(
        'update row_part set orientation = coalesce($2, orientation), ink = coalesce($3, ink), note = coalesce($4, note) where id = $1',
        [id, blank(body.orientation), blank(body.ink), blank(body.note)],
      )
      return told({ marks: [body.orientation, body.ink, body.note].flatMap((m) => m || []) })
  }
}
