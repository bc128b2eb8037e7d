import type { LoggedAct } from '../../src/assembly/act.ts'
import { undoneOf } from '../../src/job/acts/told-entries.ts'
import { logAfter } from '../../src/job/acts/log-after.ts'
import { ungraded } from '../../src/job/job-plan.ts'
import { isOpen } from '../../src/job/job-work.ts'
import { judged, type JudgedJob } from '../../src/job/judged.ts'
import {
  USUAL_WAYS,
  type Approval,
  type ApprovalChoice,
  type JobRecord,
  type RowPart,
} from '../../src/job/record.ts'
import { comesOff } from '../../src/drives/parts.ts'
import { shimAdjusters, type DriveSheet } from '../../src/drives/sheet.ts'
import { completeStep } from '../../src/route/complete.ts'
import { deriveFacts } from '../../src/route/job-facts.ts'
import { dependentsOf, type StepProgress } from '../../src/route/progress.ts'
import type { Scope } from '../../src/route/scope.ts'
import { carefulAnswers } from '../../src/simulation/careful-hand.ts'
import { virtualCase, type Random } from '../../src/simulation/virtual-case.ts'
import { random } from '../refused.ts'
import { decided, record } from './walked-job.ts'

const START = Date.parse('2026-11-02T07:00:00.000Z')
const STEP_MS = 3_600_000
/** Nobody walks so far: a route that goes on longer leads in a circle. */
const MOST = 400

/**
 * A job as it is worked from one write to the next: its record and its log grow by what a careful hand does on the route, and by whatever else befalls it.
 * Every write is judged as the server judges it.
 */
export class LiveJob {
  record: JobRecord
  job: JudgedJob
  readonly random: Random
  private writes = 0
  private readonly hand
  private ids = 0
  /** Steps that were closed, in their order. */
  readonly order: string[] = []
  /** Lines that were gone on over, with a reason. */
  readonly accepted: string[] = []

  constructor(
    readonly sheet: DriveSheet,
    scope: Scope,
    { seed = 11, story = {} as Record<string, string | number | boolean> } = {},
    private readonly choice: ApprovalChoice = 'rebuild',
  ) {
    this.random = random(seed)
    this.hand = { gearcase: virtualCase(sheet, this.random), random: this.random, story }
    this.record = { ...record(sheet, scope), log: [] as LoggedAct[] }
    this.record.builds = [this.build(0)]
    // what lay beside it when it came
    this.record.row = (scope.lying ?? []).map((part) => this.lies(part))
    this.job = this.judge()
  }

  private now = () => new Date(START + this.writes * STEP_MS)
  private at = () => this.now().toISOString()
  private id = () => ++this.ids
  private build = (number: number): JobRecord['builds'][number] => ({
    id: this.id(),
    number,
    by: 'Ylva',
    at: this.at(),
    stacks: [],
    readings: [],
    patterns: [],
    plan: null,
    acceptance: null,
  })

  private judge(): JudgedJob {
    return judged(this.record, this.sheet, USUAL_WAYS, this.now())
  }

  /** One write: the record is changed, judged, and what it claims goes into the log. */
  private write(change: (record: JobRecord) => JobRecord) {
    this.writes++
    this.record = change(this.record)
    this.job = this.judge()
    const log = logAfter(this.record.log!, this.job.work.acts, this.writes)
    this.record = { ...this.record, log }
  }

  lines = () => this.job.work.lines.filter((l) => l.colour === 'red').map((l) => `${l.code} ${l.on}`)
  step = (id: string): StepProgress | undefined => this.job.progress.steps.find((s) => s.step.id === id)

  /** Walks on to the end, or to a step. @throws Error where nothing can be done any more, or it never ends */
  walk(until?: string): this {
    for (let n = 0; n < MOST; n++) {
      const { due } = this.job.progress
      if (!due || due.step.id === until) return this
      if (due.state === 'open') this.close(due)
      else if (!this.elsewhere(due)) throw new Error(`${due.step.id} is shut: ${due.why.join(' ')}`)
    }
    throw new Error(`never ends: … ${this.order.slice(-12).join(' ')}`)
  }

  private close({ step }: StepProgress) {
    const answers = carefulAnswers(this.hand, step, this.job.facts)
    const { facts, done, route } = this.job
    const closed = completeStep(route, facts, done, step.id, answers, {
      derive: (f) => deriveFacts(this.sheet, f),
    })
    if (closed.attempt.length) throw new Error(`${step.id}: ${closed.attempt.join(' ')}`)
    this.closing(step.id, closed.answers, [])
  }

  private closing(
    step: string,
    answers: Record<string, string | number | boolean>,
    departedFrom: string[],
    undone = false,
  ) {
    this.order.push(step)
    this.write((r) => ({
      ...r,
      closings: [
        ...r.closings,
        {
          id: this.id(),
          step,
          answers,
          texts: {},
          departedFrom,
          reason: departedFrom.length ? 'because' : null,
          undone,
          lead: null,
          by: 'Ylva',
          at: this.at(),
          entered: this.writes,
          takenBack: null,
        },
      ],
    }))
  }

  /** Goes on over what is not as it must be, by name. */
  accept(step: string) {
    const shut = this.step(step)!
    this.accepted.push(...shut.why)
    this.closing(step, carefulAnswers(this.hand, shut.step, this.job.facts), shut.why)
  }

  /** Goes on from a step with its work left undone. */
  leave(step: string) {
    this.closing(step, {}, ['left undone'], true)
  }

  /** What another page of the job asks for. @returns false where it asks for nothing more */
  private elsewhere({ step }: StepProgress): boolean {
    switch (step.page) {
      case 'row':
        return this.row()
      case 'grades':
        return this.grade()
      case 'estimate':
        this.decide(this.choice)
        return true
      case 'setting':
        return step.id === 'shims' ? this.stacks() : this.setting()
      default:
        return false
    }
  }

  /** The owner decides. */
  decide(choice: ApprovalChoice, more: Partial<Approval> = {}) {
    this.write((r) => ({ ...r, estimates: decided(choice, this.at(), more) }))
  }

  /** What is known of the other case of the unit. */
  partnerIs(partner: NonNullable<JobRecord['partner']>) {
    this.write((r) => ({ ...r, partner }))
  }

  /** The other case of the unit leads from now on: joining, filling and run are on its route. */
  follow() {
    const partner = { id: 'other', number: '26-201', sheetId: 'other', sheetName: 'Other', follows: true }
    this.write((r) => ({ ...r, partner: { ...partner, facts: {}, closings: [] } }))
  }

  private row(): boolean {
    const { row } = this.record
    const off = new Set(row.flatMap((r) => r.part ?? []))
    const missing = this.job.plan.off.filter((p) => !off.has(p.id))
    if (missing.length) {
      this.tap(...missing.map((p) => p.id))
      return true
    }
    const lying = row.filter((r) => !r.fitted && r.leftOut === null)
    if (!lying.length) return false
    const isNew = new Set(this.job.plan.renew.map((r) => r.part))
    this.write((r) => ({
      ...r,
      row: r.row.map((x) =>
        lying.includes(x)
          ? { ...x, fitted: { by: 'Ylva', at: this.at(), renewed: isNew.has(x.part ?? '') } }
          : x,
      ),
    }))
    return true
  }

  /** Parts are tapped into the row. */
  tap(...parts: string[]) {
    this.write((r) => ({ ...r, row: [...r.row, ...parts.map((part) => this.lies(part))] }))
  }

  private lies(part: string): RowPart {
    const lies = { orientation: null, ink: null, stack: null, note: null, fitted: null, leftOut: null }
    const { name } = this.sheet.parts.find((p) => p.id === part)!
    return { id: this.id(), part, name, ...lies, offBy: 'Ylva', offAt: this.at() }
  }

  private grade(): boolean {
    const open = ungraded(this.record, this.sheet, this.job.plan, true)
    const dog = this.sheet.parts.filter((p) => p.kind === 'gear')
    const parts = open.length ? open : dog
    this.graded(
      parts.map((p) => p.id),
      'keep',
    )
    return parts.length > 0
  }

  graded(parts: string[], grade: 'keep' | 'replace', seen: string[] = []) {
    this.write((r) => ({
      ...r,
      grades: [
        ...r.grades.map((g) => (parts.includes(g.part) ? { ...g, superseded: true } : g)),
        ...parts.map((part) => ({
          id: this.id(),
          part,
          grade,
          reason: 'looked at',
          seen,
          measuredMm: null,
          proposed: grade,
          by: 'Ylva',
          at: this.at(),
          superseded: false,
          entered: this.writes,
        })),
      ],
    }))
  }

  private stacks(): boolean {
    const there = new Set(this.record.builds[0]!.stacks.map((s) => s.location))
    const missing = shimAdjusters(this.sheet).filter((a) => !there.has(a.id))
    if (!missing.length) return false
    this.write((r) => ({
      ...r,
      builds: r.builds.map((b, i) =>
        i > 0
          ? b
          : {
              ...b,
              stacks: missing.map((a) => ({
                id: this.id(),
                location: a.id,
                thicknessMm: a.startMm ?? 0.5,
                pieces: [],
                by: 'Ylva',
                at: this.at(),
                superseded: null,
              })),
            },
      ),
    }))
    return true
  }

  /** A trial in which all that is asked for is read, and accepted. */
  private setting(): boolean {
    const asked = this.job.work.sets
    if (!asked.size) return false
    this.write((r) => {
      const trial = this.build(r.builds.length)
      return {
        ...r,
        builds: [
          ...r.builds,
          {
            ...trial,
            readings: [...asked].map((measure) => ({
              id: this.id(),
              measure,
              raw: 1,
              value: 1,
              text: '1',
              unit: 'mm',
              gaugeId: 'g01',
              gaugeName: 'Gauge',
              gaugeOverdue: false,
              gauge: { resolution: 0.01, mpe: 0.01, repeatability: 0.01 },
              how: null,
              masterMm: null,
              clockDeg: null,
              note: null,
              by: 'Ylva',
              at: this.at(),
              entered: this.writes,
              superseded: null,
            })),
            acceptance: { reason: 'set', by: 'Ylva', at: this.at(), signed: false, entered: this.writes },
          },
        ],
      }
    })
    return true
  }

  /** A place is opened again. @returns false while it is not closed: what is wrong is mended in the order of work then */
  repair(targets: string[], why: 'leak' | 'setting' = 'leak'): boolean {
    if (isOpen(this.job)) return false
    this.write((r) => ({
      ...r,
      loops: [
        ...r.loops,
        {
          number: r.loops.length + 1,
          why,
          targets,
          note: 'weeps',
          by: 'Ylva',
          at: this.at(),
          entered: this.writes,
        },
      ],
    }))
    return true
  }

  /** A line of the list may stay as it is, by name. */
  waive(line: string) {
    this.accepted.push(line)
    this.say('accepted', line)
  }

  /** What a closed step did was undone since. @returns false where it did nothing that can be */
  undo(step: string): boolean {
    const closing = this.record.closings.findLast((c) => c.step === step && !c.takenBack)
    if (!closing || !undoneOf(this.job, closing.id).length) return false
    this.say('undone', String(closing.id))
    return true
  }

  private say(kind: 'accepted' | 'undone', subject: string) {
    const said = { kind, subject, reason: 'because', by: 'Ylva', at: this.at() }
    this.write((r) => ({
      ...r,
      told: [...(r.told ?? []), { ...said, id: this.id(), entered: this.writes }],
    }))
  }

  /** A closing is taken back, with all that stands on it. */
  takeBack(step: string) {
    const falls = new Set([step, ...dependentsOf(this.job.route, step)])
    this.write((r) => ({
      ...r,
      closings: r.closings.map((c) =>
        !c.takenBack && falls.has(c.step)
          ? { ...c, takenBack: { reason: 'by mistake', by: 'Ylva', at: this.at(), replacedBy: null } }
          : c,
      ),
    }))
  }

  /** Any part that comes off. */
  anyPart(): string {
    const parts = this.sheet.parts.filter(comesOff)
    return parts[Math.floor(this.random() * parts.length)]!.id
  }
}
