import type { JobState, JobWork } from '@moray/contract/replies'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { progressOf } from '@moray/core/route/progress'
import { routeOf } from '@moray/core/route/route-of'
import { waitsFor } from '@moray/core/setting/assess'
import type { Transaction } from '../db/database.ts'
import type { LoadedBuild } from './builds.ts'
import type { LoadedJob } from './detail.ts'
import { setProgress } from './rows.ts'

const STATE_OF_STAGE: Record<string, JobState> = {
  receive: 'received',
  teardown: 'teardown',
  inspect: 'teardown',
  parts: 'waiting',
  set: 'setting',
}

/** Time of day at the shop: server and bench stand in one house. */
const clock = (iso: string) =>
  new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })

/** Where a job stands, in words for the bench list: on its route, or in the middle of a round of measuring. */
export function standing(
  sheet: DriveSheet,
  work: JobWork,
  builds: LoadedBuild[],
): { state: JobState; stage: string; waitsFor: string } {
  const route = routeOf(sheet)
  const done = new Set(work.steps.filter((s) => !s.takenBack).map((s) => s.step))
  const { due } = progressOf(route, work.facts, done)
  const labelOf = (stage: string) => route.stages.find((s) => s.id === stage)!.label
  const newest = builds.at(-1)!
  const begun = newest.stacks.length > 0 || newest.readings.length > 0 || newest.number > 0
  const measuring = begun && !newest.accepted && !newest.assessment.complete
  if (!due) return { state: 'finished', stage: 'Handed over', waitsFor: 'Nothing: finished' }
  if (work.heldReason !== null)
    return { state: 'held', stage: labelOf(due.step.stage), waitsFor: `Held: ${work.heldReason}` }
  // measuring as found may come before its turn: what is begun is what the job waits for
  const setting = (due.step.page === 'setting' && due.state === 'blocked') || measuring
  const running = due.step.id.startsWith('leak-') && work.drafts.find((d) => d.step === due.step.id)
  const reopened = work.steps.some((s) => s.takenBack && s.step === 'handover')
  const state = setting ? 'setting' : (STATE_OF_STAGE[due.step.stage] ?? 'working')
  return {
    state: reopened ? 'reopened' : state,
    stage: setting ? 'Setting' : labelOf(due.step.stage),
    waitsFor: setting
      ? waitsFor(sheet, newest.assessment, newest.number)
      : due.state === 'blocked'
        ? due.why[0]!
        : running
          ? `${due.step.what}: running since ${clock(running.begunAt)}`
          : due.step.what,
  }
}

/** Writes down where the job stands now; a closed job stays closed. */
export async function keepProgress(tx: Transaction, { row, builds, work }: LoadedJob): Promise<void> {
  if (row.state !== 'closed') await setProgress(tx, row.id, standing(row.sheet, work, builds))
}
