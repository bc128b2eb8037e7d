import { endpoints } from '@moray/contract/endpoints'
import type { AnyEndpoint } from '@moray/contract/endpoint'
import { describeClass, type FieldDescription } from '@moray/contract/fields/describe'
import type { JobPage } from '@moray/contract/replies'
import { bodyOf } from '@moray/core/drives/own/body'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { beforeAll, describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

let app: TestApp
beforeAll(async () => {
  app = await testApp()
})

const RUNA = 'runa'
/** A body that each write would take, as far as anybody knows without looking at the job. */
const FIGURES = {
  resolution: 0.01,
  mpe: 0.01,
  repeatability: 0.01,
  perTurnMm: 1,
  intervalMonths: 12,
  masters: [{ label: 'x', lengthMm: 40 }],
}
const GOOD: Record<string, object> = {
  addPerson: { name: 'Ask Lien', role: 'technician' },
  changePerson: { name: 'Ask Lien', role: 'technician', retired: false },
  openJob: {
    sheetId: 'teist-6',
    serial: 'S',
    boat: 'B',
    owner: 'O',
    water: 'salt',
    complaint: 'whine',
    hours: 3,
    stand: 'Stand 1',
    scope: { usual: 'own', targets: ['prop-seal'], mounted: true },
  },
  enterStack: { location: 'pinion', unit: 'mm', pieces: [{ text: '.40' }], confirmed: true, reason: 'again' },
  takeReading: {
    build: 0,
    measure: 'backlash-forward',
    text: '.6',
    unit: 'mm',
    gaugeId: 'g05',
    masterId: 'm50',
    clockDeg: 10,
    note: 'x',
    confirmed: true,
  },
  supersedeReading: { reason: 'slipped', text: '.5', unit: 'mm' },
  takePlan: { fromBuild: 0, stacks: [{ location: 'pinion', pieces: [{ id: 'ds001' }] }] },
  acceptBuild: { build: 0, reason: 'because' },
  withdrawAcceptance: { build: 0, reason: 'because' },
  closeStep: { step: 'receive', answers: { 'in.opened': 'no' }, departure: { reason: 'because' } },
  correctStep: { reason: 'because', answers: { 'in.opened': 'no' }, departure: { reason: 'because' } },
  takeBack: { reason: 'because' },
  agree: { step: 'receive', reason: 'because' },
  seeRoute: { hash: '0123456789abcdef' },
  keepDraft: { step: 'receive', answers: { 'in.struck': 'no' } },
  layInRow: { part: 'pinion', name: 'x', orientation: 'x', ink: 'x', stack: 'x', note: 'x', confirmed: true },
  orderRow: { ids: ['1'] },
  changeRowPart: { act: 'mark', renewed: true, reason: 'because', orientation: 'x', ink: 'x', note: 'x' },
  gradePart: {
    part: 'pinion',
    grade: 'keep',
    reason: 'because',
    seen: ['chip'],
    measured: '.1',
    zone: 'seal',
  },
  sayFinding: { finding: 'metal', state: 'there' },
  sayOutcome: { cause: 'shaft-bent', note: 'x' },
  makeEstimate: { rate: 1, consumables: 1, extraHours: 1 },
  recordApproval: { estimateId: 1, choice: 'stop', customer: 'The owner', how: 'in writing' },
  chooseJobSchool: { school: 'filling', choice: 'stand', reason: 'because' },
  correctJob: {
    serial: 'x',
    boat: 'x',
    owner: 'x',
    water: 'salt',
    hours: 1,
    complaint: 'whine',
    reason: 'because',
  },
  changeLife: { act: 'hold', reason: 'because', stand: 'Stand 1', step: 'receive' },
  setScope: { usual: 'own', targets: ['prop-seals'], mounted: true, reason: 'because' },
  addOpenItem: { text: 'a plug' },
  closeOpenItem: { how: 'because' },
  openLoop: { why: 'leak', targets: ['prop-seals'], note: 'a drip' },
  addCase: { sheetId: 'alke-2-upper', serial: 'x' },
  moveJob: { sheetId: 'teist-6', variant: 'x', reason: 'because' },
  chooseShopSchool: { school: 'filling', choice: 'stand', reason: 'x' },
  setShopRules: {
    departuresNeedLead: false,
    rate: 1,
    consumables: 1,
    currency: 'kr',
    heading: 'x',
    stands: ['Stand 1', 'Stand 2', 'Stand 3'],
  },
  setLikelihood: { finding: 'metal', cause: 'shaft-bent', likelihood: 0.5, reason: 'because' },
  leaveDemo: { confirm: 'leave the demo' },
  addLine: { text: '.5', unit: 'mm', count: 1, place: 'x' },
  addPieces: { pieces: 1, reason: 'x' },
  countLine: { count: 1, reason: 'because' },
  correctThickness: { text: '.5', unit: 'mm', reason: 'because' },
  addGauge: { kind: 'depth-gauge', name: 'x', figures: FIGURES, calibratedOn: '2026-01-01' },
  changeGauge: { figures: FIGURES, reason: 'because' },
  calibrateGauge: { on: '2026-01-01', note: 'because' },
  retireGauge: { retired: true, reason: 'because' },
  addDrive: { name: 'Kobbe 40', family: 'outboard-fnr', manual: 'x' },
  beginDraft: { anew: true },
  setFigure: {
    path: 'oilCapacityMl',
    text: '600',
    unit: 'mm',
    source: 'manual',
    where: '12',
    was: '620',
  },
  putRow: {
    list: 'fasteners',
    id: 'cover',
    at: 0,
    fastener: { id: 'cover', name: 'Cover screws', count: 4 },
    was: '',
  },
  putFurther: {
    list: 'propellers',
    id: 'aft',
    was: '',
    now: {
      propellers: [{ id: 'aft', name: 'x', held: 'tab-washer', torqueNm: { min: 40 }, washers: ['x'] }],
    },
  },
  putRemarks: { now: { cautions: ['x'], trimTab: 'x', partner: 'lomvi-90', plateAt: 'x' }, was: '{}' },
  checkFigures: { paths: ['oilCapacityMl'] },
  publishSheet: { note: 'x' },
  importSheet: { anew: true, sheet: bodyOf(demoSheets[0]!) },
  importList: { list: 'fasteners', csv: 'id,name,count\ncover,Cover screws,4' },
  addFigure: { path: 'oilCapacityMl', text: '600', unit: 'mm', source: 'manual', where: '12' },
  beginPairing: { wanted: true },
  pairDevice: { code: 'ABCD', name: 'Tablet' },
  revokeDevice: { reason: 'because' },
  setCode: { code: '' },
  sayCode: { code: '1234' },
  adoptSheet: { version: 1, reason: 'because' },
}
/** Whom or what a path is about, where it is no job. */
const SUBJECTS: [start: string, id: string][] = [
  ['/api/drawer', 's001'],
  ['/api/gauges', 'g01'],
  ['/api/people', 'joar'],
  ['/api/drives', 'lomvi-90'],
]
const PARAMS: Record<string, string> = { id: 'lomvi-skarv', reading: '1', closing: '1', part: '1', item: '1' }

/** Values that nobody means, as JSON text. */
const HOSTILE = [
  'null',
  'true',
  '{}',
  '[]',
  '""',
  '"   "',
  '"\\u0000"',
  '"a\\u0000b"',
  '"\\ud800"',
  '"a\\udc00"',
  '"\\u202etxt"',
  '"\\u200b\\u200b\\u200b"',
  '"\\u0007bell"',
  '1e308',
  '-1e308',
  '1e-308',
  '-1',
  '1.5',
  '9007199254740993',
  '"1e309 mm"',
  '{"constructor":{"a":1}}',
  '{"__proto__":{"a":1}}',
  '[null]',
  '[{"constructor":{"a":1}}]',
  '["\\u0000","\\ud800"]',
  `${'['.repeat(3000)}${']'.repeat(3000)}`,
  `"${'x'.repeat(20_000)}"`,
  '"\'; drop table event; --"',
  '{"a":"\\u0000"}',
  '{"toString":1,"valueOf":2}',
]

const writes = Object.entries(endpoints as Record<string, AnyEndpoint>).flatMap(([name, e]) =>
  e.body ? [[name, e, e.body] as const] : [],
)

async function send(path: string, body: string, person = RUNA) {
  const response = await app.request(path, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'x-moray-person': person },
    body,
  })
  return { status: response.status, text: await response.text() }
}
/** Every field of a body, those inside objects and of the first of a list as well. */
const pathsOf = (fields: FieldDescription[]): string[][] =>
  fields.flatMap((f) => [
    [f.name],
    ...pathsOf(f.fields ?? []).map((p) => [f.name, ...(f.type === 'objects' ? ['0'] : []), ...p]),
  ])
/** The body with another value at that field. */
function put(body: unknown, [at, ...rest]: string[], value: unknown): unknown {
  if (at === undefined) return value
  if (Array.isArray(body)) return body.map((x, i) => (String(i) === at ? put(x, rest, value) : x))
  const own = (body ?? {}) as Record<string, unknown>
  return { ...own, [at]: put(own[at], rest, value) }
}
const pathOf = (e: AnyEndpoint) =>
  e.path.replace(
    /:(\w+)/g,
    (_, n: string) => SUBJECTS.find(([start]) => e.path.startsWith(start))?.[1] ?? PARAMS[n]!,
  )

/** Every value for every field; of a body with hundreds of fields each gets some, and all of them come. */
const FEW = 2
const valuesFor = (field: string[], fields: number) =>
  fields <= 60
    ? HOSTILE
    : HOSTILE.filter(
        (_, i) => (i + field.join('.').length + field.length) % Math.ceil(HOSTILE.length / FEW) === 0,
      )

describe('what nobody means', () => {
  it('knows a body for every write there is', () => {
    expect(Object.keys(GOOD).sort()).toEqual(writes.map(([name]) => name).sort())
    expect(HOSTILE.length).toBeGreaterThan(25)
  })
  it.each(writes)(
    'is refused or kept by %s, field by field, and never an error of ours',
    async (name, endpoint, body) => {
      const good = GOOD[name]!
      const tried: string[] = []
      for (const field of pathsOf(describeClass(body)))
        for (const value of valuesFor(field, pathsOf(describeClass(body)).length)) {
          // leaving the demo would end it for the tests that follow
          if (name === 'leaveDemo' && value === JSON.stringify('leave the demo')) continue
          const text = JSON.stringify(put(good, field, '@@')).replace('"@@"', () => value)
          const { status, text: reply } = await send(pathOf(endpoint), text)
          expect(
            status,
            `${name}.${field.join('.')} = ${value.slice(0, 60)}: ${reply.slice(0, 200)}`,
          ).toBeLessThan(500)
          tried.push(field.join('.'))
        }
      expect(tried.length).toBeGreaterThanOrEqual(HOSTILE.length - 1)
    },
  )
  it.each(['constructor', '__proto__', 'toString', 'hasOwnProperty', '', 'a.b', '\u0000'])(
    'as a key is refused by name: %j',
    async (key) => {
      const body = `{"pieces":1,${JSON.stringify(key)}:{"a":1}}`
      const { status, text } = await send('/api/drawer/s001/add', body)
      expect(status).toBe(422)
      expect(text).toContain('is not a field of this request')
    },
  )
  it.each([
    ['%00', 404],
    ['%ED%A0%80', 404],
    ['..%2f..%2fetc', 404],
    ['1e3', 404],
    ['0x10', 404],
    ['a'.repeat(5000), 404],
    ['%F0%9F%90%9F', 404],
    ['a b', 404],
  ])('as an id is not there: %s', async (id, status) => {
    for (const path of [
      `/api/jobs/${id}`,
      `/api/files/${id}`,
      `/api/drives/${id}`,
      `/api/drawer/${id}/movements`,
      `/api/jobs/${id}/events`,
    ])
      expect((await app.request(path)).status, path).toBe(status)
    for (const path of [`/api/jobs/lomvi-skarv/row/${id}`, `/api/jobs/lomvi-skarv/readings/${id}/supersede`])
      expect((await send(path, '{"act":"fit","reason":"because"}')).status, path).toBeGreaterThanOrEqual(404)
  })
  it.each(['%00', '%ED%A0%80', 'x'.repeat(200), "'%20or%201=1", '%25'])(
    'as a search is refused or finds nothing: %s',
    async (text) => {
      for (const path of [
        `/api/jobs?search=${text}`,
        `/api/units?search=${text}`,
        `/api/jobs?before=${text}`,
        `/api/jobs?state=${text}`,
        `/api/jobs/lomvi-skarv/events?after=${text}`,
        `/api/live?after=${text}`,
      ])
        expect((await app.request(path)).status, path).toBeLessThan(500)
    },
  )
  it('is refused in time in proportion: keys without end, lists without end, nesting without end', async () => {
    const many = `{${Array.from({ length: 9000 }, (_, i) => `"k${i}":1`).join(',')}}`
    const nulls = `{"stacks":[${Array(40_000).fill('null').join(',')}],"fromBuild":0}`
    const deep = `{"answers":${'{"a":'.repeat(20_000)}1${'}'.repeat(20_000)},"step":"receive"}`
    for (const [path, body] of [
      ['/api/drawer/s001/add', many],
      ['/api/jobs/lomvi-skarv/trials', nulls],
      ['/api/jobs/lomvi-skarv/steps', deep],
    ] as const) {
      const started = performance.now()
      const { status, text } = await send(path, body)
      expect(status).toBe(422)
      expect(text.length, path).toBeLessThan(20_000)
      expect((JSON.parse(text) as { error: { fields: unknown[] } }).error.fields.length).toBeLessThanOrEqual(
        50,
      )
      expect(performance.now() - started, path).toBeLessThan(2000)
    }
  })
  it('blank texts make no job, no reason and no stand', async () => {
    const blank = {
      sheetId: 'teist-6',
      serial: ' ',
      boat: ' ',
      owner: '\u200b',
      water: 'salt',
      complaint: '   ',
    }
    const { status, text } = await send('/api/jobs', JSON.stringify(blank))
    expect(status).toBe(422)
    const { fields } = (JSON.parse(text) as { error: { fields: { path: string }[] } }).error
    expect(fields.map((f) => f.path)).toEqual(['serial', 'boat', 'owner', 'complaint'])
    expect(
      (await send('/api/shop/rules', JSON.stringify({ ...GOOD.setShopRules, stands: [' '] }))).status,
    ).toBe(422)
    expect(
      (
        await send(
          '/api/jobs/rordrum/grades',
          JSON.stringify({ part: 'input-carrier', grade: 'keep', reason: '   ' }),
        )
      ).status,
    ).toBe(422)
  })
  it('figures that cannot be are refused, confirmed or not', async () => {
    const grade = (measured: string) =>
      send(
        '/api/jobs/rordrum/grades',
        JSON.stringify({ part: 'input-carrier', grade: 'keep', reason: 'because', measured }),
      )
    expect((await grade('-5')).status).toBe(422)
    expect((await grade('1e60')).status).toBe(422)
    expect((await grade('.04')).status).toBe(201)
    const stack = (text: string) =>
      send(
        '/api/jobs/lomvi-skarv/stacks',
        JSON.stringify({
          location: 'pinion',
          unit: 'mm',
          pieces: [{ text }],
          confirmed: true,
          reason: 'again',
        }),
      )
    expect((await stack('99999999')).status).toBe(422)
    expect(
      (await send('/api/jobs/sivkrok/steps', '{"step":"drain","answers":{"drain.ml":1e308}}')).status,
    ).toBe(422)
  })
  it('leaves the shop as it was, and every error is said in the one body', async () => {
    const { jobs } = await app.get<JobPage>('/api/jobs')
    expect(jobs.length).toBeGreaterThanOrEqual(12)
    expect(app.logged).toEqual([])
  })
})
