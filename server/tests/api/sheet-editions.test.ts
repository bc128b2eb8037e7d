import type { DriveEntry, SheetDraft, SheetVersion } from '@moray/contract/replies'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { settingMeasures } from '@moray/core/setting/measures'
import { runoutMeasures } from '@moray/core/setting/shaft-stations'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const DRIVE = '/api/drives/kobbe-40'
const plain = (v: unknown): unknown => JSON.parse(JSON.stringify(v))
const said = (r: { body: unknown }) => JSON.stringify(r.body).slice(0, 600)

async function expectWritten<T>(made: Promise<{ status: number; body: T }>): Promise<T> {
  const r = await made
  expect(r.status, said(r)).toBe(201)
  return r.body
}
const draftOf = async (app: TestApp, drive = DRIVE) => (await app.get<SheetDraft>(`${drive}/draft`)).body
const setFigure = (app: TestApp, path: string, text: string, more: object = {}) =>
  expectWritten(app.post(`${DRIVE}/figures`, { path, text, source: 'manual', unit: 'mm', was: '', ...more }))
const publish = (app: TestApp, drive = DRIVE) =>
  expectWritten(app.post<SheetVersion[]>(`${drive}/versions`, {}))
const openJob = (app: TestApp, more: object = {}) =>
  expectWritten(
    app.post<{ id: string; sheetVersion: number }>('/api/jobs', {
      sheetId: 'kobbe-40',
      serial: 'KB-1',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
      ...more,
    }),
  )
const atTheBench = (app: TestApp, job: string, path: string, text: string) =>
  expectWritten(app.post(`/api/jobs/${job}/figures`, { path, text, source: 'manual' }))

const WINDOW = 'measures.backlash-forward.window'

/** A drive of one's own with two editions: the window was .4 to .6 in the first, and was corrected. A job is open on the first. */
async function twoEditions({ variant = false } = {}) {
  const app = await testApp()
  await expectWritten(app.post('/api/drives', { name: 'Kobbe 40', family: 'outboard-fnr' }))
  await setFigure(app, WINDOW, '.4 to .6')
  if (variant)
    for (const id of ['late', 'early'])
      await expectWritten(
        app.post(`${DRIVE}/rows`, {
          list: 'variants',
          id,
          was: '',
          now: { variants: [{ id, label: id, patch: {} }] },
        }),
      )
  await publish(app)
  const job = await openJob(app, variant ? { variant: 'late' } : {})
  await expectWritten(app.post(`${DRIVE}/draft`, { anew: false }))
  await setFigure(app, WINDOW, '.45 to .55', { was: JSON.stringify({ min: 0.4, max: 0.6 }) })
  await publish(app)
  return { app, job }
}

describe('a figure entered at the bench', () => {
  it('on a job of an older edition goes into a draft of the newest one', async () => {
    const { app, job } = await twoEditions()
    await atTheBench(app, job.id, 'spaces.case.fillMl', '600')
    const draft = await draftOf(app)
    expect(figureAt(draft, 'spaces.case.fillMl')).toBe(600)
    expect(figureAt(draft, WINDOW)).toEqual({ min: 0.45, max: 0.55 })
    // the job itself stays with what it was opened on
    expect((await app.job(job.id)).sheet.measures.find((m) => m.id === 'backlash-forward')!.window).toEqual({
      min: 0.4,
      max: 0.6,
    })
  })
  it('on a job of a variant goes into the patch of that variant, and the others stay', async () => {
    const { app, job } = await twoEditions({ variant: true })
    await atTheBench(app, job.id, 'spaces.case.fillMl', '640')
    const draft = await draftOf(app)
    expect(draft.variant).toBeUndefined()
    expect(draft.variants!.map((v) => [v.id, v.patch])).toEqual([
      ['late', { spaces: { case: { fillMl: 640 } } }],
      ['early', {}],
    ])
    expect(figureAt(draft, 'spaces.case.fillMl')).toBeUndefined()
    expect(draft.sources!.at(-1)).toMatchObject({
      path: 'variants.late.spaces.case.fillMl',
      by: 'Ylva Tangvik',
    })
    await publish(app)
    expect((await app.get<DriveEntry>(DRIVE)).variants).toHaveLength(2)
  })
  it('is said to wait until it is published', async () => {
    const { app, job } = await twoEditions()
    const waiting = async () =>
      (await app.get<DriveEntry[]>('/api/drives')).find((d) => d.id === 'kobbe-40')!.waiting
    expect(await waiting()).toBe(0)
    await atTheBench(app, job.id, 'spaces.case.fillMl', '600')
    await atTheBench(app, job.id, 'bench.leak.holdMin', '10')
    expect(await waiting()).toBe(2)
    await publish(app)
    expect(await waiting()).toBe(0)
  })
  it('that the newest edition has already opens no draft', async () => {
    const { app, job } = await twoEditions()
    await expectWritten(app.post(`${DRIVE}/draft`, { anew: false }))
    await setFigure(app, 'spaces.case.fillMl', '700')
    await publish(app)
    await atTheBench(app, job.id, 'spaces.case.fillMl', '600')
    expect((await app.request(`${DRIVE}/draft`)).status).toBe(404)
  })
})

describe('a job with readings', () => {
  it.each(demoSheets.map((s) => s.id))(
    'of everything that %s can read goes on with a newer edition',
    async (id) => {
      const sheet = demoSheets.find((s) => s.id === id)!
      const app = await testApp()
      const drive = `/api/drives/${sheet.id}`
      const job = await openJob(app, { sheetId: sheet.id })
      // bearings, seats, pairs and runouts have no measure of their own on the sheet; the rows are written as readings are kept
      for (const { id: measure } of [...settingMeasures(sheet), ...runoutMeasures(sheet)])
        await app.db.query(
          `insert into reading (build_id, measure, raw, value, text, unit, gauge_id, gauge_overdue, resolution, mpe, repeatability, by_person, at)
           select b.id, $2, 1, 1, '1', 'mm', 'g05', false, 0.01, 0.01, 0.01, 'ylva', now() from build b where b.job_id = $1`,
          [job.id, measure],
        )
      await expectWritten(app.post(`${drive}/draft`, { anew: false }))
      const another = { id: 'another', label: 'Another', patch: {} }
      await expectWritten(
        app.post(`${drive}/rows`, { list: 'variants', id: 'another', was: '', now: { variants: [another] } }),
      )
      const [newest] = await publish(app, drive)
      await expectWritten(
        app.post(`/api/jobs/${job.id}/sheet`, { version: newest!.version, reason: 'more oil' }),
      )
    },
  )
})

describe('the patch of a variant', () => {
  const file = (patch: unknown): SheetBody =>
    ({
      ...(plain(bodyOf(demoSheets[0]!)) as SheetBody),
      id: 'from-elsewhere',
      name: 'From elsewhere',
      variants: [{ id: 'late', label: 'Late', patch }],
    }) as SheetBody

  it.each([
    [{ axes: { propshaft: 'x' } }, 'variants[0].patch.axes'],
    [{ measures: { 'backlash-forward': [] } }, 'variants[0].patch.measures'],
    [{ parts: 7 }, 'variants[0].patch.parts'],
    [{ gears: null }, 'variants[0].patch.gears'],
    [{ bench: { leak: 'tight' } }, 'variants[0].patch.bench'],
    [{ family: 'belt-lower' }, 'variants[0].patch.family'],
    [{ id: 'another' }, 'variants[0].patch.id'],
    [{ name: 'Another' }, 'variants[0].patch.name'],
    [{ format: 2 }, 'variants[0].patch.format'],
    [{ variants: [] }, 'variants[0].patch.variants'],
    [{ spaces: { case: { fillMl: 'much' } } }, 'variants[0].patch.spaces[0].fillMl'],
  ])('%j is refused by place, on import and in a draft', async (patch, path) => {
    const app = await testApp()
    const r = await app.post('/api/sheets', { sheet: file(patch) })
    expect(r.status, said(r)).toBe(422)
    expect(r.body.error.fields[0]!.path).toContain(path)
    await expectWritten(app.post('/api/sheets', { sheet: file({}) }))
    const put = await app.post('/api/drives/from-elsewhere/rows', {
      list: 'variants',
      id: 'late',
      was: JSON.stringify({ id: 'late', label: 'Late', patch: {} }),
      now: { variants: [{ id: 'late', label: 'Late', patch }] },
    })
    expect(put.status, said(put)).toBe(422)
  })
  it('that was stored by an older Moray is refused by name when a job opens on it', async () => {
    const app = await testApp()
    await expectWritten(app.post('/api/sheets', { sheet: file({}) }))
    const [version] = await publish(app, '/api/drives/from-elsewhere')
    await app.db.script('alter table drive_sheet disable trigger user')
    await app.db.query(
      `update drive_sheet set body = jsonb_set(body, '{variants,0,patch}', '{"measures":{"backlash-forward":[]}}') where id = 'from-elsewhere' and version = $1`,
      [version!.version],
    )
    await app.db.script('alter table drive_sheet enable trigger user')
    const r = await app.post('/api/jobs', {
      sheetId: 'from-elsewhere',
      variant: 'late',
      serial: 'X-1',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
    })
    expect(r.status, said(r)).toBe(422)
    expect(r.body.error.code).toBe('bad-sheet')
  })
})

describe('a table that comes in', () => {
  const table = (app: TestApp, csv: string) => app.post(`${DRIVE}/lists`, { list: 'groups', csv })
  async function begun() {
    const app = await testApp()
    await expectWritten(app.post('/api/drives', { name: 'Kobbe 40', family: 'outboard-fnr' }))
    return app
  }
  it('names the row that a table program shows, empty lines counted', async () => {
    const r = await table(await begun(), '\nid,name,count\n\na,Cover,1\n\n\nb,Ring,none\n')
    expect(r.body.error.fields.map((f) => f.path)).toEqual(['row 7, column count'])
    const twice = await table(await begun(), 'id,name,count\n\na,Cover,1\n\na,Ring,1\n')
    expect(twice.body.error.fields.map((f) => f.path)).toEqual(['row 5, column id'])
  })
  it('takes no comma for a decimal point where it may divide thousands', async () => {
    const app = await begun()
    const r = await table(app, 'id,name,count,torqueNm.min\na,Cover,1,"1,200"')
    expect(r.status, said(r)).toBe(422)
    expect(r.body.error.fields[0]).toMatchObject({ path: 'row 2, column torqueNm.min' })
    await expectWritten(table(app, 'id,name,count,torqueNm.min\na,Cover,1,"1,2"\nb,Ring,1,"0,250"'))
    expect((await draftOf(app)).groups!.map((f) => f.torqueNm!.min)).toEqual([1.2, 0.25])
  })
  it('has no more rows than a sheet that comes in', async () => {
    const rows = (n: number) => Array.from({ length: n }, (_, i) => `f${i},Screw ${i},1`).join('\n')
    const app = await begun()
    const r = await table(app, `id,name,count\n${rows(601)}`)
    expect(r.status, said(r)).toBe(422)
    expect(r.body.error.message).toContain('has 601 rows; at most 600')
    await expectWritten(table(app, `id,name,count\n${rows(600)}`))
  })
  it('of fifty thousand columns is refused in a word', async () => {
    const r = await table(await begun(), `id,name,count${',x'.repeat(50_000)}\na,Cover,1`)
    expect(r.status).toBe(422)
    expect(JSON.stringify(r.body).length).toBeLessThan(500)
  })
  it('names at most fifty problems', async () => {
    const r = await table(await begun(), `id,name,count\n${'a,Cover,none\n'.repeat(99)}`)
    expect(r.body.error.fields).toHaveLength(50)
  })
})
