import { judged, type JudgedJob } from '../../src/job/judged.ts'
import {
  USUAL_WAYS,
  type Approval,
  type ApprovalChoice,
  type Closing,
  type JobRecord,
  type LoopEntry,
} from '../../src/job/record.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { settingMeasures } from '../../src/setting/measures.ts'
import { carefulAnswers } from '../../src/simulation/careful-hand.ts'
import { virtualCase } from '../../src/simulation/virtual-case.ts'
import type { Scope } from '../../src/route/scope.ts'
import { random } from '../refused.ts'

const START = Date.parse('2026-11-02T07:00:00.000Z')
const NOW = new Date('2026-12-24T07:00:00.000Z')
/** The k-th thing of a job happens so many hours after it was opened. */
export const after = (hours: number) => new Date(START + hours * 3_600_000).toISOString()

export interface Walking {
  /** Answers that are given whatever a careful hand would say. */
  story?: Record<string, string | number | boolean>
  /** Repairs that are opened once everything but handover is done. */
  loops?: Pick<LoopEntry, 'why' | 'targets' | 'note'>[]
  /** What the owner wants. */
  choice?: 'rebuild' | 'stop'
}

/** A job of such a scope of which nothing is done yet. */
export const record = (sheet: DriveSheet, scope: Scope): JobRecord => ({
  id: 'job',
  number: '26-200',
  sheetId: sheet.id,
  sheetVersion: sheet.version,
  newestSheetVersion: sheet.version,
  serial: 'S-1',
  boat: 'Boat',
  owner: 'Owner',
  water: 'salt',
  hours: 100,
  stand: null,
  state: 'working',
  stage: 'receive',
  waits: { kind: 'nothing' },
  complaint: 'weeps',
  openedAt: after(0),
  touchedAt: after(0),
  heldReason: null,
  routeHash: null,
  builds: [],
  closings: [],
  drafts: [],
  row: [],
  grades: [],
  findings: [],
  outcome: null,
  estimates: [],
  schools: [],
  attachments: [],
  scopes: [{ ...scope, reason: 'as agreed', by: 'Ylva', at: after(0) }],
  openItems: [],
  loops: [],
  partner: null,
  seen: 1,
})

/** What the owner decided once he was asked. */
export const decided = (
  choice: ApprovalChoice,
  at: string,
  more: Partial<Approval> = {},
): JobRecord['estimates'] => [
  {
    id: 1,
    body: { order: [], rate: 900, consumables: 0, extraHours: 0 } as never,
    by: 'Ylva',
    at: at,
    approval: {
      choice,
      customer: 'Owner',
      how: 'said',
      by: 'Ylva',
      at: at,
      entered: null,
      ...more,
    } as never,
    entered: null,
  } as never,
]

/** Everything that a job takes off, taken off and put back; graded good, and new where the plan says so. */
function withRow(job: JobRecord, judgedJob: JudgedJob, off: string, fitted: string): JobRecord {
  const { plan, sheet } = judgedJob
  const isNew = new Set(plan.renew.map((r) => r.part))
  return {
    ...job,
    row: plan.off.map((p, i) => ({
      id: i + 1,
      part: p.id,
      name: p.name,
      orientation: null,
      ink: null,
      stack: null,
      note: null,
      offBy: 'Ylva',
      offAt: off,
      fitted: { by: 'Ylva', at: fitted, renewed: isNew.has(p.id) },
      leftOut: null,
    })),
    grades: sheet.parts.map((p, i) => ({
      id: i + 1,
      part: p.id,
      grade: 'keep',
      reason: 'good',
      seen: [],
      measuredMm: null,
      proposed: 'keep',
      by: 'Ylva',
      at: off,
      superseded: false,
      entered: null,
    })) as never,
  }
}

/** Builds of a job that reads and accepts everything that its plan disturbs. */
function builds(job: JudgedJob, accepted: string): JobRecord['builds'] {
  const { disturbed } = job.plan
  const reading = (measure: string, i: number) => ({
    id: i + 1,
    measure,
    superseded: null,
    at: accepted,
    value: 1,
    raw: 1,
    gauge: { resolution: 0.01, mpe: 0.01, repeatability: 0.01 },
    unit: 'mm',
    text: '1',
    how: null,
    gaugeOverdue: false,
    masterMm: null,
    clockDeg: null,
    note: null,
    by: 'Ylva',
    entered: null,
    gaugeId: 'g',
    gaugeName: 'G',
  })
  const build = { by: 'Ylva', at: after(0), stacks: [], patterns: [], plan: null }
  return [
    { ...build, id: 1, number: 0, readings: [], acceptance: null },
    {
      ...build,
      id: 2,
      number: 1,
      readings: settingMeasures(job.sheet)
        .filter((m) => disturbed.includes(m.id))
        .map((m, i) => reading(m.id, i)) as never,
      acceptance: { reason: null, by: 'Ylva', at: accepted, signed: false, entered: null } as never,
    },
  ]
}

/**
 * A job walked by a careful hand on today's route as far as handover, as its record stands then: closings in their order, the row off when it came apart and
 * in again when it was closed. Gates that only another page could open are taken for open.
 */
export function walkedJob(sheet: DriveSheet, scope: Scope, walking: Walking = {}): JudgedJob {
  const hand = { gearcase: virtualCase(sheet, random(11)), random: random(12), story: walking.story ?? {} }
  const look = (r: JobRecord) =>
    judged(
      {
        ...r,
        builds: [
          {
            id: 1,
            number: 0,
            by: '',
            at: after(0),
            stacks: [],
            readings: [],
            patterns: [],
            plan: null,
            acceptance: null,
          },
        ],
      },
      sheet,
      USUAL_WAYS,
      NOW,
    )
  let job = withRow(record(sheet, scope), look(record(sheet, scope)), after(1), after(2))
  const closings: Closing[] = []
  const close = (step: string, answers: Closing['answers'], departed: string[]) =>
    closings.push({
      id: closings.length + 1,
      step,
      answers,
      texts: {},
      departedFrom: departed,
      reason: departed.length ? 'because' : null,
      lead: null,
      by: 'Ylva',
      at: after(3 + closings.length),
      takenBack: null,
      entered: null,
    } as never)
  const onward = () => {
    for (let k = 0; k < 200; k++) {
      const now = look({ ...job, closings })
      const due = now.progress.steps.find(
        (s) =>
          s.step.id !== 'handover' &&
          ['open', 'blocked', 'waiting'].includes(s.state) &&
          s.step.needs.every((n) =>
            now.progress.steps.some((x) => x.step.id === n && (x.state === 'done' || x.state === 'not-here')),
          ),
      )
      if (!due) return
      if (due.step.id === 'approve' && !job.estimates.length)
        job = { ...job, estimates: decided(walking.choice ?? 'rebuild', after(3 + closings.length)) }
      close(
        due.step.id,
        carefulAnswers(hand, due.step, now.facts) as Closing['answers'],
        due.state === 'blocked' ? ['a gate'] : [],
      )
    }
    throw new Error('never comes to handover')
  }
  onward()
  for (const [i, loop] of (walking.loops ?? []).entries()) {
    job = {
      ...job,
      loops: [...job.loops, { ...loop, number: i + 1, by: 'Ylva', at: after(3 + closings.length) }],
    }
    // what a repair proves again is open again
    const again = new Set(['turn-closed', 'leak-case', 'leak-joined', 'first-run', 'check-set'])
    for (const c of closings)
      if (again.has(c.step))
        Object.assign(c, {
          takenBack: { reason: 'repair', by: 'Ylva', at: after(3 + closings.length), replacedBy: null },
        })
    onward()
  }
  const at = (step: string) => closings.find((c) => c.step === step)?.at
  const moved = (iso: string, minutes: number) => new Date(Date.parse(iso) + minutes * 60_000).toISOString()
  const off = moved(at('apart') ?? after(1), -5)
  const fitted = moved(
    at('seals') ?? at('o-rings') ?? at('close') ?? at('tighten') ?? at('turn-closed') ?? closings.at(-1)!.at,
    -5,
  )
  const whole = withRow(job, look({ ...job, closings }), off, fitted)
  const seen = look({ ...whole, closings })
  return judged(
    { ...whole, closings, builds: builds(seen, at('accept') ?? moved(fitted, -5)) },
    sheet,
    USUAL_WAYS,
    NOW,
  )
}
