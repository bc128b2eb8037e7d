import type { JudgedJob } from '@moray/core/job/judged'
import { plannedPieces, type AvailablePiece } from '@moray/core/job/pieces'
import { solverInput } from '@moray/core/setting/assess'
import { shimSolve, type ShimPlan } from '@moray/core/setting/shim-solve'
import { expect } from 'vitest'
import type { TestApp } from './test-app.ts'

export const JOB = 'lomvi-skarv'
export const FOUND = { pinion: ['.40', '.22'], forward: ['16t', '.35'], reverse: ['.50', '.40'] }
export const READ = {
  depth: ['11.48', '11.485', '11.48'],
  'backlash-forward': ['.62', '.63', '.62'],
  'backlash-reverse': ['.80', '.80', '.81'],
  'bearing:driveshaft-lower': ['.60'],
}

export async function enterFound(app: TestApp, job = JOB): Promise<JudgedJob> {
  let last: JudgedJob | undefined
  for (const [location, texts] of Object.entries(FOUND)) {
    const { status, body } = await app.change(`/api/jobs/${job}/stacks`, {
      location,
      unit: 'mm',
      pieces: texts.map((text) => ({ text })),
    })
    expect(status).toBe(201)
    last = body
  }
  return last!
}

export async function enterReadings(
  app: TestApp,
  build = 0,
  job = JOB,
  read: Record<string, string[]> = READ,
): Promise<JudgedJob> {
  let last: JudgedJob | undefined
  for (const [measure, texts] of Object.entries(read))
    for (const text of texts) {
      const torque = measure.startsWith('bearing:')
      const gaugeId = torque ? 'g09' : measure === 'depth' ? 'g01' : 'g05'
      const { status, body } = await app.change(`/api/jobs/${job}/readings`, {
        build,
        measure,
        text,
        unit: torque ? 'Nm' : 'mm',
        gaugeId,
      })
      expect(status, JSON.stringify(body)).toBe(201)
      last = body
    }
  return last!
}

/** The best plan, as the browser would find it from the reply. */
export async function bestPlan(
  app: TestApp,
  job: JudgedJob,
  only: (piece: AvailablePiece) => boolean = () => true,
): Promise<ShimPlan> {
  const newest = job.builds.at(-1)!
  const pieces = (await app.pieces(job)).filter(only)
  const result = shimSolve(solverInput(job.sheet, newest.state, pieces))
  expect(result.status).toBe('fit')
  return result.plans[0]!
}

export const planBody = (plan: ShimPlan, fromBuild: number) => ({
  fromBuild,
  stacks: Object.entries(plan.stacks).map(([location, s]) => ({
    location,
    pieces: plannedPieces(s),
  })),
})

/** Readings that come out as the plan promised. */
export function readingsAsPromised(plan: ShimPlan): Record<string, string[]> {
  const value = (id: string) => plan.predicted[id]!.value
  return {
    depth: Array(3).fill((50.003 - value('depth')).toFixed(3)),
    'backlash-forward': Array(3).fill(value('backlash-forward').toFixed(2)),
    'backlash-reverse': Array(3).fill(value('backlash-reverse').toFixed(2)),
  }
}
