import type { JudgedJob } from '@moray/core/job/judged'
import { isCarrier, shimAdjusters } from '@moray/core/drives/sheet'
import { turnedBetween } from '@moray/core/setting/turned'
import { isCondemned } from '@moray/core/job/bench-row'
import { ungraded } from '@moray/core/job/job-plan'
import { propose, criteria } from '@moray/core/inspection/criteria'
import type { Answers } from '@moray/core/route/complete'
import { baseOf } from '@moray/core/route/occurrence'
import type { StepProgress } from '@moray/core/route/progress'
import { learnedSolverInput } from '@moray/core/setting/learned'
import { shimSolve } from '@moray/core/setting/shim-solve'
import { typedReading } from '@moray/core/simulation/shown-by-gauge'
import { carefulAnswers } from '@moray/core/simulation/careful-hand'
import { trueReading, virtualCase, type VirtualCase } from '@moray/core/simulation/virtual-case'
import { expect } from 'vitest'
import type { TestApp } from './test-app.ts'

/** A job of its own, driven over HTTP by a careful hand on a virtual gearcase. */
export interface Walker {
  app: TestApp
  id: string
  gearcase: VirtualCase
  random: () => number
}

function random(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0
    return state / 4294967296
  }
}

export async function openWalker(app: TestApp, sheetId: string, more: object = {}): Promise<Walker> {
  const { status, body } = await app.change('/api/jobs', {
    sheetId,
    serial: `W-${sheetId}`,
    boat: 'Prøvebåten',
    owner: 'Strandvik Boat Pool, own fleet',
    water: 'brackish',
    hours: 400,
    complaint: 'Whole route, for the test',
    ...more,
  })
  expect(status, JSON.stringify(body)).toBe(201)
  const r = random(31)
  return { app, id: body.id, gearcase: virtualCase(body.sheet, r), random: r }
}

export const detail = (w: Walker) => w.app.job(`${w.id}`)

export const dueOf = (job: JudgedJob): StepProgress | undefined => job.progress.due

export async function post(w: Walker, path: string, body: object): Promise<JudgedJob> {
  const reply = await w.app.change(`/api/jobs/${w.id}${path}`, body)
  expect(reply.status, `${path} ${JSON.stringify(reply.body.error ?? '')}`).toBe(201)
  return reply.body
}

/** The same, where nobody looks at what has become of it yet: judging it would cost as much as the write. */
async function send(w: Walker, path: string, body: object): Promise<void> {
  const reply = await w.app.post(`/api/jobs/${w.id}${path}`, body)
  expect(reply.status, `${path} ${JSON.stringify(reply.body.error ?? '')}`).toBe(201)
}

export const rightAnswers = (w: Walker, due: StepProgress, job: JudgedJob): Answers =>
  carefulAnswers({ gearcase: w.gearcase, random: w.random }, due.step, job.facts)

/** Walks until the step named is due (left open), or to the end. */
export async function walkTo(w: Walker, until?: string): Promise<JudgedJob> {
  let job = await detail(w)
  for (;;) {
    const due = dueOf(job)
    if (!due || due.step.id === until) return job
    if (due.state === 'open')
      job = await post(w, '/steps', { step: due.step.id, answers: rightAnswers(w, due, job) })
    else job = await openUp(w, due, job)
  }
}

/** Does what keeps a step shut, on the page it names. */
export async function openUp(w: Walker, due: StepProgress, job: JudgedJob): Promise<JudgedJob> {
  switch (due.step.page) {
    case 'row':
      return ['apart', 'prop-off'].includes(baseOf(due.step.id)) ? takeApart(w, job) : fitAll(w, job)
    case 'grades':
      return gradeAll(w, job)
    case 'estimate': {
      const made = await post(w, '/estimates', { rate: 950, consumables: 500 })
      return post(w, '/approvals', {
        estimateId: made.estimates.at(-1)!.id,
        choice: 'rebuild',
        customer: 'Eieren',
        how: 'in writing',
      })
    }
    case 'setting':
      return due.step.id === 'shims' ? enterStacks(w, job) : setGears(w, job)
    default:
      throw new Error(`nothing opens ${due.step.id}: ${due.why.join(' ')}`)
  }
}

export async function takeApart(w: Walker, job: JudgedJob): Promise<JudgedJob> {
  const left = job.plan.off.filter((p) => !job.row.some((t) => t.part === p.id))
  const off = new Set(job.row.flatMap((t) => t.part ?? []))
  while (left.length) {
    const next = left.find((p) => p.after.every((a) => off.has(a)))!
    await send(w, '/row', { part: next.id, orientation: 'as it lay' })
    off.add(next.id)
    left.splice(left.indexOf(next), 1)
  }
  return detail(w)
}

async function fitAll(w: Walker, job: JudgedJob): Promise<JudgedJob> {
  for (const t of [...job.row].reverse())
    if (!t.fitted && t.leftOut === null)
      await send(w, `/row/${t.id}`, { act: 'fit', renewed: isCondemned(job.grades, t.part) })
  return detail(w)
}

async function gradeAll(w: Walker, job: JudgedJob): Promise<JudgedJob> {
  for (const p of ungraded(job, job.sheet, job.plan, true)) {
    const seen = [criteria[p.kind][0]!.id]
    await send(w, '/grades', { part: p.id, ...propose(p.kind, seen)!, seen })
  }
  return detail(w)
}

async function enterStacks(w: Walker, job: JudgedJob): Promise<JudgedJob> {
  for (const a of shimAdjusters(job.sheet))
    await send(w, '/stacks', {
      location: a.id,
      unit: 'mm',
      pieces: [{ text: `${w.gearcase.stacks[a.id]!.toFixed(3)} mm` }],
    })
  return detail(w)
}

async function setGears(w: Walker, job: JudgedJob): Promise<JudgedJob> {
  let last = job
  for (let round = 0; round < 6; round++) {
    const build = last.builds.at(-1)!
    const { stacks } = build.state
    for (const m of build.asked) {
      if (build.state.carried?.includes(m.id)) continue
      const truth = trueReading(w.gearcase, m.id, { ...w.gearcase.stacks, ...stacks })
      for (let i = build.readings.filter((r) => r.measure === m.id).length; i < m.readings; i++)
        await send(w, '/readings', {
          build: build.number,
          ...typedReading(m, truth, m.kind === 'seat' ? stacks[m.by] : undefined),
        })
    }
    last = await detail(w)
    const now = last.builds.at(-1)!
    // opened again since it was accepted: read anew, in a round of its own
    if (now.acceptance) {
      last = await post(w, '/trials', { fromBuild: now.number, stacks: [] })
      continue
    }
    if (now.assessment.allIn) return post(w, '/acceptance', { build: now.number })
    // a nut sets it, and no stack is out: it is taken as it stands, with a reason
    if (!Object.keys(stacks).length)
      return post(w, '/acceptance', { build: now.number, reason: 'as its nut sets it' })
    const pieces = (await w.app.pieces(last)).map(({ id, thicknessMm, count }) => ({
      id,
      thicknessMm,
      count,
    }))
    const [plan] = shimSolve(
      learnedSolverInput(
        last.sheet,
        last.builds.map((b) => b.state),
        pieces,
      ),
    ).plans
    const carriers = last.sheet.adjusters.filter(isCarrier)
    const movable = Object.entries(plan!.stacks).flatMap(([location, s]) => {
      const carrier = carriers.find((a) => a.id === location)
      const pieces = s.pieceIds.map((id) => ({ id }))
      if (carrier)
        return { location, pieces, steps: turnedBetween(carrier, stacks[location]!, s.thicknessMm).steps }
      return pieces.length ? { location, pieces } : []
    })
    const promised = plan!.probability > 0.02 && movable.length > 0 && round < 5
    if (!promised)
      return post(w, '/acceptance', { build: now.number, reason: 'closest that the drawer allows' })
    last = await post(w, '/trials', {
      fromBuild: now.number,
      stacks: movable,
    })
  }
  throw new Error('not set in six rounds')
}
