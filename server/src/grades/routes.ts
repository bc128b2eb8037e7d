import { GivePartGrade } from '@moray/contract/requests/route'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { readBody } from '../http/body.ts'
import { onJob } from '../jobs/on-job.ts'
import { gradePart } from './grades.ts'

export function mountGrades(app: Hono, deps: Deps) {
  const write = onJob(deps)
  app.post('/api/jobs/:id/grades', async (c) => {
    const body = await readBody(c, GivePartGrade)
    return write(c, 'grade', (at) => gradePart(at, body))
  })
}
