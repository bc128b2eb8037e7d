import { caseTest, propellerHeld } from '@moray/core/drives/graph/unit-facts'
import type { AddCase, MoveJob } from '@moray/contract/requests/scope'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Told } from '@moray/core/job/event'
import type { Transaction } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'
import { insertJob, sheetForJob } from './open-job.ts'
import { goOnWith } from '../drives/job-sheet.ts'

/** What the other case of a unit has to know of a sheet. */
const factsOf = (sheet: DriveSheet) => {
  const mesh = sheet.meshes[0]?.mesh
  return {
    ...(mesh ? { driver: mesh.pinionTeeth, driven: mesh.gearTeeth } : {}),
    'has-test': caseTest(sheet.graph) !== null,
  }
}

/**
 * The other case of the same unit: a record of its own under the same number. The case with the propeller leads; joining, the joined test,
 * filling and the run are on its route, and the other one waits for it.
 */
export async function addCase({ tx, job, who }: At, body: AddCase): Promise<Told> {
  if (job.partner)
    throw new Refusal(
      409,
      'two-cases',
      `This unit has its two cases: the other one is ${job.partner.number}.`,
    )
  const sheet = await sheetForJob(tx, body.sheetId, undefined, who)
  if (sheet.id === job.sheet.id)
    throw new Refusal(422, 'same-case', `${sheet.name} is this case itself; choose the other half.`, [
      { path: 'sheetId', message: 'is the sheet of this very case' },
    ])
  const number = `${job.number}/2`
  const id = `${job.id}-2`
  await insertJob(
    tx,
    {
      id,
      number,
      sheet,
      serial: body.serial,
      boat: job.boat,
      owner: job.owner,
      water: job.water,
      hours: job.hours,
      stand: null,
      complaint: job.complaint,
    },
    who,
  )
  const otherLeads = propellerHeld(sheet.graph) !== undefined && propellerHeld(job.sheet.graph) === undefined
  const here = { id: job.id, sheet: job.sheet }
  const there = { id, sheet }
  await linkCases(tx, otherLeads ? there : here, otherLeads ? here : there, who)
  return { kind: 'case', subject: `job:${id}`, data: { number, sheet: sheet.name } }
}

/** Two jobs become the cases of one unit. */
export async function linkCases(
  tx: Transaction,
  leads: { id: string; sheet: DriveSheet },
  follows: { id: string; sheet: DriveSheet },
  who: Pick<Who, 'id' | 'at'>,
): Promise<void> {
  await tx.query(
    `insert into job_unit (job_id, other_id, other_name, follows, facts, by_person, at)
     values ($1, $2, $4, false, $6::jsonb, $7, $8), ($2, $1, $3, true, $5::jsonb, $7, $8)`,
    [
      leads.id,
      follows.id,
      leads.sheet.name,
      follows.sheet.name,
      JSON.stringify(factsOf(leads.sheet)),
      JSON.stringify(factsOf(follows.sheet)),
      who.id,
      who.at,
    ],
  )
}

/**
 * The stamps say that it is another drive: the job goes on with the sheet of that one, as long as nothing stands in it that only the old sheet has a
 * place for. What was answered stays; what has no step there is read in the record.
 */
export async function moveJob({ tx, job, who }: At, body: MoveJob): Promise<Told> {
  const sheet = await sheetForJob(tx, body.sheetId, body.variant || undefined, who)
  if (sheet.id === job.sheet.id && sheet.version === job.sheet.version)
    throw new Refusal(409, 'same-sheet', `The job works on the sheet of ${sheet.name} already.`)
  const held = [
    ...(job.row.length ? ['parts in the row'] : []),
    ...(job.builds.some((b) => b.stacks.length) ? ['stacks'] : []),
    ...(job.builds.some((b) => b.readings.length) ? ['readings'] : []),
    ...(job.estimates.length ? ['an estimate'] : []),
  ]
  if (held.length)
    throw new Refusal(
      422,
      'no-place',
      `This job holds ${held.join(', ')} of the sheet it has. Close it with that reason, and open one for the right drive.`,
    )
  await goOnWith(tx, job.id, sheet)
  return {
    kind: 'moved',
    subject: `sheet:${sheet.id}`,
    data: { was: job.sheet.name, now: sheet.name, reason: body.reason },
  }
}
