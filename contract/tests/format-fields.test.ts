import { existsSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { factsOfClass, type Class } from '../src/fields/describe.ts'
import { SheetFile } from '../src/sheet/sheet-file.ts'

const CORE = 'core/src/drives/'
const WEB = 'web/src/drives/'
/** What reads a field one day, and not yet. */
const LATER = {
  seals: 'later: seals by their bore',
  torque: 'later: torque',
  test: 'later: pressure test',
} as const

/**
 * Every field of the format with the file that uses or prints it, or with what will. A field that nobody reads has no place here, and none in the format.
 */
const USED: Record<string, Record<string, string>> = {
  '': {
    'core/src/drives/own/fill.ts':
      'id name family ratio axes gears meshes adjusters bearings seals belts measures runoutLimits service manual sources variants variant demo summary version',
    'core/src/drives/upgrade/upgrade.ts': 'format',
    'core/src/drives/graph/rows.ts':
      'parts groups joints interfaces spaces settings sealFits sealPairs propellers anodes tools ways clearances lubricants tests unit upgraded',
  },
  parts: {
    [`${CORE}graph/old-view.ts`]: 'id name kind after in on interfaces inside',
    [`${CORE}parts.ts`]: 'place count set kit price waitDays role pointedAtBy keeps',
    [`${WEB}forms/part-forms.ts`]: 'way number runsOn',
  },
  'groups.pieces': {
    [`${CORE}graph/old-view.ts`]: 'id name kind place inside',
    [`${CORE}parts.ts`]: 'count set kit price waitDays role pointedAtBy',
    [`${WEB}own/PiecesField.vue`]: 'useOnce number',
  },
  groups: {
    [`${CORE}graph/old-view.ts`]: 'id name pieces holds after interfaces hand captiveUntil assumed said',
    [`${CORE}graph/unit-facts.ts`]: 'count where lock tabs threads torqueNm hidden pinches port',
    'core/src/route/stages/teardown.ts': 'place',
    'core/src/route/stages/finish.ts': 'plug',
    [`${WEB}FastenerTable.vue`]: 'thread torqueUnit angleDeg treatment stages order held turned useOnce',
    [`${WEB}forms/part-forms.ts`]: 'tool tightenedBy',
    [LATER.torque]: 'adapterMm lengthsMm sealed',
  },
  'groups.said': { [`${CORE}graph/old-view.ts`]: 'of text' },
  'joints.said': { [`${CORE}graph/old-view.ts`]: 'of text' },
  'anodes.said': { [`${CORE}graph/unit-facts.ts`]: 'of text' },
  joints: {
    [`${CORE}graph/old-view.ts`]: 'id name kind sealedBy closedBy provedBy assumed said',
    [`${CORE}graph/check-graph.ts`]: 'interfaces unproved',
    [`${WEB}forms/joint-forms.ts`]: 'between behind level',
    [LATER.test]: 'ports',
  },
  interfaces: {
    [`${CORE}graph/unit-facts.ts`]: 'name gear sharesOil',
    [`${CORE}graph/edge-fields.ts`]: 'id closedBy',
    [`${WEB}forms/joint-forms.ts`]: 'kind',
  },
  spaces: {
    [`${CORE}graph/unit-facts.ts`]: 'id holds volumeMl fillMl',
    [`${WEB}forms/joint-forms.ts`]: 'name levelBy connected',
  },
  settings: {
    [`${CORE}graph/check-graph.ts`]: 'id preloadedBy',
    [`${WEB}forms/joint-forms.ts`]: 'carriedBy through readWhen',
  },
  sealFits: {
    'core/src/route/stages/seal.ts': 'name size order springs depth film moves',
    [`${CORE}graph/check-graph.ts`]: 'id',
    [`${WEB}forms/other-forms.ts`]: 'at part seal',
  },
  sealPairs: {
    'core/src/route/stages/seal.ts': 'sharedStep springs',
    [`${CORE}own/closing-figures.ts`]: 'id',
    [LATER.seals]: 'part',
  },
  propellers: {
    [`${CORE}graph/unit-facts.ts`]: 'heldBy held hub afterRun',
    'core/src/route/stages/propeller.ts': 'name turnsForward washers',
    [`${CORE}own/closing-figures.ts`]: 'id',
    [`${WEB}forms/other-forms.ts`]: 'place part',
  },
  anodes: {
    [`${CORE}graph/unit-facts.ts`]: 'place said',
    [`${CORE}graph/check-graph.ts`]: 'id',
    [`${WEB}forms/other-forms.ts`]: 'part count salt brackish fresh',
  },
  tools: { [`${WEB}forms/other-forms.ts`]: 'name for substitute serials', [`${WEB}show-rows.ts`]: 'id' },
  ways: { [`${CORE}graph/unit-facts.ts`]: 'id text', [`${WEB}forms/other-forms.ts`]: 'at' },
  clearances: { [`${WEB}forms/other-forms.ts`]: 'name between window', [`${WEB}show-rows.ts`]: 'id' },
  lubricants: { [`${WEB}forms/other-forms.ts`]: 'what at where cureHours', [`${WEB}show-rows.ts`]: 'id' },
  tests: {
    [`${CORE}graph/unit-facts.ts`]:
      'id ports lowKpa workKpa maxKpa holdMin allowedDrop allowedMlPerMin volumeMl turns',
    [`${WEB}DrivePage.vue`]: 'noTest',
  },
  'tests.allowedDrop': { [`${WEB}DrivePage.vue`]: 'kpa minutes' },
  unit: {
    [`${CORE}graph/unit-facts.ts`]: 'hours',
    'core/src/route/stages/teardown.ts': 'openGear',
    'core/src/route/stages/join.ts': 'shifts',
    'core/src/route/stages/finish.ts': 'telltale',
    'core/src/route/cautions.ts': 'weightKg',
    'core/src/inspection/estimate.ts': 'exchange used',
    [`${CORE}graph/old-view.ts`]: 'levers attitudes cautions trimTab partner plateAt stampsAt',
  },
  'unit.hours': { 'core/src/inspection/estimate.ts': 'openHours setHours closeHours' },
  'unit.exchange': { 'core/src/inspection/estimate.ts': 'price waitDays' },
  'unit.used': { 'core/src/inspection/estimate.ts': 'price waitDays' },
  'unit.levers': {
    'core/src/route/stages/attitudes.ts': 'act gear rod',
    [`${WEB}forms/other-forms.ts`]: 'heightMm',
    [`${WEB}show-rows.ts`]: 'id',
  },
  'unit.attitudes': {
    'core/src/route/stages/attitudes.ts': 'act up falls during',
    [`${WEB}show-rows.ts`]: 'id',
  },
  ratio: { 'core/src/route/stages/receive.ts': 'overall stamps' },
  'ratio.stamps': { 'web/src/drives/DrivePage.vue': 'code teeth note own' },
  axes: {
    'core/src/drives/own/places.ts': 'id line fromMm toMm radiusMm offsetMm insideOf',
    'web/src/drives/own/StructureList.vue': 'label',
  },
  gears: {
    'core/src/drives/own/places.ts': 'id axis side',
    'core/src/drives/own/figures.ts': 'label teeth outsideMm faceTirMm',
  },
  meshes: {
    'core/src/drives/own/geometry.ts':
      'id pinion gear mesh form faceWidthMm spiralAngleDeg pressureAngleDeg shaftAngleDeg',
    'core/src/drives/own/measure-figures.ts': 'label pushed',
    'core/src/gears/flank.ts': 'pinionHand pinionTurns',
  },
  'meshes.mesh': {
    'core/src/gears/mesh.ts':
      'pinionTeeth gearTeeth shaftAngleDeg moduleMm faceWidthMm pressureAngleDeg spiralAngleDeg cutterRadiusMm hand gearAddendumMm pinionAddendumMm',
  },
  adjusters: {
    'core/src/drives/own/places.ts': 'id axis atMm side order kind moves',
    'core/src/drives/own/figures.ts': 'label effect maxPieces startMm setBy leadMm notches rules',
    'core/src/drives/own/fill.ts': 'minMm maxMm',
  },
  bearings: {
    'core/src/drives/own/places.ts': 'id axis atMm side order kind',
    'core/src/drives/own/bearing-figures.ts': 'label setting',
  },
  'bearings.setting': {
    'core/src/setting/measures.ts': 'kind newNm runInNm crushMm toleranceMm by sleeve nmPerMm shimsAt',
  },
  seals: {
    'core/src/drives/own/places.ts': 'id axis atMm side order',
    'web/src/drives/DrivePage.vue': 'label',
  },
  belts: { 'core/src/drives/check-sheet.ts': 'id pulleys', 'web/src/drawing/section.ts': 'widthMm' },
  'belts.pulleys': {
    'core/src/drives/check-sheet.ts': 'axis',
    'web/src/drawing/section.ts': 'atMm radiusMm',
  },
  measures: {
    'core/src/drives/own/measure-figures.ts':
      'id label kind gear nominal how window member radiusMm hold load',
    'core/src/setting/settings-of-part.ts': 'mesh axis',
    'core/src/drives/own/fill.ts': 'readings before',
    'core/src/drives/check-sheet.ts': 'target',
  },
  'measures.how': {
    'core/src/drives/own/fill.ts':
      'method masterMm extends farSide arborDiameterMm nominalClearanceMm nominalDepthMm',
  },
  runoutLimits: { 'core/src/drives/own/bearing-figures.ts': 'id zone tirMm' },
  service: { 'web/src/drives/DrivePage.vue': 'id what months hours saltMonths' },
  sources: {
    'web/src/drives/own/show-figure.ts': 'path kind where as by unchecked atBench',
    'core/src/drives/own/source.ts': 'on',
  },
  variants: { 'core/src/drives/own/variants.ts': 'id label fromSerial toSerial patch' },
  variant: { 'core/src/drives/own/variants.ts': 'id label' },
  upgraded: { [`${CORE}upgrade/upgrade.ts`]: 'from', [`${CORE}upgrade/paths.ts`]: 'rows' },
}
/** Ranges are read by whatever reads the figure. */
const RANGES: ReadonlySet<string> = new Set(['torqueNm', 'window', 'newNm', 'runInNm'])

/** Fields of a class and of the classes in it, by list. */
function fieldsOf(owner: Class, at = ''): Record<string, string[]> {
  const facts = factsOfClass(owner)
  const inner = [...facts].flatMap(([name, f]) =>
    f.of && !RANGES.has(name) ? Object.entries(fieldsOf(f.of(), at === '' ? name : `${at}.${name}`)) : [],
  )
  return Object.fromEntries([[at, [...facts.keys()]], ...inner])
}

const root = new URL('../../', import.meta.url)
describe('every field of the format', () => {
  const fields = fieldsOf(SheetFile as Class)
  it.each(Object.keys(fields).map((list) => [list || 'the sheet', list] as const))(
    'of %s is read by somebody, or has a name for what will',
    (_, list) => {
      const told = Object.values(USED[list] ?? {}).flatMap((names) => names.split(' '))
      expect([...new Set(told)].sort()).toEqual([...fields[list]!].sort())
      expect(told.length, 'each is told once').toBe(new Set(told).size)
      for (const [where, names] of Object.entries(USED[list]!)) {
        if (where.startsWith('later: ')) continue
        const file = new URL(where, root)
        expect(existsSync(file), where).toBe(true)
        const text = readFileSync(file, 'utf8')
        for (const name of names.split(' '))
          expect(text, `${where} reads ${list}.${name}`).toMatch(new RegExp(`\\b${name}\\b`))
      }
    },
  )
})
