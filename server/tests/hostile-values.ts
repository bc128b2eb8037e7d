import { writtenEndpoints } from '@moray/contract/bodies'
import type { AnyEndpoint } from '@moray/contract/endpoint'
import type { FieldDescription } from '@moray/contract/fields/describe'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { demoSheets } from '@moray/core/drives/sheets/index'

/** What is sent to the server by somebody who means it no good: for the tests, and for `npm run attack`. */

/** A body that each write would take, as far as anybody knows without looking at the job. */
const FIGURES = {
  resolution: 0.01,
  mpe: 0.01,
  repeatability: 0.01,
  perTurnMm: 1,
  intervalMonths: 12,
  masters: [{ label: 'x', lengthMm: 40 }],
}
export const GOOD: Record<string, object> = {
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
  markPattern: {
    build: 0,
    mesh: 'forward',
    flank: 'drive',
    place: 1,
    outline: [-0.2, -0.2, 0.3, -0.2, 0.2, 0.3],
    note: 'x',
    reason: 'because',
  },
  acceptBuild: { build: 0, reason: 'because' },
  withdrawAcceptance: { build: 0, reason: 'because' },
  closeStep: { step: 'receive', answers: { 'in.opened': 'no' }, departure: { reason: 'because' } },
  correctStep: { reason: 'because', answers: { 'in.opened': 'no' }, departure: { reason: 'because' } },
  takeBack: { reason: 'because' },
  undoStep: { reason: 'because' },
  acceptLine: { line: 'space-empty case', reason: 'because' },
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
  setCopies: { nightly: true },
  makeCopy: { wanted: true },
  bringBackCopy: { name: 'moray-2026-11-30-020000.zip' },
  removeOwner: { owner: 'Nobody at all', reason: 'asked for it' },
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
    path: 'spaces.case.fillMl',
    text: '600',
    unit: 'mm',
    source: 'manual',
    where: '12',
    was: '620',
  },
  putRow: {
    list: 'groups',
    id: 'cover',
    at: 0,
    now: {
      groups: [
        {
          id: 'cover',
          name: 'Cover screws',
          count: 4,
          after: { cap: true },
          pieces: [{ id: 'washer', name: 'Washer' }],
          torqueNm: { min: 40 },
        },
      ],
    },
    was: '',
  },
  putRows: {
    list: 'groups',
    at: 0,
    now: { groups: [{ id: 'cover', name: 'Cover screws', count: 4, torqueNm: { min: 40 } }] },
    seen: [{ id: 'cover', was: '{"id":"cover"}' }],
    source: 'manual',
    where: '34',
    printed: [{ path: 'groups.cover.torqueNm', text: '40 Nm' }],
  },
  moveRow: { list: 'parts', id: 'carrier', before: 'reverse-gear' },
  undoChange: { change: 1 },
  settleEdge: { list: 'joints', row: 'cover', field: 'behind', to: 'case', seen: 'yes' },
  putRemarks: { now: { cautions: ['x'], trimTab: 'x', partner: 'lomvi-90', plateAt: 'x' }, was: '{}' },
  checkFigures: { paths: ['spaces.case.fillMl'] },
  publishSheet: { note: 'x' },
  importSheet: { anew: true, sheet: bodyOf(demoSheets[0]!) },
  importList: { list: 'groups', csv: 'id,name,count\ncover,Cover screws,4' },
  addFigure: { path: 'spaces.case.fillMl', text: '600', unit: 'mm', source: 'manual', where: '12' },
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
export const HOSTILE = [
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

export const writes = writtenEndpoints.map(({ name, endpoint, body }) => [name, endpoint, body] as const)

/** Every field of a body, those inside objects and of the first of a list as well. */
export const pathsOf = (fields: FieldDescription[]): string[][] =>
  fields.flatMap((f) => [
    [f.name],
    ...pathsOf(f.fields ?? []).map((p) => [f.name, ...(f.type === 'objects' ? ['0'] : []), ...p]),
  ])
/** The body with another value at that field. */
export function put(body: unknown, [at, ...rest]: string[], value: unknown): unknown {
  if (at === undefined) return value
  if (Array.isArray(body)) return body.map((x, i) => (String(i) === at ? put(x, rest, value) : x))
  const own = (body ?? {}) as Record<string, unknown>
  return { ...own, [at]: put(own[at], rest, value) }
}
export const pathOf = (e: AnyEndpoint) =>
  e.path.replace(
    /:(\w+)/g,
    (_, n: string) => SUBJECTS.find(([start]) => e.path.startsWith(start))?.[1] ?? PARAMS[n]!,
  )
