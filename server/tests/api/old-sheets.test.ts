import type { JobReply, SheetDraft, Shop } from '@moray/contract/replies'
import type { SheetBody } from '@moray/core/drives/own/body'
import { judged, type JudgedJob } from '@moray/core/job/judged'
import { describe, expect, it } from 'vitest'
import { asSheetView, planInShort, stored3 } from '../../../core/tests/drives/format-3.ts'
import { NOW, testApp, type TestApp } from '../test-app.ts'

/** Sheets that the demo had in format 3, by their ids. */
const demo = new Map(stored3.filter((s) => !s.id.startsWith('bare-')).map((s) => [s.id, s]))

async function storeOld({ db }: TestApp) {
  await db.script('alter table drive_sheet disable trigger user')
  for (const [id, { body }] of demo)
    await db.query('update drive_sheet set body = $2::jsonb where id = $1', [id, JSON.stringify(body)])
  await db.script('alter table drive_sheet enable trigger user')
}

describe('sheets that a Moray of format 3 stored', () => {
  it('are read as of the present format, their versions unchanged; every job of the demo opens, with its row and its steps', async () => {
    const app = await testApp()
    const jobs = (await app.get<{ jobs: { id: string }[] }>('/api/jobs?state=all')).jobs
    const before = new Map<string, JobReply>()
    for (const { id } of jobs) before.set(id, await app.get<JobReply>(`/api/jobs/${id}`))
    const fresh = await testApp()
    await storeOld(fresh)
    for (const { id } of jobs) {
      const now = await fresh.get<JobReply>(`/api/jobs/${id}`)
      const was = before.get(id)!
      expect(now.sheetVersion, id).toBe(was.sheetVersion)
      expect(now.row, id).toEqual(was.row)
      expect(now.builds.length, id).toBe(was.builds.length)
      const { view } = demo.get(now.sheetId)!
      const sheet = await fresh.get<{ parts: { id: string }[]; graph: { upgraded?: { from: number } } }>(
        `/api/drives/${now.sheetId}/versions/${now.sheetVersion}`,
      )
      expect(sheet.graph.upgraded?.from, id).toBe(3)
      expect(sheet.parts.map((p) => p.id).sort()).toEqual(view.parts.map((p) => p.id).sort())
    }
  })
  it('tell the plan, route, facts and settings of every open job as they did', async () => {
    const app = await testApp()
    await storeOld(app)
    const ways = await app.get<Shop>('/api/shop')
    const told = (j: JudgedJob) => ({
      plan: planInShort(j.plan),
      steps: j.route.steps.map((s) => [s.id, s.asks.map((a) => a.fact), s.wants]),
      progress: j.progress,
      standing: j.standing,
      facts: j.facts,
      settings: j.builds.map((b) => [b.asked, b.assessment]),
    })
    const { jobs } = await app.get<{ jobs: { id: string }[] }>('/api/jobs?state=open')
    for (const { id } of jobs) {
      const reply = await app.get<JobReply>(`/api/jobs/${id}`)
      const sheet = await app.deps.sheets.get(app.db, reply.sheetId, reply.sheetVersion)
      const before = { ...sheet, ...asSheetView(demo.get(sheet.id)!.view) }
      expect(told(judged(reply, sheet, ways, NOW)), id).toEqual(told(judged(reply, before, ways, NOW)))
    }
  })
  it('of a draft that was open are gone on with where it was left', async () => {
    const app = await testApp()
    await app.post('/api/drives/lomvi-90/draft', { anew: false })
    const body = { ...demo.get('lomvi-90')!.body, name: 'Lomvi 90, typed' }
    await app.db.query('update sheet_draft set body = $1::jsonb where id = $2', [
      JSON.stringify(body),
      'lomvi-90',
    ])
    const draft = await app.get<SheetDraft>('/api/drives/lomvi-90/draft')
    expect(draft.body).toMatchObject({ format: 4, name: 'Lomvi 90, typed' })
    // a page that was opened before names the figure as it was
    const oil = draft.body.spaces!.find((s) => s.id === 'case')!.fillMl!
    const r = await app.post<SheetDraft>('/api/drives/lomvi-90/figures', {
      path: 'oilCapacityMl',
      text: '640',
      source: 'manual',
      was: String(oil),
    })
    expect(r.status, JSON.stringify(r.body).slice(0, 300)).toBe(201)
    expect(r.body.body.spaces![0]).toMatchObject({ fillMl: 640 })
    expect(r.body.body.sources!.at(-1)).toMatchObject({ path: 'spaces.case.fillMl', as: '640 ml' })
    expect((await app.post('/api/drives/lomvi-90/versions', { note: 'on' })).status).toBe(201)
  })
  it('that come in as a file are drafts of the present format, every figure unchecked', async () => {
    const app = await testApp()
    const { version: _version, demo: _demo, ...body } = demo.get('alke-2-upper')!.body
    const sheet = { ...body, id: 'from-elsewhere', name: 'From elsewhere' }
    const r = await app.post<SheetDraft>('/api/sheets', { sheet })
    expect(r.status, JSON.stringify(r.body).slice(0, 300)).toBe(201)
    const { body: draft } = r.body as { body: SheetBody }
    expect(draft.groups!.find((g) => g.id === 'big-ring')).toMatchObject({ hand: 'left', lock: 'tab-washer' })
    expect(draft.sources!.every((s) => s.unchecked)).toBe(true)
    const broken = await app.post<{ error: { fields: { path: string }[] } }>('/api/sheets', {
      sheet: { ...sheet, parts: 'none' },
    })
    expect([broken.status, broken.body.error.fields[0]!.path]).toEqual([422, 'sheet.format'])
  })
})
