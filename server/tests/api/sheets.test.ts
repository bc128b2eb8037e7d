import { caseTest } from '@moray/core/drives/graph/unit-facts'
import type { DriveEntry, SheetDraft, SheetVersion } from '@moray/contract/replies'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { same } from '@moray/core/drives/own/same'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { eventText } from '@moray/core/job/event-text'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const post = <T = SheetDraft>(app: TestApp, path: string, body: unknown, headers?: Record<string, string>) =>
  app.post<T>(path, body, headers)
const RUNA = { 'x-moray-person': 'runa' }
const NEW = { name: 'Kobbe 40', family: 'outboard-fnr', manual: 'Kobbe service book' }
const draftOf = (app: TestApp, id = 'kobbe-40') => app.get<SheetDraft>(`/api/drives/${id}/draft`)
const figure = (path: string, text: string, more: object = {}) => ({
  path,
  text,
  source: 'manual',
  was: '',
  ...more,
})
const set = (app: TestApp, path: string, text: string, more: object = {}) =>
  post(app, '/api/drives/kobbe-40/figures', figure(path, text, more))
const message = (r: { body: unknown }) => (r.body as { error?: { message: string } }).error?.message ?? ''
const plain = (v: unknown): unknown => JSON.parse(JSON.stringify(v))

async function begun() {
  const app = await testApp()
  const made = await post(app, '/api/drives', NEW)
  expect(made.status, JSON.stringify(made.body).slice(0, 300)).toBe(201)
  return app
}
const openJob = (app: TestApp) =>
  post<{ id: string; sheetVersion: number }>(app, '/api/jobs', {
    sheetId: 'kobbe-40',
    serial: 'KB-1',
    boat: 'Terna',
    owner: 'Vik',
    water: 'salt',
    complaint: 'whines',
  })

describe('a drive of one’s own', () => {
  it('is a name and a family, and a job opens on it', async () => {
    const app = await begun()
    const drives = await app.get<DriveEntry[]>('/api/drives')
    expect(drives.find((d) => d.id === 'kobbe-40')).toMatchObject({
      name: 'Kobbe 40',
      demo: false,
      drafted: true,
      version: 0,
    })
    const job = await openJob(app)
    expect(job.status, message(job)).toBe(201)
    const sheet = await app.get<DriveSheet>(`/api/drives/kobbe-40/versions/${job.body.sheetVersion}`)
    expect(sheet.edition).toBeUndefined()
    expect(sheet.lacks).toContain('measures.backlash-forward.window')
  })
  it('of a name that is there is refused, also when two type it at once', async () => {
    const app = await testApp()
    const both = await Promise.all([
      post(app, '/api/drives', NEW),
      post(app, '/api/drives', { ...NEW, family: 'belt-lower' }),
    ])
    expect(both.map((r) => r.status).sort()).toEqual([201, 409])
    expect(message(both.find((r) => r.status === 409)!)).toContain('a drive of that name')
    const demo = await post(app, '/api/drives', { name: 'Lomvi 90', family: 'outboard-fnr' })
    expect(demo.status).toBe(409)
  })
  it('in another script has an id all the same', async () => {
    const app = await testApp()
    const made = await post(app, '/api/drives', { name: 'Тюлень', family: 'belt-lower' })
    expect(made.status).toBe(201)
    expect(made.body.body.id).toMatch(/^drive-\d+$/)
  })
})

describe('a figure', () => {
  it('is kept in the unit and with the digits in which it was typed, with its source', async () => {
    const app = await begun()
    const { body } = await set(app, 'measures.backlash-forward.window', '.015 to .022', {
      unit: 'in',
      where: '31',
    })
    expect(figureAt(body.body, 'measures.backlash-forward.window')).toEqual({
      min: 0.015 * 25.4,
      max: 0.022 * 25.4,
    })
    expect(body.body.sources!.at(-1)).toEqual({
      path: 'measures.backlash-forward.window',
      kind: 'manual',
      as: '.015 to .022 in',
      where: '31',
      by: 'Ylva Tangvik',
      on: '2026-11-20',
    })
  })
  it.each([
    ['measures.backlash-forward.window', '.022 to .015', 'upside down'],
    ['measures.backlash-forward.window', '0.4', 'is one figure'],
    ['measures.backlash-forward.window', '38 to 56', 'Look at the unit'],
    ['gears.pinion.teeth', '12.5', 'not whole'],
    ['gears.pinion.teeth', '2', 'between 3 and 300'],
    ['bearings.driveshaft-lower.setting.newNm', '4 to 7 furlong', 'not understood'],
    ['adjusters.pinion.effect', 'sideways', 'one of into the mesh'],
    ['nowhere.at.all', '1', 'is no figure of this sheet'],
    ['constructor.prototype', '1', 'is no figure of this sheet'],
  ])('at %s as %s is refused at its place', async (path, text, why) => {
    const app = await begun()
    const before = await draftOf(app)
    const r = await set(app, path, text)
    expect(r.status).toBe(422)
    expect(message(r)).toContain(why)
    expect(await draftOf(app)).toEqual(before)
  })
  it('that somebody else has typed meanwhile is not written over', async () => {
    const app = await begun()
    await set(app, 'gears.pinion.teeth', '12', { source: 'counted' })
    const late = await set(app, 'gears.pinion.teeth', '13', { source: 'counted' })
    expect(late.status).toBe(409)
    expect(message(late)).toContain('Ylva Tangvik has entered 12 teeth')
    // the same again is no contradiction, and one that was seen may be changed
    expect((await set(app, 'gears.pinion.teeth', '12')).status).toBe(201)
    const seen = await set(app, 'gears.pinion.teeth', '13', { was: '12' })
    expect(figureAt(seen.body.body, 'gears.pinion.teeth')).toBe(13)
    const gone = await set(app, 'gears.pinion.teeth', '', { was: '13' })
    expect(figureAt(gone.body.body, 'gears.pinion.teeth')).toBeUndefined()
    expect(gone.body.body.sources!.some((s) => s.path === 'gears.pinion.teeth')).toBe(false)
  })
  it('of two browsers at once on two figures: both are there', async () => {
    const app = await begun()
    const all = await Promise.all([
      set(app, 'gears.pinion.teeth', '12'),
      set(app, 'gears.forward-gear.teeth', '26'),
      set(app, 'spaces.case.fillMl', '21 oz'),
    ])
    expect(all.map((r) => r.status)).toEqual([201, 201, 201])
    const { body } = await draftOf(app)
    expect([
      figureAt(body, 'gears.pinion.teeth'),
      figureAt(body, 'gears.forward-gear.teeth'),
      figureAt(body, 'spaces.case.fillMl'),
    ]).toEqual([12, 26, expect.closeTo(621, 0)])
  })
})

/** A row, written by somebody who sees the draft as it stands. */
async function row(app: TestApp, put: { list: string; id: string } & Record<string, unknown>) {
  const body = (await draftOf(app)).body as unknown as Record<string, { id: string }[] | undefined>
  const shown = body[put.list]?.find((r) => r.id === put.id)
  return post(app, '/api/drives/kobbe-40/rows', { was: shown ? JSON.stringify(shown) : '', ...put })
}
const AFT = { id: 'aft', name: 'Seal', at: 'shaft' }

describe('rows', () => {
  it('that the drive has not go with what only made sense with them', async () => {
    const app = await begun()
    const { body } = await row(app, { list: 'adjusters', id: 'reverse' })
    expect(body.body.adjusters.map((a) => a.id)).toEqual(['pinion', 'forward'])
    expect(body.body.parts.some((p) => p.id === 'reverse-shims')).toBe(false)
    const off = await row(app, { list: 'parts', id: 'carrier' })
    expect(off.body.body.parts.find((p) => p.id === 'reverse-gear')!.after).toEqual({ 'big-ring': 'assumed' })
    expect((await post(app, '/api/drives/kobbe-40/versions', {})).status).toBe(201)
  })
  it('that somebody else has changed meanwhile are not written over, nor taken out unseen', async () => {
    const app = await begun()
    const screws = { id: 'cover', name: 'Cover driver', serials: '6' }
    const put = (group: object, was: object | '') =>
      row(app, { list: 'tools', id: 'cover', now: { tools: [group] }, was: was && JSON.stringify(was) })
    expect((await put(screws, '')).status).toBe(201)
    const four = { ...screws, serials: '4' }
    expect((await put(four, screws)).status).toBe(201)
    const late = await put({ ...screws, substitute: 'a bar' }, screws)
    expect([late.status, message(late)]).toEqual([409, expect.stringContaining('changed this row meanwhile')])
    // two who add a row of the same name: the second is told, and one who says the same has said it
    expect((await put({ ...screws, serials: '8' }, '')).status).toBe(409)
    expect((await put(four, screws)).status).toBe(201)
    const out = { list: 'tools', id: 'cover' }
    expect((await row(app, { ...out, was: JSON.stringify(screws) })).status).toBe(409)
    expect((await draftOf(app)).body.tools).toEqual([four])
    expect((await row(app, out)).body.body.tools).toBeUndefined()
  })
  it('of seals, tools and the like are added, changed, and taken out again without a trace', async () => {
    const app = await begun()
    const further = (body: object) => post(app, '/api/drives/kobbe-40/rows', body)
    const seal = { id: 'aft', name: 'Aft seal', at: 'carrier', order: 2, springs: 'outward' }
    const before = (await draftOf(app)).body
    const add = { list: 'sealFits', id: 'aft', was: '', now: { sealFits: [seal] } }
    expect((await further(add)).body.body.sealFits).toEqual([seal])
    const deeper = { ...seal, depth: 'flush' }
    const put = { ...add, was: JSON.stringify(seal), now: { sealFits: [deeper] } }
    expect((await further(put)).body.body.sealFits).toEqual([deeper])
    // somebody who still sees the first one does not write over the second, nor takes it out unseen
    const late = await further({ ...put, now: { sealFits: [{ ...seal, depth: '2 mm in' }] } })
    expect([late.status, message(late)]).toEqual([409, expect.stringContaining('changed this row meanwhile')])
    expect((await further({ ...add, now: undefined, was: JSON.stringify(seal) })).status).toBe(409)
    const out = await further({ ...add, now: undefined, was: JSON.stringify(deeper) })
    expect(out.body.body).toEqual(before)
    expect((await further({ ...add, now: undefined })).status).toBe(422)
  })
  it.each([
    ['of another list', { now: { tools: [{ id: 'aft', name: 'Driver' }] } }, 'now.sealFits'],
    ['of another id', { now: { sealFits: [{ id: 'fore', name: 'Seal', at: 'shaft' }] } }, 'id'],
    ['without its place', { now: { sealFits: [{ id: 'aft', name: 'Seal' }] } }, 'now.sealFits[0].at'],
    [
      'two at once',
      { now: { sealFits: ['aft', 'fore'].map((id) => ({ id, name: 'Seal', at: 'shaft' })) } },
      'now.sealFits',
    ],
    ['seen as something that is no JSON', { was: '{', now: { sealFits: [AFT] } }, 'was'],
  ])('%s are refused at their place', async (_, more, path) => {
    const app = await begun()
    const r = await post<{ error: { fields: { path: string }[] } }>(app, '/api/drives/kobbe-40/rows', {
      list: 'sealFits',
      id: 'aft',
      was: '',
      ...more,
    })
    expect([r.status, r.body.error.fields[0]?.path]).toEqual([422, path])
    expect((await draftOf(app)).body.sealFits).toBeUndefined()
  })
  it('keep cautions and places beside them, and refuse to write over another’s', async () => {
    const app = await begun()
    const tool = { id: 'puller', name: 'Carrier puller' }
    await post(app, '/api/drives/kobbe-40/rows', {
      list: 'tools',
      id: 'puller',
      was: '',
      now: { tools: [tool] },
    })
    const remarks = (now: object, was: object) =>
      post(app, '/api/drives/kobbe-40/remarks', { now, was: JSON.stringify(was) })
    const first = { cautions: ['The pump housing is brittle'], plateAt: 'Port side of the bracket' }
    const unit = (await draftOf(app)).body.unit!
    expect((await remarks(first, {})).body.body).toMatchObject({ tools: [tool], unit: { ...unit, ...first } })
    expect((await remarks({ trimTab: 'stays off' }, {})).status).toBe(409)
    expect((await remarks({}, first)).body.body.unit).toEqual(unit)
  })
  it('are added, and refused where they cannot be', async () => {
    const app = await begun()
    const group = { id: 'cover', name: 'Cover screws', count: 6, torqueNm: { min: 8, max: 10 } }
    const put = (list: string, given: { id: string; [k: string]: unknown }, was: object | '' = '') =>
      row(app, { list, id: given.id, now: { [list]: [given] }, was: was && JSON.stringify(was) })
    expect((await put('groups', group)).body.body.groups).toContainEqual(group)
    const none = await put('groups', { ...group, count: 0 }, group)
    expect(none.status).toBe(422)
    const turned = await put('groups', { ...group, torqueNm: { min: 10, max: 8 } }, group)
    expect(message(turned)).toContain('upside down')
    const nowhere = await put('bearings', { id: 'aft', label: 'Aft ball', kind: 'ball', axis: 'no-shaft' })
    expect(message(nowhere)).toContain('"no-shaft" does not exist')
    const lost = await put('joints', { id: 'c', name: 'Cover', kind: 'cover', closedBy: { bolts: true } })
    expect(message(lost)).toContain('"bolts" does not exist')
    const nut = (await draftOf(app)).body.groups!.find((g) => g.id === 'propeller-nut')!
    const circle = await put('groups', { ...nut, after: { 'thrust-hub': true } }, nut)
    expect(message(circle)).toContain('none of them could come off')
  })
  it('come and go as a table, with what is wrong by row and column', async () => {
    const app = await begun()
    const table = (csv: string, list = 'groups') => post(app, '/api/drives/kobbe-40/lists', { list, csv })
    const csv =
      'id,name,count,torqueNm.min,torqueNm.max,hand,lock\ncover,"Cover screws, long",6,8,10,right,none\nring,Ring nut,1,190,,left,bent-ring'
    const { body, status } = await table(csv)
    expect(status).toBe(201)
    expect(body.body.groups).toEqual([
      {
        id: 'cover',
        name: 'Cover screws, long',
        count: 6,
        torqueNm: { min: 8, max: 10 },
        hand: 'right',
        lock: 'none',
      },
      { id: 'ring', name: 'Ring nut', count: 1, torqueNm: { min: 190 }, hand: 'left', lock: 'bent-ring' },
    ])
    // what goes out comes in as the same
    const out = await (await app.request('/api/drives/kobbe-40/lists/groups')).text()
    expect((await table(out)).body.body.groups).toEqual(body.body.groups)
    const parts = await (await app.request('/api/drives/kobbe-40/lists/parts')).text()
    const before = (await draftOf(app)).body.parts
    const back = (await table(parts, 'parts')).body.body.parts
    expect(back).toEqual(before)
    const bad = await table('id,name,count\ncover,Cover,many\nring,Ring,0\nring,Ring,1')
    expect(
      (bad.body as unknown as { error: { fields: { path: string }[] } }).error.fields.map((f) => f.path),
    ).toEqual(['row 2, column count', 'row 3, column count'])
    expect(message(await table('id,name,count\ncover,Cover,1\ncover,Cover,1'))).toContain('row 3, column id')
    expect(message(await table('id,name,count,colour\ncover,Cover,1,red'))).toContain(
      '"colour" is no column here',
    )
    expect((await draftOf(app)).body.groups).toEqual(body.body.groups)
  })
})

describe('versions', () => {
  it('are published one after the other, compared, and adopted by a job on purpose', async () => {
    const app = await begun()
    await set(app, 'measures.backlash-forward.window', '.4 to .6', { unit: 'mm' })
    const first = await post<SheetVersion[]>(app, '/api/drives/kobbe-40/versions', { note: 'first' })
    expect(first.body).toMatchObject([{ edition: 1, note: 'first', by: 'Ylva Tangvik' }])
    expect((await app.request('/api/drives/kobbe-40/draft')).status).toBe(404)
    const job = await openJob(app)
    expect((await post(app, '/api/drives/kobbe-40/draft', { anew: false })).status).toBe(201)
    expect(message(await post(app, '/api/drives/kobbe-40/versions', {}))).toContain('says the same')
    await set(app, 'measures.backlash-forward.window', '.45 to .6', {
      unit: 'mm',
      was: JSON.stringify({ min: 0.4, max: 0.6 }),
    })
    await post(app, '/api/drives/kobbe-40/versions', { note: 'narrower' })
    const versions = await app.get<SheetVersion[]>('/api/drives/kobbe-40/versions')
    expect(versions.map((v) => v.edition)).toEqual([2, 1])
    // the job stays where it was until somebody wants it
    const before = await app.get<{ sheetVersion: number; newestSheetVersion: number }>(
      `/api/jobs/${job.body.id}`,
    )
    expect(before.sheetVersion).toBe(job.body.sheetVersion)
    expect(before.newestSheetVersion).toBe(versions[0]!.version)
    const on = await post<{ sheetVersion: number }>(app, `/api/jobs/${job.body.id}/sheet`, {
      version: versions[0]!.version,
      reason: 'the book was misread',
    })
    expect(on.status, message(on)).toBe(201)
    expect(on.body.sheetVersion).toBe(versions[0]!.version)
    const events = await app.get<Parameters<typeof eventText>[0][]>(`/api/jobs/${job.body.id}/events`)
    expect(events.map((e) => eventText(e))).toContain(
      'The job now uses version 2 of its sheet, with 1 change (the book was misread)',
    )
    const back = await post(app, `/api/jobs/${job.body.id}/sheet`, {
      version: versions[1]!.version,
      reason: 'back again',
    })
    expect(back.status).toBe(422)
  })
  it('never change, and two who publish at once publish once', async () => {
    const app = await begun()
    const both = await Promise.all([1, 2].map(() => post(app, '/api/drives/kobbe-40/versions', {})))
    expect(both.map((r) => r.status).sort()).toEqual([201, 404])
    await expect(app.db.query("update drive_sheet set note = 'x' where id = 'kobbe-40'")).rejects.toThrow()
    await expect(app.db.query("delete from drive_sheet where id = 'kobbe-40'")).rejects.toThrow()
  })
  it('with what cannot be are not published, and say where', async () => {
    const app = await begun()
    await set(app, 'adjusters.forward.effect', '-1')
    await set(app, 'adjusters.forward.rules.backlash-forward', '1.2')
    const r = await post(app, '/api/drives/kobbe-40/versions', {})
    expect(r.status).toBe(422)
    expect(message(r)).toContain('One of the two is upside down')
    expect((await openJob(app)).status).toBe(422)
  })
  it('without a place for what a job holds are not adopted', async () => {
    const app = await begun()
    await post(app, '/api/drives/kobbe-40/versions', {})
    const { body } = await openJob(app)
    await post(app, `/api/jobs/${body.id}/stacks`, {
      location: 'reverse',
      unit: 'mm',
      pieces: [{ text: '.5' }],
    })
    await post(app, '/api/drives/kobbe-40/draft', { anew: false })
    await row(app, { list: 'adjusters', id: 'reverse' })
    await post(app, '/api/drives/kobbe-40/versions', {})
    const [newest] = await app.get<SheetVersion[]>('/api/drives/kobbe-40/versions')
    const on = await post(app, `/api/jobs/${body.id}/sheet`, { version: newest!.version, reason: 'because' })
    expect(on.status).toBe(422)
    expect(message(on)).toContain('has no place for what this job holds already: stack reverse')
  })
})

describe('a figure that a job misses', () => {
  it('is entered at the bench: the job goes on with it, and the draft keeps it', async () => {
    const app = await begun()
    const job = (await openJob(app)).body
    const add = (path: string, text: string) =>
      post<{ sheetVersion: number; error?: object }>(app, `/api/jobs/${job.id}/figures`, {
        path,
        text,
        source: 'manual',
        where: '12',
      })
    const r = await add('tests.case.workKpa', '10psi')
    expect(r.status, message(r)).toBe(201)
    expect(r.body.sheetVersion).toBe(job.sheetVersion + 1)
    const { body } = await draftOf(app)
    expect(figureAt(body, 'tests.case.workKpa')).toBeCloseTo(68.95, 2)
    expect(body.sources!.at(-1)).toMatchObject({ as: '10psi', where: '12', by: 'Ylva Tangvik' })
    expect(message(await add('tests.case.workKpa', '12psi'))).toContain('stands on the sheet already')
    // with all of them the pressure test is a test
    for (const [path, text] of [
      ['tests.case.maxKpa', '15psi'],
      ['tests.case.holdMin', '10'],
      ['tests.case.allowedMlPerMin', '.2'],
      ['spaces.case.fillMl', '600'],
    ] as const)
      expect((await add(path, text)).status).toBe(201)
    const sheet = await app.get<DriveSheet>(`/api/drives/kobbe-40/versions/${job.sheetVersion + 5}`)
    expect(caseTest(sheet.graph)).toMatchObject({ holdMin: 10, volumeMl: 600 })
  })
  it('keeps a reading without a window until the window is there', async () => {
    const app = await begun()
    const job = (await openJob(app)).body
    const read = await post(app, `/api/jobs/${job.id}/readings`, {
      build: 0,
      measure: 'backlash-forward',
      text: '.5',
      unit: 'mm',
      gaugeId: 'g05',
    })
    expect(read.status, message(read)).toBe(201)
    const depth = await post(app, `/api/jobs/${job.id}/readings`, {
      build: 0,
      measure: 'depth',
      text: '12',
      unit: 'mm',
      gaugeId: 'g01',
    })
    expect(message(depth)).toContain('does not say yet how it is measured')
    const judged = async () =>
      (await app.job(job.id)).builds[0]!.assessment.measures['backlash-forward']!.judgement!.verdict
    expect(await judged()).toBe('no-window')
    await post(app, `/api/jobs/${job.id}/figures`, {
      path: 'measures.backlash-forward.window',
      text: '.3 to .7',
      unit: 'mm',
      source: 'manual',
    })
    expect(await judged()).toBe('in')
  })
  it('is not needed to grade a part: what was measured is kept, and held against nothing', async () => {
    const app = await begun()
    const job = (await openJob(app)).body
    const grade = { part: 'prop-shaft', grade: 'keep', reason: 'looked at', seen: [], measured: '0.30 mm' }
    const r = await post(app, `/api/jobs/${job.id}/grades`, grade)
    expect(r.status, message(r)).toBe(201)
    expect((await app.job(job.id)).grades.at(-1)).toMatchObject({ measuredMm: 0.3, proposed: null })
    await post(app, `/api/jobs/${job.id}/figures`, {
      path: 'runoutLimits.zone-1.tirMm',
      text: '.05 mm',
      source: 'manual',
    })
    await post(app, `/api/jobs/${job.id}/grades`, { ...grade, zone: 'Seal land' })
    expect((await app.job(job.id)).grades.at(-1)!.proposed).toBe('replace')
  })
  it('of a demo sheet is kept in a draft of its own', async () => {
    const app = await testApp()
    const r = await post(app, '/api/jobs/lomvi-skarv/figures', {
      path: 'spaces.case.fillMl',
      text: '600',
      source: 'manual',
    })
    expect(message(r)).toContain('stands on the sheet already')
  })
})

describe('a sheet from elsewhere', () => {
  const file = (): SheetBody => ({
    ...(plain(bodyOf(demoSheets[0]!)) as SheetBody),
    id: 'from-elsewhere',
    name: 'From elsewhere',
  })
  it('comes in as a draft, every figure not checked, until it is', async () => {
    const app = await testApp()
    const { body, status } = await post(app, '/api/sheets', { sheet: file() })
    expect(status, message({ body })).toBe(201)
    expect(body.body.demo).toBeUndefined()
    expect(body.body.sources!.length).toBeGreaterThan(10)
    expect(body.body.sources!.every((s) => s.unchecked)).toBe(true)
    const paths = body.body.sources!.map((s) => s.path)
    const checked = await post(app, '/api/drives/from-elsewhere/checked', { paths: paths.slice(0, 3) })
    expect(checked.body.body.sources!.filter((s) => s.unchecked)).toHaveLength(paths.length - 3)
  })
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    '%s goes out, comes in, and is the same',
    async (id, sheet) => {
      const app = await testApp()
      const out = await app.get<SheetBody>(`/api/drives/${id}/versions/${sheet.version}/file`)
      const { body, status } = await post(app, '/api/sheets', { sheet: out })
      expect(status, message({ body })).toBe(201)
      const { sources: _s, version: _v, demo: _d, ...back } = body.body
      const { sources: _s2, version: _v2, demo: _d2, ...sent } = out
      expect(same(back, sent)).toBe(true)
    },
  )
  it('over a draft that is open only when that may go', async () => {
    const app = await testApp()
    await post(app, '/api/sheets', { sheet: file() })
    const again = await post(app, '/api/sheets', { sheet: { ...file(), summary: 'theirs' } })
    expect(again.status).toBe(409)
    expect(
      (await post(app, '/api/sheets', { sheet: { ...file(), summary: 'theirs' }, anew: true })).body.body
        .summary,
    ).toBe('theirs')
  })
  it.each([
    ['another format', { ...file(), format: 5 }, 'sheet.format'],
    ['a field that no sheet has', { ...file(), colour: 'red' }, 'sheet.colour'],
    ['no name', { ...file(), name: '' }, 'sheet.name'],
    ['markup in its name is only text', { ...file(), name: '<img src=x onerror=alert(1)>' }, ''],
    [
      'a window upside down',
      { ...file(), measures: file().measures.map((m) => ({ ...m, window: { min: 2, max: 1 } })) },
      'upside down',
    ],
    ['a shaft that is not there', { ...file(), axes: [] }, 'does not exist'],
    [
      'parts that hold one another',
      {
        ...file(),
        parts: [
          ...file().parts,
          { id: 'a', name: 'A', kind: 'ring', after: { b: true } },
          { id: 'b', name: 'B', kind: 'ring', after: { a: true } },
        ],
      },
      'none of them could come off',
    ],
    ['teeth that cannot be', { ...file(), gears: file().gears.map((g) => ({ ...g, teeth: 2 })) }, 'teeth'],
  ])('with %s is refused whole, by its place', async (_, sheet, why) => {
    const app = await testApp()
    const r = await post(app, '/api/sheets', { sheet })
    if (why === '') return expect(r.status).toBe(201)
    expect(r.status).toBe(422)
    expect(message(r)).toContain(why)
    expect((await app.request('/api/drives/from-elsewhere/draft')).status).toBe(404)
  })
  it('of twenty megabytes is refused before it is read', async () => {
    const app = await testApp()
    const r = await app.request('/api/sheets', {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...RUNA },
      body: JSON.stringify({ sheet: { ...file(), summary: 'x'.repeat(20_000_000) } }),
    })
    expect(r.status).toBe(413)
  })
})
