import { readFileSync } from 'node:fs'
import { InputError } from '@moray/core/checks/input-error'
import type { Edges } from '@moray/core/drives/graph/edges'
import type { SheetBody } from '@moray/core/drives/own/body'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { templateOf } from '@moray/core/drives/own/template'
import { FAMILIES, type Family } from '@moray/core/drives/sheet'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { Ajv2020 } from 'ajv/dist/2020.js'
import { describe, expect, it } from 'vitest'
import { validate } from '../src/fields/validate.ts'
import { sheetSchema } from '../src/schemas.ts'
import { fromCsv, toCsv } from '../src/sheet/csv.ts'
import { JointRow, SpaceRow } from '../src/sheet/joint-fields.ts'
import { ServiceRow } from '../src/sheet/list-fields.ts'
import { GroupRow, PartRow } from '../src/sheet/part-fields.ts'
import { SheetFile } from '../src/sheet/sheet-file.ts'

const plain = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T
const ajv = new Ajv2020({ allErrors: true, strict: false })
const accepts = ajv.compile(sheetSchema())
const sheets = demoSheets.map((s) => [s.id, plain(bodyOf(s))] as const)
const byClass = (file: unknown) => {
  try {
    validate(SheetFile, file)
    return true
  } catch (e) {
    if (e instanceof InputError) return false
    throw e
  }
}

describe('the published form of a sheet', () => {
  it('is the one that is committed', () => {
    const committed: unknown = JSON.parse(
      readFileSync(new URL('../../docs/drive-sheet.schema.json', import.meta.url), 'utf8'),
    )
    expect(committed).toEqual(plain(sheetSchema()))
  })
  it.each(sheets)('takes %s, and gives it back as it is', (_, body) => {
    expect(accepts(body), JSON.stringify(accepts.errors?.slice(0, 3))).toBe(true)
    expect(plain(validate(SheetFile, body))).toEqual(body)
  })
  it.each(Object.keys(FAMILIES) as Family[])('takes an empty sheet of %s', (family) => {
    const body = plain(templateOf(family, 'own', 'Own'))
    expect(accepts(body)).toBe(true)
    expect(plain(validate(SheetFile, body))).toEqual(body)
  })
  const good = sheets[0]![1]
  const rows = (change: (g: SheetBody['gears'][number]) => object) => ({
    ...good,
    gears: good.gears.map(change),
  })
  it.each<[string, object]>([
    ['nothing', {}],
    ['another format', { ...good, format: 2 }],
    ['no name', { ...good, name: undefined }],
    ['a name of one letter', { ...good, name: 'x' }],
    ['a family that is none', { ...good, family: 'tractor' }],
    ['an unknown field', { ...good, colour: 'red' }],
    ['an unknown field deep inside', rows((g) => ({ ...g, colour: 'red' }))],
    ['an id with a point', rows((g) => ({ ...g, id: 'a.b' }))],
    ['teeth that are no whole number', rows((g) => ({ ...g, teeth: 12.5 }))],
    ['teeth beyond counting', rows((g) => ({ ...g, teeth: 999 }))],
    ['a side that is neither', rows((g) => ({ ...g, side: 2 }))],
    ['text in the place of a number', { ...good, spaces: [{ ...good.spaces![0]!, fillMl: '600' }] }],
    ['a negative volume', { ...good, spaces: [{ ...good.spaces![0]!, volumeMl: -1 }] }],
    ['a list in the place of an object', { ...good, unit: [] }],
    ['a list of the format before', { ...good, fasteners: [] }],
    [
      'an edge that is neither said nor assumed',
      { ...good, parts: [{ ...good.parts[0]!, after: { hub: 'perhaps' } }] },
    ],
    ['edges as a list', { ...good, parts: [{ ...good.parts[0]!, after: ['hub'] }] }],
    ['an object in the place of a list', { ...good, parts: {} }],
    ['a part of no kind', { ...good, parts: [{ id: 'a', name: 'A', kind: 'toy' }] }],
    ['no fastener in a group', { ...good, groups: [{ id: 'a', name: 'A', count: 0 }] }],
    [
      'too many shafts',
      { ...good, axes: Array.from({ length: 13 }, (_, i) => ({ ...good.axes[0]!, id: `a${i}` })) },
    ],
    ['a control character', { ...good, summary: 'a\u0007b' }],
  ])('refuses %s, the schema and the classes alike', (_, file) => {
    expect(accepts(plain(file))).toBe(false)
    expect(byClass(plain(file))).toBe(false)
  })
})

describe('tables', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('parts of %s go out and come in as the same', (_, s) => {
    const { parts } = plain(bodyOf(s))
    expect(plain(fromCsv(PartRow, toCsv(PartRow, parts), 300).rows)).toEqual(parts)
  })
  it.each(sheets)('joints, spaces and groups of %s go out and come in as the same', (_, body) => {
    const { joints = [], spaces = [], groups = [] } = body
    expect(plain(fromCsv(JointRow, toCsv(JointRow, joints), 60).rows)).toEqual(joints)
    expect(plain(fromCsv(SpaceRow, toCsv(SpaceRow, spaces), 20).rows)).toEqual(spaces)
    // loose pieces have no place in a table
    const bare = groups.map(({ pieces: _pieces, ...g }) => g)
    expect(plain(fromCsv(GroupRow, toCsv(GroupRow, groups), 120).rows)).toEqual(bare)
  })
  it('fasteners with everything there is go out and come in as the same', () => {
    const all = {
      id: 'ring',
      name: '=SUM(A1), "quoted"\nand on two lines',
      count: 2,
      where: '-at the front',
      thread: 'M8 × 1.25',
      hand: 'left' as const,
      torqueNm: { min: 8, max: 10.5 },
      torqueUnit: 'inlb' as const,
      angleDeg: 90,
      treatment: 'oiled',
      stages: [0.5, 0.75],
      order: '1; 3; 2',
      lock: 'tab-washer' as const,
      tabs: 2,
      held: 'a',
      turned: 'b',
      tool: 'c',
      adapterMm: 40,
      lengthsMm: [20, 25],
      hidden: true,
      captiveUntil: { mount: true, cover: 'assumed' } as Edges,
      after: { hub: 'unknown' } as Edges,
      sealed: false,
      useOnce: true,
      pinches: false,
      port: 'vent' as const,
    }
    const csv = toCsv<object>(GroupRow, [all])
    expect(csv).toContain(`"'=SUM(A1)`)
    expect(plain(fromCsv(GroupRow, csv, 100).rows)).toEqual([all])
  })
  it.each([
    ['id,what,months\nlook,Look,many', 'row 2, column months: "many" is not understood; a number is needed'],
    ['id,what,colour\nlook,Look,red', 'row 1, column 3: "colour" is no column here'],
    ['id,months\nlook,3', 'row 1: the column what is missing'],
    ['id,what\nlook,Look,3', 'row 2, column 3: stands beyond the last column'],
    ['id,what,months\nlook,,3', 'row 2, column what'],
    ['id,what,months\nlook,Look,-3', 'row 2, column months'],
    ['', 'row 1: the column id is missing'],
  ])('%j says what is wrong by row and column', (csv, why) => {
    expect(() => fromCsv(ServiceRow, csv, 40)).toThrow(why)
  })
  it('with decimal commas, other orders and blank lines are understood', () => {
    expect(plain(fromCsv(ServiceRow, 'what,id,months\n\n"Oil, gaskets",oil,"1,5"\n', 40).rows)).toEqual([
      { id: 'oil', what: 'Oil, gaskets', months: 1.5 },
    ])
  })
})
