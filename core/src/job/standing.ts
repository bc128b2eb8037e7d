import { baseOf } from '../route/occurrence.ts'
import { settingMeasures } from '../setting/measures.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import type { Progress } from '../route/progress.ts'
import { isSettable, type Assessment } from '../setting/assess.ts'
import type { BuildRecord, JobRecord, JobState } from './record.ts'
import type { Meanwhile, Waits } from './waits.ts'

export interface Standing {
  state: JobState
  /** Stage of the route, `setting`, `done` or `closed`. */
  stage: string
  waits: Waits
}

const STATE_OF_STAGE: Record<string, JobState> = {
  receive: 'received',
  teardown: 'teardown',
  inspect: 'teardown',
  parts: 'waiting',
  set: 'setting',
}

/** Where a job stands: on its route, or in the middle of a round of measuring. A closed job stays closed. */
export function standingOf(
  record: Pick<JobRecord, 'state' | 'stage' | 'waits' | 'heldReason' | 'drafts' | 'closings'>,
  sheet: DriveSheet,
  progress: Progress,
  newest: BuildRecord & { assessment: Assessment },
): Standing {
  const { due } = progress
  if (record.state === 'closed') return { state: 'closed', stage: 'closed', waits: record.waits }
  if (!due) return { state: 'finished', stage: 'done', waits: { kind: 'nothing' } }
  if (record.heldReason !== null)
    return { state: 'held', stage: due.step.stage, waits: { kind: 'held', reason: record.heldReason } }
  // readings of a case that is still together wait for its stacks until it is apart: nothing is held up by them
  const begun =
    newest.stacks.length > 0 || newest.number > 0 || (newest.readings.length > 0 && !isSettable(sheet))
  const measuring = begun && !newest.acceptance && !newest.assessment.complete
  // measuring as found may come before its turn: what is begun is what the job waits for
  const setting = (due.step.page === 'setting' && due.state === 'blocked') || measuring
  const last = progress.steps.find((s) => s.step.role === 'hands-over')?.step.id
  const reopened = last !== undefined && record.closings.some((c) => baseOf(c.step) === baseOf(last))
  const state = setting ? 'setting' : (STATE_OF_STAGE[due.step.stage] ?? 'working')
  const { timedFrom } = due.step
  const draft = timedFrom
    ? record.drafts.find((d) => d.step === due.step.id && d.answers[timedFrom] !== undefined)
    : undefined
  const waits: Waits = setting
    ? settingWaits(sheet, newest.assessment, newest.number)
    : due.state === 'blocked' || due.state === 'waiting'
      ? { kind: 'shut', step: due.step.id, why: due.why[0]! }
      : draft
        ? { kind: 'running', step: due.step.id, what: due.step.what, since: draft.begunAt }
        : { kind: 'step', step: due.step.id, what: due.step.what }
  return {
    state: reopened ? 'reopened' : state,
    stage: setting ? 'setting' : due.step.stage,
    waits: { ...waits, ...besides(record, progress) },
  }
}

/** How many names stand beside what is due. */
const BESIDES = 2

/** What else goes on: for other hands, and by itself. */
function besides({ closings }: Pick<JobRecord, 'closings'>, progress: Progress): Meanwhile {
  const also = progress.meanwhile.slice(0, BESIDES).map((s) => s.step.what)
  const running = progress.running.flatMap(({ step }) => {
    const closed = closings.findLast((c) => c.step === step.id && !c.takenBack)
    if (!closed || !step.waits) return []
    const until = new Date(Date.parse(closed.at) + 60_000 * step.waits.minutes).toISOString()
    return [{ kind: step.waits.kind, until }]
  })
  return { ...(also.length ? { also } : {}), ...(running.length ? { running } : {}) }
}

function settingWaits(sheet: DriveSheet, state: Assessment, build: number): Waits {
  const [next] = state.due
  if (next?.kind === 'stack') {
    const { label } = sheet.adjusters.find((a) => a.id === next.stack)!
    return { kind: 'stack', stack: next.stack, label, build }
  }
  if (next?.kind === 'reading') {
    const { label } = settingMeasures(sheet).find((m) => m.id === next.measure)!
    return { kind: 'reading', measure: next.measure, label, build, missing: next.missing }
  }
  if (state.allIn) return { kind: 'accept', build }
  return { kind: isSettable(sheet) ? 'choose-stacks' : 'decide', build }
}
