import type { DriveEntry, SheetDraft } from '@moray/contract/replies'
import { figureAt } from '@moray/core/drives/own/body'
import { openEdges } from '@moray/core/job/unknown-edges'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const DRIVE = '/api/drives/kobbe-40'
const JOAR = { 'x-moray-person': 'joar' }
const said = (r: { body: unknown }) => JSON.stringify(r.body).slice(0, 500)
const message = (r: { body: unknown }) => (r.body as { error?: { message: string } }).error?.message ?? ''
const problems = (r: { body: unknown }) =>
  (r.body as { error: { fields: { path: string; message: string }[] } }).error.fields

async function written<T>(made: Promise<{ status: number; body: T }>): Promise<T> {
  const r = await made
  expect(r.status, said(r)).toBe(201)
  return r.body
}
async function begun() {
  const app = await testApp()
  await written(app.post('/api/drives', { name: 'Kobbe 40', family: 'outboard-fnr' }))
  return app
}
const draftOf = async (app: TestApp) => (await app.get<SheetDraft>(`${DRIVE}/draft`)).body
const rows = (app: TestApp, body: object, headers?: Record<string, string>) =>
  app.post<SheetDraft>(`${DRIVE}/rows/several`, { seen: [], ...body }, headers)
const undo = (app: TestApp, change: number, headers?: Record<string, string>) =>
  app.post<SheetDraft>(`${DRIVE}/undone`, { change }, headers)
const openJob = (app: TestApp, more: object = {}) =>
  written(
    app.post<{ id: string }>('/api/jobs', {
      sheetId: 'kobbe-40',
      serial: 'KB-1',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'whines',
      ...more,
    }),
  )

describe('rows put at once', () => {
  it('are all in the list, at their place, with what the manual prints and its page', async () => {
    const app = await begun()
    const first = (await draftOf(app)).groups![0]!.id
    const groups = [
      { id: 'cap', name: 'Cap screws', count: 6, torqueNm: { min: 20.3, max: 23 }, torqueUnit: 'inlb' },
      { id: 'ear', name: 'Ear nut', hand: 'left' },
    ]
    const { body } = await written(
      rows(app, {
        list: 'groups',
        at: 0,
        now: { groups },
        source: 'manual',
        where: '34',
        printed: [{ path: 'groups.cap.torqueNm', text: '180 to 204 in-lb' }],
      }),
    )
    expect(body.groups!.slice(0, 3).map((g) => g.id)).toEqual(['cap', 'ear', first])
    expect(body.sources!.at(-1)).toMatchObject({
      path: 'groups.cap.torqueNm',
      kind: 'manual',
      where: '34',
      as: '180 to 204 in-lb',
      by: 'Ylva Tangvik',
    })
  })
  it('are all of them refused when some are wrong, and every wrong one is named', async () => {
    const app = await begun()
    const before = await draftOf(app)
    const parts = Array.from({ length: 500 }, (_, i) => ({ id: `p-${i}`, name: `Part ${i}`, kind: 'ring' }))
    const bad = parts.map((p, i) =>
      i === 17
        ? { ...p, kind: 'cheese' }
        : i === 203
          ? { ...p, count: 0 }
          : i === 444
            ? { ...p, name: '' }
            : p,
    )
    const r = await rows(app, { list: 'parts', now: { parts: bad } })
    expect(r.status).toBe(422)
    expect(problems(r).map((p) => p.path)).toEqual([
      'now.parts[17].kind',
      'now.parts[203].count',
      'now.parts[444].name',
    ])
    expect(await draftOf(app)).toEqual(before)
    // an edge that leads nowhere is found only once the row stands among the others
    const lost = parts.map((p, i) => (i === 300 ? { ...p, after: { nothing: true } } : p))
    const nowhere = await rows(app, { list: 'parts', now: { parts: lost } })
    expect(problems(nowhere)[0]!.path).toBe('now.parts[300].after')
    expect((await written(rows(app, { list: 'parts', now: { parts } }))).body.parts.length).toBe(
      before.parts.length + 500,
    )
  })
  it('are not written over somebody else’s', async () => {
    const app = await begun()
    const tools = [{ id: 'puller', name: 'Puller' }]
    await written(rows(app, { list: 'tools', now: { tools } }))
    const late = { list: 'tools', now: { tools: [{ id: 'puller', name: 'Big puller' }] } }
    expect((await rows(app, late, JOAR)).status).toBe(409)
    const seen = [{ id: 'puller', was: JSON.stringify(tools[0]) }]
    expect((await rows(app, { ...late, seen }, JOAR)).status).toBe(201)
    // and two rows of the same id are one too many
    const twice = await rows(app, { list: 'tools', now: { tools: [AWL, AWL] } })
    expect([twice.status, problems(twice)[0]!.path]).toEqual([422, 'now.tools[1].id'])
  })
  it('go before another one, or to the end', async () => {
    const app = await begun()
    const move = (id: string, before: string) =>
      written(app.post<SheetDraft>(`${DRIVE}/rows/moved`, { list: 'parts', id, before }))
    const ids = (await draftOf(app)).parts.map((p) => p.id)
    const moved = await move(ids[3]!, ids[0]!)
    expect(moved.body.parts.slice(0, 2).map((p) => p.id)).toEqual([ids[3], ids[0]])
    expect((await move(ids[3]!, '')).body.parts.at(-1)!.id).toBe(ids[3])
    expect(
      (await app.post(`${DRIVE}/rows/moved`, { list: 'parts', id: ids[3], before: 'nothing' })).status,
    ).toBe(422)
  })
})
const AWL = { id: 'awl', name: 'Awl' }

describe('a change of a draft that is undone', () => {
  it('brings a struck-out row back to its place, with every edge that led to it', async () => {
    const app = await begun()
    const before = await draftOf(app)
    const ring = before.groups!.find((g) => g.id === 'big-ring')!
    const out = { list: 'groups', id: ring.id, was: JSON.stringify(ring) }
    const { body, changes } = await written(app.post<SheetDraft>(`${DRIVE}/rows`, out))
    const leadThere = ({ joints = [] }: SheetDraft['body']) =>
      joints.filter((j) => j.closedBy?.[ring.id]).map((j) => j.id)
    expect([leadThere(before).length > 0, leadThere(body)]).toEqual([true, []])
    expect(changes[0]).toMatchObject({ by: 'ylva', undone: false, rows: expect.arrayContaining([RING_OUT]) })
    const back = await written(undo(app, changes[0]!.id))
    expect(back.body).toEqual(before)
    expect(back.changes[0]).toMatchObject({ undoes: changes[0]!.id })
    // once; and what was undone is done again by undoing that
    expect(message(await undo(app, changes[0]!.id))).toContain('undone already')
    expect((await written(undo(app, back.changes[0]!.id))).body).toEqual(body)
  })
  it('leaves what others have typed since, and is refused where it is the very same row', async () => {
    const app = await begun()
    const put = (tool: { id: string; name: string }, was?: object, headers = {}) =>
      written(
        rows(
          app,
          {
            list: 'tools',
            now: { tools: [tool] },
            seen: was ? [{ id: tool.id, was: JSON.stringify(was) }] : [],
          },
          headers,
        ),
      )
    const mine = (await put(AWL)).changes[0]!.id
    const theirs = { id: 'puller', name: 'Puller' }
    await put(theirs, undefined, JOAR)
    expect((await written(undo(app, mine))).body.tools).toEqual([theirs])
    const again = (await put(AWL)).changes[0]!.id
    await put({ ...AWL, name: 'Bradawl' }, AWL, JOAR)
    const late = await undo(app, again)
    expect([late.status, message(late)]).toEqual([409, expect.stringContaining('Bradawl was changed again')])
    expect((await draftOf(app)).tools).toContainEqual({ ...AWL, name: 'Bradawl' })
  })
  it('is not to be had after publishing', async () => {
    const app = await begun()
    const change = (await written(rows(app, { list: 'tools', now: { tools: [AWL] } }))).changes[0]!.id
    await written(app.post(`${DRIVE}/versions`, {}))
    await written(app.post(`${DRIVE}/draft`, { anew: false }))
    expect((await undo(app, change)).status).toBe(404)
    expect((await app.get<SheetDraft>(`${DRIVE}/draft`)).changes).toEqual([])
  })
})
const RING_OUT = expect.objectContaining({ list: 'groups', did: 'out' })

describe('what was entered at the bench', () => {
  const FILL = 'spaces.case.fillMl'
  it('is used by the next job from the draft, marked until it is confirmed, and its sheet is called by both', async () => {
    const app = await begun()
    await written(app.post(`${DRIVE}/versions`, {}))
    const job = await openJob(app)
    await written(app.post(`/api/jobs/${job.id}/figures`, { path: FILL, text: '620', source: 'manual' }))
    expect((await app.job(job.id)).sheet).toMatchObject({ after: 1, oilCapacityMl: 620 })
    const next = await app.job((await openJob(app, { serial: 'KB-2' })).id)
    expect(next.sheet).toMatchObject({ after: 1, oilCapacityMl: 620 })
    expect(next.sheet.edition).toBeUndefined()
    // both work with the very same version
    expect(next.sheet.version).toBe((await app.job(job.id)).sheet.version)
    const bench = async () => (await draftOf(app)).sources!.filter((s) => s.atBench).map((s) => s.path)
    expect(await bench()).toEqual([FILL])
    await written(app.post(`${DRIVE}/checked`, { paths: [FILL] }))
    expect(await bench()).toEqual([])
    // published, the next job is on the edition itself
    await written(app.post(`${DRIVE}/versions`, {}))
    expect((await app.job((await openJob(app, { serial: 'KB-3' })).id)).sheet.edition).toBe(2)
  })
  it('on a variant is used by the next job of that variant alone', async () => {
    const app = await begun()
    for (const id of ['late', 'early'])
      await written(
        app.post(`${DRIVE}/rows`, {
          list: 'variants',
          id,
          was: '',
          now: { variants: [{ id, label: id, patch: {} }] },
        }),
      )
    await written(app.post(`${DRIVE}/versions`, {}))
    const job = await openJob(app, { variant: 'late' })
    await written(app.post(`/api/jobs/${job.id}/figures`, { path: FILL, text: '640', source: 'manual' }))
    const oil = async (variant: string) =>
      (await app.job((await openJob(app, { variant, serial: variant })).id)).sheet.oilCapacityMl
    expect([await oil('late'), await oil('early')]).toEqual([640, undefined])
  })
  it.each([
    ['yes', true],
    ['no', undefined],
  ] as const)(
    'an edge that nobody knew, seen as %s, is known to this job and the next one',
    async (seen, kept) => {
      const { app, job, row } = await withUnknown()
      const edge = EDGE(row)
      await written(app.post(`/api/jobs/${job}/edges`, { ...edge, seen }))
      const behind = (sheet: { graph: { joints?: { id: string; behind?: object }[] } }) =>
        (sheet.graph.joints!.find((j) => j.id === edge.row)!.behind as Record<string, unknown> | undefined)
          ?.case
      expect(behind((await app.job(job)).sheet)).toBe(kept)
      expect(behind((await app.job((await openJob(app, { serial: 'KB-9' })).id)).sheet)).toBe(kept)
      expect(figureAt(await draftOf(app), `joints.${edge.row}.behind.case`)).toBe(kept)
      // it is asked once
      expect((await app.post(`/api/jobs/${job}/edges`, { ...edge, seen })).status).toBe(422)
    },
  )
  it('an edge that cannot be told is not asked again on this job, and stays open on the sheet', async () => {
    const { app, job, row, question } = await withUnknown()
    const asked = async (id: string) => {
      const judged = await app.job(id)
      return judged.route.steps.flatMap((s) => openEdges(judged, s.id).map((e) => e.question))
    }
    expect(await asked(job)).toContain(question)
    await written(app.post(`/api/jobs/${job}/edges`, { ...EDGE(row), seen: 'cannot-tell' }))
    expect(await asked(job)).toEqual([])
    expect(await asked((await openJob(app, { serial: 'KB-9' })).id)).toContain(question)
  })
})
const EDGE = (row: string) => ({ list: 'joints', row, field: 'behind', to: 'case' })

/** A published sheet on which nobody knows whether the case's oil stands behind a joint; and a full rebuild that opens it. */
async function withUnknown() {
  const app = await begun()
  const joint = (await draftOf(app)).joints!.find((j) => j.kind === 'carrier')!
  const unknown = { ...joint, behind: { case: 'unknown' } }
  await written(
    rows(app, {
      list: 'joints',
      now: { joints: [unknown] },
      seen: [{ id: joint.id, was: JSON.stringify(joint) }],
    }),
  )
  await written(app.post(`${DRIVE}/versions`, {}))
  expect((await app.get<DriveEntry>(DRIVE)).edition).toBe(1)
  const job = (await openJob(app)).id
  const question = `${joint.name}: does the ${(await draftNameOfCase(app)) ?? ''} stand behind it?`
  return { app, job, row: joint.id, question }
}
async function draftNameOfCase(app: TestApp): Promise<string | undefined> {
  const sheet = await app.get<DriveEntry>(DRIVE)
  const name = sheet.graph.spaces?.find((s) => s.id === 'case')?.name
  return name && name.charAt(0).toLowerCase() + name.slice(1)
}
