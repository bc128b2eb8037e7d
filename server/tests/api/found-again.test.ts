import type { PastJob, SearchReply, UnitsBefore } from '@moray/contract/found'
import { describe, expect, it } from 'vitest'
import { testApp as demoApp, type TestApp } from '../test-app.ts'

/** The demo with all of it read, as it is a moment after a start; what is written later is read by the search itself. */
async function testApp() {
  const app = await demoApp()
  await app.db.query('select search_catch_up(1000)')
  return app
}
const find = (app: TestApp, typed: string) =>
  app.get<SearchReply>(`/api/search?search=${encodeURIComponent(typed)}`)
/** What was found, in short: the job (or what it is), and the kinds of what matched. */
const short = async (app: TestApp, typed: string) =>
  (await find(app, typed)).found.map((f) => [
    f.what === 'job' ? f.job.id : f.what,
    [...new Set(f.lines.map((l) => l.kind))].join(' '),
  ])

describe('one search', () => {
  it('finds a shim by thickness, place and drive, in millimetres as it is typed', async () => {
    const app = await testApp()
    const { found } = await find(app, '.75 forward lomvi')
    expect(found).toHaveLength(1)
    expect(found[0]).toMatchObject({ what: 'job', job: { id: 'lomvi-test' } })
    expect(found[0]!.lines[0]).toMatchObject({
      kind: 'stack',
      ref: 'forward 0',
      text: expect.stringContaining('0.75'),
    })
    expect(await short(app, '0,750 FORWARD lomvi')).toEqual([['lomvi-test', 'stack']])
  })
  it('finds in inches what was typed in millimetres', async () => {
    const app = await testApp()
    expect(await short(app, '.0295 forward')).toContainEqual(['lomvi-test', 'stack'])
  })
  it.each([
    ['26-118', 'lomvi-skarv', 'job'],
    ['lv90-20417', 'lomvi-skarv', 'job'],
    ['20417', 'lomvi-skarv', 'job'],
    ['skar', 'lomvi-skarv', 'job'],
    ['mussel vå', 'lomvi-skarv', 'job'],
  ])('finds %s', async (typed, job, kind) => {
    const app = await testApp()
    expect(await short(app, typed)).toContainEqual([job, kind])
  })
  it('finds notes, answers, grades and parts, and says which; all words have to be there', async () => {
    const app = await testApp()
    await app.post('/api/jobs/lomvi-skarv/open-items', { text: 'Ask about the quokka bracket' })
    expect(await short(app, 'quokka')).toEqual([['lomvi-skarv', 'open-item']])
    expect(await short(app, 'quokka skarv')).toEqual([['lomvi-skarv', 'open-item']])
    expect(await short(app, 'quokka rordrum')).toEqual([])
    const kinds = new Set((await find(app, 'forward gear')).found.flatMap((f) => f.lines.map((l) => l.kind)))
    expect(kinds.has('grade')).toBe(true)
  })
  it('follows what is corrected: the old name finds nothing any more', async () => {
    const app = await testApp()
    expect(await short(app, 'skarv')).toHaveLength(1)
    await app.post('/api/jobs/lomvi-skarv/details', { boat: 'Terne', reason: 'misread' })
    expect(await short(app, 'terne')).toContainEqual(['lomvi-skarv', 'job'])
    expect((await short(app, 'skarv')).map(([id]) => id)).not.toContain('lomvi-skarv')
  })
  it.each(['', '   ', "'", '& | ! ( )', ':*', '\\', '%', '<->', '---', '.', '*'])(
    'takes %j as nothing to find',
    async (typed) => {
      const app = await testApp()
      expect((await find(app, typed)).found).toEqual([])
    },
  )
  it('refuses what nobody types', async () => {
    const app = await testApp()
    expect((await app.request('/api/search?search=%00')).status).toBe(422)
    expect((await app.request(`/api/search?search=${'a'.repeat(81)}`)).status).toBe(422)
  })
})

describe('the same unit before, and units like it', () => {
  it('come with stacks, readings and tests as they were accepted', async () => {
    const app = await testApp()
    const { job } = await (async () => {
      const { found } = await find(app, 'lv90-20417')
      return found[0] as Extract<SearchReply['found'][number], { what: 'job' }>
    })()
    const jobs = await app.get<PastJob[]>(`/api/units/${job.sheetId}/jobs?serial=${job.serial}`)
    expect(jobs.map((j) => j.id)).toContain('lomvi-skarv')
    const { same, like } = await app.get<UnitsBefore>('/api/jobs/lomvi-skarv/before')
    expect(same.every((j) => j.serial === job.serial && j.id !== 'lomvi-skarv')).toBe(true)
    expect(like.length).toBeGreaterThan(0)
    for (const l of like) {
      expect(l).toMatchObject({ sheetId: job.sheetId, acceptedAt: expect.stringContaining('T') })
      expect(Object.keys(l.stacks)).toContain('pinion')
      expect(Object.keys(l.reads).length).toBeGreaterThan(0)
    }
    expect((await app.request('/api/jobs/nobody/before')).status).toBe(404)
  })
})
