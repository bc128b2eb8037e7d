import { demoSheets } from '@moray/core/drives/sheets/index'
import { criteria, propose } from '@moray/core/inspection/criteria'
import { progressOf } from '@moray/core/route/progress'
import { routeOf } from '@moray/core/route/route-of'
import { carefulAnswers } from '@moray/core/simulation/careful-hand'
import { virtualCase } from '@moray/core/simulation/virtual-case'
import type { Transaction } from '../db/database.ts'
import { makeEstimate, recordApproval } from '../estimates/estimates.ts'
import { gradePart } from '../grades/grades.ts'
import { loadBuilds } from '../jobs/builds.ts'
import type { JobStep } from '../jobs/on-job.ts'
import { findJob } from '../jobs/rows.ts'
import { closeStep } from '../route/steps.ts'
import { comesOff, loadWork, needsGrade } from '../route/work.ts'
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
  const moments = route.steps.length + sheet.parts.length
  for (let n = 0; ; n++) {
    const at = new Date(Math.min(till, from + ((till - from) * n) / moments))
    const step: JobStep = {
      tx,
      job: await findJob(tx, job.id),
      sheet,
      builds: await loadBuilds(tx, job.id, sheet),
      who: { id: work.by, at },
    }
    const state = await loadWork(tx, step.job, step.builds, at)
    const done = new Set(state.steps.filter((s) => !s.takenBack).map((s) => s.step))
    const { due } = progressOf(route, state.facts, done)
    if (!due || due.step.id === work.until) return
    const say = (kind: string, text: string) => tell(at, work.by, kind, text)
    if (due.state === 'blocked') {
      const departure = work.departures?.[due.step.id]
      if (departure) {
        const answers = carefulAnswers(hand, due.step, state.facts)
        await say(
          'step',
          await closeStep(step, { step: due.step.id, answers, departure: { reason: departure } }),
        )
        continue
      }
      if (!(await openUp(step, work, due.step.page, say))) return
      continue
    }
    const answers = carefulAnswers(hand, due.step, state.facts)
    await say('step', await closeStep(step, { step: due.step.id, answers }))
  }
}

/** Does on another page what keeps a step shut. @returns false when that is for somebody else to do */
async function openUp(
  step: JobStep,
  work: Work,
  page: string | undefined,
  say: (kind: string, text: string) => Promise<unknown>,
): Promise<boolean> {
  const { sheet, tx, job, builds, who } = step
  const state = await loadWork(tx, job, builds, who.at)
  if (page === 'tray') {
    const off = new Set(state.tray.map((t) => t.part))
    // the row grows in an order in which every part comes free
    const next = sheet.parts.find((p) => comesOff(p) && !off.has(p.id) && p.after.every((a) => off.has(a)))
    if (next) {
      if (work.trayUpTo !== undefined && state.tray.length >= work.trayUpTo) return false
      const mark = MARK[next.kind]
      await say('tray', await layOnTray(step, { part: next.id, ...mark }))
      return true
    }
    const lying = state.tray.find((t) => !t.fitted && t.leftOut === null)
    if (!lying) return false
    // built back in the order in which it came off, from the end
    const last = state.tray.filter((t) => !t.fitted && t.leftOut === null).at(-1)!
    await say('tray', await changeTrayPart(step, last.id, { act: 'fit' }))
    return true
  }
  if (page === 'grades') {
    const graded = new Set(state.grades.map((g) => g.part))
    const next = sheet.parts.find((p) => needsGrade(p, true) && !graded.has(p.id))
    if (!next) return false
    const own = work.seen?.[next.id]
    const seen = own?.seen ?? [criteria[next.kind][0]!.id]
    const proposal = propose(next.kind, seen, { inSet: next.set !== undefined })!
    await say(
      'grade',
      await gradePart(step, {
        part: next.id,
        grade: proposal.grade,
        reason: proposal.reason,
        seen,
        ...(own?.measured ? { measured: own.measured } : {}),
      }),
    )
    return true
  }
  if (page === 'estimate') {
    await say('estimate', await makeEstimate(step, { rate: 950, consumables: 600 }))
    const made = (await loadWork(tx, job, builds, who.at)).estimates.at(-1)!
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
