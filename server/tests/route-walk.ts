import type { JobDetail } from '@moray/contract/replies'
import { factsOf } from '@moray/contract/facts'
import type { Measure } from '@moray/core/drives/sheet'
import { shimAdjusters } from '@moray/core/drives/sheet'
import { propose, criteria } from '@moray/core/inspection/criteria'
import type { Answers } from '@moray/core/route/complete'
import { progressOf, type StepProgress } from '@moray/core/route/progress'
import { routeOf } from '@moray/core/route/route-of'
import { learnedSolverInput } from '@moray/core/setting/learned'
import { shimSolve } from '@moray/core/setting/shim-solve'
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
  const { status, body } = await app.post<JobDetail>('/api/jobs', {
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

export const detail = (w: Walker) => w.app.get<JobDetail>(`/api/jobs/${w.id}`)

export function dueOf(job: JobDetail): StepProgress | undefined {
  const done = new Set(job.work.steps.filter((s) => !s.takenBack).map((s) => s.step))
  return progressOf(routeOf(job.sheet), job.work.facts, done).due
}

export async function post<T = JobDetail>(w: Walker, path: string, body: object): Promise<T> {
  const reply = await w.app.post<T>(`/api/jobs/${w.id}${path}`, body)
  expect(reply.status, `${path} ${JSON.stringify(reply.body.error ?? '')}`).toBe(201)
  return reply.body
}

export const rightAnswers = (w: Walker, due: StepProgress, job: JobDetail): Answers =>
  carefulAnswers({ gearcase: w.gearcase, random: w.random }, due.step, job.work.facts)

/** Walks until the step named is due (left open), or to the end. */
export async function walkTo(w: Walker, until?: string): Promise<JobDetail> {
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
export async function openUp(w: Walker, due: StepProgress, job: JobDetail): Promise<JobDetail> {
  switch (due.step.page) {
    case 'tray':
      return due.step.id === 'apart' ? takeApart(w, job) : fitAll(w, job)
    case 'grades':
      return gradeAll(w, job)
    case 'estimate': {
      const made = await post(w, '/estimates', { rate: 950, consumables: 500 })
      return post(w, '/approvals', {
        estimateId: made.work.estimates.at(-1)!.id,
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

export async function takeApart(w: Walker, job: JobDetail): Promise<JobDetail> {
  const left = job.sheet.parts.filter(
    (p) => p.id !== 'housing' && !job.work.tray.some((t) => t.part === p.id),
  )
  const off = new Set(job.work.tray.flatMap((t) => t.part ?? []))
  let last = job
  while (left.length) {
    const next = left.find((p) => p.after.every((a) => off.has(a)))!
    last = await post(w, '/tray', { part: next.id, orientation: 'as it lay' })
    off.add(next.id)
    left.splice(left.indexOf(next), 1)
  }
  return last
}

async function fitAll(w: Walker, job: JobDetail): Promise<JobDetail> {
  let last = job
  for (const t of [...job.work.tray].reverse())
    if (!t.fitted && t.leftOut === null) last = await post(w, `/tray/${t.id}`, { act: 'fit' })
  return last
}

async function gradeAll(w: Walker, job: JobDetail): Promise<JobDetail> {
  let last = job
  for (const p of job.sheet.parts) {
    if (['seal', 'ring'].includes(p.kind)) continue
    const seen = [criteria[p.kind][0]!.id]
    last = await post(w, '/grades', { part: p.id, ...propose(p.kind, seen)!, seen })
  }
  return last
}

async function enterStacks(w: Walker, job: JobDetail): Promise<JobDetail> {
  let last = job
  for (const a of shimAdjusters(job.sheet))
    last = await post(w, '/stacks', {
      location: a.id,
      unit: 'mm',
      pieces: [{ text: `${w.gearcase.stacks[a.id]!.toFixed(3)} mm` }],
    })
  return last
}

/** What a gauge shows when the measure truly is `value`. */
function rawOf(measure: Measure, value: number): number {
  if (measure.kind !== 'depth') return value
  const { how } = measure
  if (how.method === 'master-drop') return 50.003 - value
  return how.method === 'arbor'
    ? value - how.arborDiameterMm / 2
    : how.nominalClearanceMm + value - how.nominalDepthMm
}

async function setGears(w: Walker, job: JobDetail): Promise<JobDetail> {
  let last = job
  for (let round = 0; round < 6; round++) {
    const build = last.builds.at(-1)!
    const stacks = factsOf(build.stacks, []).stacks
    const carrier = last.sheet.adjusters.find((a) => a.kind === 'threaded')
    for (const m of last.sheet.measures) {
      // a threaded carrier is turned until its backlash is right, before it is read
      const truth = carrier
        ? (m.target ?? 0.16)
        : trueReading(w.gearcase, m.id, { ...w.gearcase.stacks, ...stacks })
      for (let i = build.readings.filter((r) => r.measure === m.id).length; i < m.readings; i++)
        last = await post(w, '/readings', {
          build: build.number,
          measure: m.id,
          text: `${rawOf(m, truth).toFixed(3)} mm`,
          unit: 'mm',
          gaugeId: m.kind === 'depth' ? 'g01' : 'g02',
          confirmed: true,
        })
    }
    const now = last.builds.at(-1)!
    if (now.assessment.allIn) return post(w, '/acceptance', { build: now.number })
    const pieces = last.pieces.map(({ id, thicknessMm, count }) => ({ id, thicknessMm, count }))
    const [plan] = shimSolve(
      learnedSolverInput(
        last.sheet,
        last.builds.map((b) => factsOf(b.stacks, b.readings)),
        pieces,
      ),
    ).plans
    const movable = Object.entries(plan!.stacks).filter(([, s]) => s.pieceIds.length > 0)
    const promised = plan!.probability > 0.02 && movable.length > 0 && round < 5
    if (!promised)
      return post(w, '/acceptance', { build: now.number, reason: 'closest that the drawer allows' })
    last = await post(w, '/trials', {
      fromBuild: now.number,
      stacks: movable.map(([location, s]) => ({ location, pieces: s.pieceIds.map((id) => ({ id })) })),
    })
  }
  throw new Error('not set in six rounds')
}
