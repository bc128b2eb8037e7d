import type { JobReply } from '@moray/contract/replies'
import { isStale } from '@moray/core/job/estimates'
import { describe, expect, it } from 'vitest'
import { freshDatabase, NOW, onPostgres, otherServer, testApp, type TestApp } from '../test-app.ts'

const HOUR = 3_600_000
const grade = (app: TestApp, job: string, part: string) =>
  app.post<JobReply>(`/api/jobs/${job}/grades`, { part, grade: 'keep', reason: 'as new' })
const estimate = (app: TestApp, job: string) =>
  app.post<JobReply>(`/api/jobs/${job}/estimates`, { rate: 950, consumables: 600 })

describe('the order in which acts of a unit were entered', () => {
  it('is that of their numbers, though another server whose clock is behind wrote the last of them', async () => {
    const db = await freshDatabase()
    const ahead = await testApp({ db })
    const behind = await testApp({
      db: onPostgres() ? await otherServer() : db,
      now: () => new Date(NOW.getTime() - HOUR),
    })
    const made = (await estimate(ahead, 'rordrum')).body.estimates.at(-1)!
    const { grades } = (await grade(behind, 'rordrum', 'input-carrier')).body
    const given = grades.at(-1)!
    expect(Date.parse(given.at)).toBeLessThan(Date.parse(made.at))
    expect(given.entered).toBe(made.entered! + 1)
    expect(isStale(made, grades)).toBe(true)
  })
  it('goes on from one case of a unit to the other', async () => {
    const app = await testApp()
    const numbers: number[] = []
    for (const job of ['duo-lower', 'havsule-upper', 'duo-lower'])
      numbers.push((await estimate(app, job)).body.estimates.at(-1)!.entered!)
    expect(numbers).toEqual([numbers[0]!, numbers[0]! + 1, numbers[0]! + 2])
  })
  it('has no number twice, however many write at once', async () => {
    const db = await freshDatabase()
    const [a, b] = [await testApp({ db }), await testApp({ db: onPostgres() ? await otherServer() : db })]
    const replies = await Promise.all(
      Array.from({ length: 12 }, (_, i) => estimate(i % 2 ? a : b, i % 3 ? 'duo-lower' : 'havsule-upper')),
    )
    expect(replies.map((r) => r.status)).toEqual(Array(12).fill(201))
    const entered = (
      await Promise.all(['duo-lower', 'havsule-upper'].map((id) => a.get<JobReply>(`/api/jobs/${id}`)))
    ).flatMap((job) => job.estimates.flatMap((e) => e.entered ?? []))
    expect(new Set(entered).size).toBe(entered.length)
    expect(entered.length).toBeGreaterThanOrEqual(12)
  })
  it('is not known of what an older Moray wrote, and the time decides there', async () => {
    const app = await testApp()
    const { body } = await estimate(app, 'rordrum')
    const old = { ...body.estimates.at(-1)!, entered: null }
    const later = new Date(Date.parse(old.at) + HOUR).toISOString()
    expect(isStale(old, [{ entered: 1, at: later }])).toBe(true)
  })
})
