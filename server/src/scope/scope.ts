import type {
  AddOpenItem,
  CloseOpenItem,
  OpenLoop,
  ScopeFields,
  SetScope,
} from '@moray/contract/requests/scope'
import { isOpen } from '@moray/core/job/job-work'
import type { Told } from '@moray/core/job/event'
import { planWays } from '@moray/core/job/job-plan'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { REPAIR_REASONS } from '@moray/core/route/repair'
import { planOf } from '@moray/core/route/plan'
import { refuse } from '@moray/core/checks/input-error'
import { comesOff } from '@moray/core/drives/parts'
import { reach } from '@moray/core/route/reach'
import { mustBeReached, ownScope, usualScope, type Scope } from '@moray/core/route/scope'
import type { Transaction } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'

/** The scope that a request names, on this drive. @throws InputError where it reaches nothing, or a part that this variant has not */
export function scopeFrom(sheet: DriveSheet, fields: ScopeFields): Scope & { label: string } {
  const came = cameAs(sheet, fields)
  if (fields.usual === 'own')
    return {
      ...ownScope(sheet, fields.targets ?? [], came.mounted ?? fields.mounted),
      ...came.said,
      label: 'picked by hand',
    }
  const { usual, mode, targets, mounted, label } = usualScope(sheet, fields.usual)
  if (fields.mounted && !mounted) mustBeReached(sheet, targets)
  return { usual, mode, targets, mounted: came.mounted ?? fields.mounted ?? mounted, ...came.said, label }
}

/** How the unit came. What does not come on its boat stands on the bench, and what lies beside it has let go of all that covers it. */
function cameAs(
  sheet: DriveSheet,
  { came, lying }: ScopeFields,
): { mounted?: boolean; said: Pick<Scope, 'came' | 'lying'> } {
  if (came === undefined || came === 'boat') return { said: came ? { came } : {} }
  const loose = sheet.parts.filter(comesOff)
  const known = new Set(loose.map((p) => p.id))
  const named = came === 'boxes' ? [...known] : came === 'opened' ? (lying ?? []) : []
  named.forEach((id, i) => {
    if (!known.has(id)) refuse(`scope.lying[${i}]`, `"${id}" is no part of this drive that comes off`)
  })
  if (came === 'opened' && !named.length)
    refuse('scope.lying', 'names nothing yet: say which parts lie beside it, or that it came whole')
  return {
    mounted: false,
    said: { came, ...(named.length ? { lying: reach({ parts: loose, targets: named }).order } : {}) },
  }
}

export async function keepScope(
  tx: Transaction,
  jobId: string,
  scope: Scope,
  reason: string,
  who: Pick<Who, 'id' | 'at'>,
): Promise<void> {
  await tx.query(
    `insert into job_scope (job_id, usual, mode, targets, mounted, reason, by_person, at, came, lying)
     values ($1, $2, $3, $4::jsonb, $5, $6, $7, $8, $9, $10::jsonb)`,
    [
      jobId,
      scope.usual,
      scope.mode,
      JSON.stringify(scope.targets),
      scope.mounted,
      reason,
      who.id,
      who.at,
      scope.came ?? null,
      scope.lying ? JSON.stringify(scope.lying) : null,
    ],
  )
}

/** Another scope. What is off already stays in it: nobody makes a part that lies on the bench disappear. */
export async function setScope({ tx, job, who }: At, body: SetScope): Promise<Told> {
  const { label, ...wanted } = scopeFrom(job.sheet, body)
  // how it came is said once, when it comes
  const { came, lying: beside } = job.plan.scope
  const scope = { ...wanted, ...(came ? { came } : {}), ...(beside ? { lying: beside } : {}) }
  const plan = planOf(job.sheet, scope, planWays(job, job.ways))
  const off = new Set(plan.off.map((p) => p.id))
  const lying = job.row.filter(
    (r) => r.part !== null && !off.has(r.part) && !r.fitted && !beside?.includes(r.part),
  )
  if (lying.length)
    throw new Refusal(
      409,
      'off-already',
      `${lying.map((r) => r.name).join(', ')}: off already. Keep it in the scope, or fit it first.`,
      [{ path: 'targets', message: `must reach ${lying.map((r) => r.part).join(', ')} as well` }],
    )
  await keepScope(tx, job.id, scope, body.reason, who)
  return {
    kind: 'scope',
    subject: 'scope',
    data: { label, off: plan.off.length, money: plan.parts, hours: plan.hours, reason: body.reason },
  }
}

export async function addOpenItem({ tx, job, who }: At, body: AddOpenItem): Promise<Told> {
  await tx.query('insert into open_item (job_id, text, by_person, at) values ($1, $2, $3, $4)', [
    job.id,
    body.text,
    who.id,
    who.at,
  ])
  return { kind: 'open-item', subject: 'open-items', data: { text: body.text } }
}

export async function closeOpenItem({ tx, job, who }: At, body: CloseOpenItem, id: number): Promise<Told> {
  const item = job.openItems.find((i) => i.id === id)
  if (!item) throw notFound('Open item', String(id))
  if (item.closed)
    throw new Refusal(409, 'settled-already', `"${item.text}" was settled already by ${item.closed.by}.`)
  await tx.query('insert into open_item_closed (open_item_id, how, by_person, at) values ($1, $2, $3, $4)', [
    id,
    body.how,
    who.id,
    who.at,
  ])
  return { kind: 'open-item', subject: 'open-items', data: { text: item.text, how: body.how } }
}

/**
 * A place is opened again after closing: numbered, with what it reaches; of a leak it may have to be found first. Nothing is taken back: what it opens, comes up on the route once more.
 */
export async function openLoop({ tx, job, who, entered }: At, body: OpenLoop): Promise<Told> {
  const finds = !body.targets.length && body.why === 'leak'
  const targets = finds ? [] : ownScope(job.sheet, body.targets).targets
  if (job.state === 'closed')
    throw new Refusal(409, 'job-over', 'This job was closed without a rebuild; reopen it first.')
  if (isOpen(job)) {
    const last = job.loops.at(-1)
    throw last
      ? new Refusal(
          409,
          'loop-open',
          `Repair ${last.number} is still open: close that one first, or take its parts into it.`,
        )
      : new Refusal(
          409,
          'not-closed',
          'It has not been closed yet: what is wrong is mended in the order of work.',
        )
  }
  const number = job.loops.length + 1
  await tx.query(
    `insert into repair_loop (job_id, number, why, targets, note, by_person, at, entered) values ($1, $2, $3, $4::jsonb, $5, $6, $7, $8)`,
    [job.id, number, body.why, JSON.stringify(targets), body.note, who.id, who.at, entered],
  )
  const names = targets.map((t) => job.sheet.parts.find((p) => p.id === t)!.name)
  return {
    kind: 'loop',
    subject: `loop:${number}`,
    data: { number, why: REPAIR_REASONS[body.why], note: body.note, parts: names },
  }
}
