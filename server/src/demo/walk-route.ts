import type { JudgedJob } from '@moray/core/job/judged'
import { buildBackOrder, isCondemned } from '@moray/core/job/bench-row'
import { setOf } from '@moray/core/drives/parts'
import { ungraded } from '@moray/core/job/job-plan'
import type { Closing } from '@moray/core/job/record'
import { criteria, propose } from '@moray/core/inspection/criteria'
import { deriveFacts } from '@moray/core/route/job-facts'
import { progressOf } from '@moray/core/route/progress'
import type { Answers } from '@moray/core/route/complete'
import { carefulAnswers } from '@moray/core/simulation/careful-hand'
import { virtualCase } from '@moray/core/simulation/virtual-case'
import { makeEstimate, recordApproval } from '../estimates/estimates.ts'
import { gradePart } from '../grades/grades.ts'
import { changeRowPart, layInRow } from '../row/row.ts'
import { closeStep } from '../steps/close-step.ts'
import type { DemoJob, DemoStep } from './jobs.ts'
import type { Player } from './play.ts'
import { repeatable } from './repeatable.ts'

type Work = Extract<DemoStep, { do: 'work' }>

const HOUR = 3_600_000

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
 * Walks a demo job along its route with a careful hand, through the same functions as the real pages: answers, row, grades,
 * estimate and approval. Stops at the step named, or where only Setting can go on.
 */
export async function walkRoute(player: Player, job: DemoJob, work: Work, now: Date): Promise<void> {
  const [from, till] = [now.getTime() - work.hoursAgo * HOUR, now.getTime() - work.tillHoursAgo * HOUR]
  const { sheet, route } = await player.state(new Date(from))
  const random = repeatable(job.number.length * 7919 + Number(job.number.slice(3)))
  const hand = { gearcase: virtualCase(sheet, random), random, story: work.story ?? {} }
  for (let n = 0; ; n++) {
    const at = new Date(Math.min(till, from + ((till - from) * n) / route.steps.length))
    const state = await player.state(at)
    const { due } = state.progress
    if (!due || due.state === 'waiting' || due.step.id === work.until) return player.knows(undefined)
    const departure = work.departures?.[due.step.id]
    if (due.state === 'blocked' && !departure) {
      if (!(await openUp(player, state, work, due.step.page, at))) return player.knows(undefined)
      continue
    }
    const body = {
      step: due.step.id,
      answers: carefulAnswers(hand, due.step, state.facts),
      ...(due.state === 'blocked' && departure ? { departure: { reason: departure } } : {}),
    }
    await player.change(work.by, at, (a) => closeStep(a, body))
    const last = due.step.id.startsWith('trial-') || ['close', 'finish'].includes(due.step.stage)
    player.knows(last ? undefined : afterStep(state, body))
  }
}

/** What is known once a step is closed, without asking the database again. */
function afterStep(state: JudgedJob, body: { step: string; answers: Answers }): JudgedJob {
  const closed: Closing = {
    id: 0,
    step: body.step,
    answers: body.answers,
    texts: {},
    departedFrom: [],
    reason: null,
    lead: null,
    by: '',
    at: state.touchedAt,
    takenBack: null,
  }
  const facts = deriveFacts(state.sheet, { ...state.facts, ...body.answers })
  const done = new Set([...state.done, body.step])
  return {
    ...state,
    closings: [...state.closings, closed],
    facts,
    done,
    progress: progressOf(state.route, facts, done),
  }
}

/** Does on another page what keeps a step shut. @returns false when that is for somebody else to do */
async function openUp(
  player: Player,
  state: JudgedJob,
  work: Work,
  page: string | undefined,
  at: Date,
): Promise<boolean> {
  const { sheet } = state
  if (page === 'row') return fillRow(player, state, work, at)
  if (page === 'grades') {
    const graded = new Set(state.grades.map((g) => g.part))
    for (const part of ungraded(state, sheet, state.plan, state.facts['school.seals'] === 'all')) {
      if (graded.has(part.id)) continue
      const own = work.seen?.[part.id]
      const seen = own?.seen ?? [criteria[part.kind][0]!.id]
      const proposal = propose(part.kind, seen, { inSet: part.set !== undefined })!
      const measured = own?.measured ? { measured: own.measured } : {}
      await player.change(work.by, at, (a) => gradePart(a, { part: part.id, ...proposal, seen, ...measured }))
      player.knows(state)
      // a condemned set has been graded as a whole
      if (proposal.grade === 'replace-set') for (const p of setOf(sheet.parts, part.id)) graded.add(p.id)
    }
    player.knows(undefined)
    return true
  }
  if (page === 'estimate') {
    await player.change(work.by, at, (a) => makeEstimate(a, { rate: 950, consumables: 600 }))
    const made = (await player.state(at)).estimates.at(-1)!
    await player.change(work.by, at, (a) =>
      recordApproval(a, {
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

/** Lays out what is still in the case, or builds back what lies in the row. */
async function fillRow(player: Player, state: JudgedJob, work: Work, at: Date): Promise<boolean> {
  const off = new Set(state.row.map((t) => t.part))
  const missing = state.plan.off.filter((p) => !off.has(p.id))
  if (!missing.length) {
    const lying = buildBackOrder(state.row)
    for (const t of lying) {
      const renewed = isCondemned(state.grades, t.part)
      await player.change(work.by, at, (a) => changeRowPart(a, { act: 'fit', renewed }, t.id))
      player.knows(state)
    }
    player.knows(undefined)
    return lying.length > 0
  }
  // the row grows in an order in which every part comes free
  const most = work.rowUpTo ?? Infinity
  while (missing.length && off.size < most) {
    const next = missing.find((p) => p.after.every((a) => off.has(a)))!
    await player.change(work.by, at, (a) => layInRow(a, { part: next.id, ...MARK[next.kind] }))
    off.add(next.id)
    missing.splice(missing.indexOf(next), 1)
  }
  return !missing.length
}
