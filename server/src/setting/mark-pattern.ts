import { refuse } from '@moray/core/checks/input-error'
import { outlineFrom } from '@moray/core/contact/marked'
import type { Told } from '@moray/core/job/event'
import type { MarkPattern } from '@moray/contract/requests/setting'
import { notFound, Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

/**
 * Records a patch as it was seen on one flank of the newest build. An earlier one of the same place is superseded, with a reason. On a build that is
 * accepted it is a later finding, and the history says so.
 */
export async function markPattern({ tx, job, who }: At, body: MarkPattern): Promise<Told> {
  const newest = job.builds.at(-1)!
  if (!job.builds.some((b) => b.number === body.build)) throw notFound('Build', String(body.build))
  if (body.build !== newest.number)
    throw new Refusal(
      409,
      'stale-build',
      `The case has been built up again since (trial ${newest.number}); a pattern of build ${body.build} cannot be added.`,
    )
  const pair = job.sheet.meshes.find((m) => m.id === body.mesh)
  if (!pair) refuse('mesh', `"${body.mesh}" is no pair of gears of ${job.sheet.name}`)
  const outline = outlineFrom(body.outline)
  const before = newest.patterns.find(
    (p) => p.mesh === pair.id && p.flank === body.flank && p.place === body.place && !p.superseded,
  )
  if (before && !body.reason)
    throw new Refusal(
      409,
      'reason-needed',
      `The ${body.flank} flank is marked at place ${body.place} already, by ${before.by}; say why it is marked anew.`,
      [{ path: 'reason', message: 'is missing; the earlier mark stays in the record' }],
    )
  // one statement each: a part of a statement does not see what another part of it has written
  const [mark] = await tx.query<{ id: number }>(
    `insert into pattern_mark (build_id, mesh, flank, place, outline, note, by_person, at)
     values ($1, $2, $3, $4, $5::jsonb, $6, $7, $8) returning id`,
    [newest.id, pair.id, body.flank, body.place, JSON.stringify(outline), body.note || null, who.id, who.at],
  )
  if (before)
    await tx.query(
      `with gone as (
         insert into pattern_mark_superseded (mark_id, replaced_by, reason, by_person, at) values ($1, $2, $3, $4, $5)
       )
       update pattern_mark_standing set mark_id = $2 where mark_id = $1`,
      [before.id, mark!.id, body.reason!, who.id, who.at],
    )
  else
    await tx.query(
      'insert into pattern_mark_standing (build_id, mesh, flank, place, mark_id) values ($1, $2, $3, $4, $5)',
      [newest.id, pair.id, body.flank, body.place, mark!.id],
    )
  return {
    kind: 'pattern',
    subject: `mesh:${pair.id}`,
    data: {
      label: pair.label,
      flank: body.flank,
      place: body.place,
      ...(before ? { reason: body.reason! } : {}),
      ...(newest.acceptance ? { later: true as const } : {}),
    },
  }
}
