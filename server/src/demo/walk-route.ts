import type { JobWork } from '@moray/contract/replies'
import { comesOff, needsGrade, setOf } from '@moray/core/drives/parts'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { criteria, propose } from '@moray/core/inspection/criteria'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Answers } from '@moray/core/route/complete'
import { deriveFacts } from '@moray/core/route/job-facts'
import { progressOf } from '@moray/core/route/progress'
import { routeOf } from '@moray/core/route/route-of'
import { carefulAnswers } from '@moray/core/simulation/careful-hand'
import { virtualCase } from '@moray/core/simulation/virtual-case'
import type { Transaction } from '../db/database.ts'
import { listEstimates, makeEstimate, recordApproval } from '../estimates/estimates.ts'
import { gradePart } from '../grades/grades.ts'
import { loadBuilds } from '../jobs/builds.ts'
import type { JobStep } from '../jobs/on-job.ts'
import { findJob } from '../jobs/rows.ts'
import { closeStep } from '../route/steps.ts'
import { loadWork } from '../route/work.ts'
import { changeTrayPart, layOnTray } from '../tray/tray.ts'
import type { DemoJob, DemoStep } from './jobs.ts'

type Work = Extract<DemoStep, { do: 'work' }>
type Tell = (at: Date, by: string, kind: string, text: string) => Promise<unknown>

const HOUR = 3_600_000

/** Numbers in [0, 1) that are the same everywhere; small and plain (a linear congruence, Knuth 1981, 3.3.4). */
function repeatable(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 4294967296
  }
}

/** Ink that tells which way round a needle cage ran, and how other parts lay. */
const MARK: Partial<Record<string, { orientation: string; ink?: string }>> = {
  needle: { orientation: 'ink: this gear, arrow up', ink: 'two dots' },
  gear: { orientation: 'teeth up' },
  cup: { orientation: 'tapered side up' },
  washer: { orientation: 'worn side up' },
  shaft: { orientation: 'marked at the spline' },
  shim: { orientation: 'bagged with its place' },
}

/**
 * Walks a demo job along its route with a careful hand, through the same functions as the real pages: answers, tray, grades,
 * estimate and approval. Stops at the step named, or where only Setting can go on.
 */
export async function walkRoute(
  tx: Transaction,
  job: DemoJob,
  work: Work,
  now: Date,
  tell: Tell,
): Promise<void> {
  const sheet = demoSheets.find((s) => s.id === job.sheetId)!
  const route = routeOf(sheet)
  const random = repeatable(job.number.length * 7919 + Number(job.number.slice(3)))
  const hand = { gearcase: virtualCase(sheet, random), random, story: work.story ?? {} }
  const [from, till] = [now.getTime() - work.hoursAgo * HOUR, now.getTime() - work.tillHoursAgo * HOUR]
  const row = await findJob(tx, job.id)
  const builds = await loadBuilds(tx, job.id, sheet)
  let state: JobWork | undefined
  for (let n = 0; ; n++) {
    const at = new Date(Math.min(till, from + ((till - from) * n) / route.steps.length))
    const step: JobStep = { tx, job: row, sheet, builds, who: { id: work.by, at } }
    // loading all anew at every step would take most of the demo's time; time itself only counts while closing
    state ??= await loadWork(tx, row, builds, at)
    const done = new Set(state.steps.filter((s) => !s.takenBack).map((s) => s.step))
    const { due } = progressOf(route, state.facts, done)
    if (!due || due.step.id === work.until) return
    const say = (kind: string, text: string) => tell(at, work.by, kind, text)
    const departure = work.departures?.[due.step.id]
    if (due.state === 'blocked' && !departure) {
      if (!(await openUp(step, state, work, due.step.page, say))) return
      state = undefined
      continue
    }
    const body = {
      step: due.step.id,
      answers: carefulAnswers(hand, due.step, state.facts),
      ...(due.state === 'blocked' && departure ? { departure: { reason: departure } } : {}),
    }
    await say('step', await closeStep(step, body, state))
    const last = due.step.id === 'trial-out' || due.step.stage === 'close'
    state = last ? undefined : afterStep(state, sheet, body)
  }
}

/** What is known once a step is closed, without asking the database again. */
function afterStep(state: JobWork, sheet: DriveSheet, body: { step: string; answers: Answers }): JobWork {
  const closed = { ...state.steps[0]!, step: body.step, answers: body.answers, takenBack: null }
  return {
    ...state,
    steps: [...state.steps, closed],
    facts: deriveFacts(sheet, { ...state.facts, ...body.answers }),
  }
}

/** Does on another page what keeps a step shut. @returns false when that is for somebody else to do */
async function openUp(
  step: JobStep,
  state: JobWork,
  work: Work,
  page: string | undefined,
  say: (kind: string, text: string) => Promise<unknown>,
): Promise<boolean> {
  const { sheet, tx, job } = step
  if (page === 'tray') {
    const off = new Set(state.tray.map((t) => t.part))
    const missing = sheet.parts.filter((p) => comesOff(p) && !off.has(p.id))
    // built back in the order in which it came off, from the end
    if (!missing.length) {
      const lying = state.tray.filter((t) => !t.fitted && t.leftOut === null)
      for (const t of lying.reverse()) await say('tray', await changeTrayPart(step, t.id, { act: 'fit' }))
      return lying.length > 0
    }
    // the row grows in an order in which every part comes free
    const most = work.trayUpTo ?? Infinity
    while (missing.length && off.size < most) {
      const next = missing.find((p) => p.after.every((a) => off.has(a)))!
      await say('tray', await layOnTray(step, { part: next.id, ...MARK[next.kind] }))
      off.add(next.id)
      missing.splice(missing.indexOf(next), 1)
    }
    return !missing.length
  }
  if (page === 'grades') {
    const graded = new Set(state.grades.map((g) => g.part))
    for (const part of sheet.parts.filter((p) => needsGrade(p, true))) {
      if (graded.has(part.id)) continue
      const own = work.seen?.[part.id]
      const seen = own?.seen ?? [criteria[part.kind][0]!.id]
      const proposal = propose(part.kind, seen, { inSet: part.set !== undefined })!
      const measured = own?.measured ? { measured: own.measured } : {}
      await say('grade', await gradePart(step, { part: part.id, ...proposal, seen, ...measured }))
      // a condemned set has been graded as a whole
      if (proposal.grade === 'replace-set') for (const p of setOf(sheet.parts, part.id)) graded.add(p.id)
    }
    return true
  }
  if (page === 'estimate') {
    await say('estimate', await makeEstimate(step, { rate: 950, consumables: 600 }))
    const made = (await listEstimates(tx, job.id)).at(-1)!
    await say(
      'approval',
      await recordApproval(step, {
        estimateId: made.id,
        choice: work.choice ?? 'rebuild',
        customer: 'The owner',
        how: 'by telephone',
      }),
    )
    return true
  }
  return false
}
