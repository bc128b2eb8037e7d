import type { RemoveOwner } from '@moray/contract/requests/privacy'
import type { Told } from '@moray/core/job/event'
import { REMOVED } from '@moray/core/job/removed'
import type { Transaction } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'

/**
 * Takes the name of an owner out of everything that was written about their jobs: the jobs themselves, who agreed to estimates, and entries of the history
 * that named them. The technical record stays. Approvals are sealed anew by the event that tells of it; an entry of the history keeps the seal that it had,
 * and the event says which entries those are, so that a check knows them from entries that somebody has changed. Records of other shops about the same owner lose the name too.
 * @throws Refusal 404 when nobody of that name is here
 */
export async function removeOwner(tx: Transaction, { owner, reason }: RemoveOwner): Promise<Told> {
  const jobs = await tx.query<{ id: string }>('select id from job where owner = $1 order by id for update', [
    owner,
  ])
  if (!jobs.length) throw notFound('Owner', owner.slice(0, 80))
  const ids = jobs.map((j) => j.id)
  await tx.script(
    'alter table approval disable trigger approval_stays; alter table event disable trigger event_stays',
  )
  await tx.query('update job set owner = $2 where id = any($1)', [ids, REMOVED])
  await tx.query(
    `update approval set customer = $2 where customer <> $2 and estimate_id in (select id from estimate where job_id = any($1))`,
    [ids, REMOVED],
  )
  const masked = await tx.query<{ id: number }>(
    `update event set data = case kind
         when 'approval' then data || jsonb_build_object('customer', $2::text)
         else jsonb_set(data, '{changes}', (select jsonb_agg(case when c ->> 'field' = 'owner' then c || jsonb_build_object('was', $2::text, 'now', $2::text) else c end)
           from jsonb_array_elements(data -> 'changes') c)) end
     where job_id = any($1) and (kind = 'approval' or (kind = 'corrected' and data -> 'changes' @> '[{"field": "owner"}]'))
     returning id::float8 as id`,
    [ids, REMOVED],
  )
  await tx.script(
    'alter table approval enable trigger approval_stays; alter table event enable trigger event_stays',
  )
  await fromForeign(tx, owner)
  // nobody finds by the name any more either
  await tx.query('select search_again(id) from unnest($1::text[]) j(id)', [ids])
  await tx.query('select search_others()')
  return {
    kind: 'privacy',
    subject: 'owner',
    data: { jobs: ids.length, masked: masked.map((m) => m.id).sort((a, b) => a - b), reason },
  }
}

/** Records of other shops about the same owner: the name goes wherever it stands in them, and they are sealed anew. */
async function fromForeign(tx: Transaction, owner: string) {
  await tx.script('alter table foreign_job disable trigger foreign_job_stays')
  const changed = await tx.query<{ id: number }>(
    `update foreign_job set file = replace(file::text, $2, $3)::jsonb where file #>> '{job,owner}' = $1 returning id::float8 as id`,
    // as it stands between the quotation marks of JSON
    [owner, JSON.stringify(owner).slice(1, -1), REMOVED],
  )
  await tx.script('alter table foreign_job enable trigger foreign_job_stays')
  await tx.query('delete from search_line where foreign_id = any($1)', [changed.map((f) => f.id)])
}
