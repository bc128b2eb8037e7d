import { describe, expect, it } from 'vitest'
import { bodyOf } from '../../src/drives/own/body-of.ts'
import { checkBody } from '../../src/route/check-body.ts'
import { differences } from '../../src/drives/own/differences.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { holdsSerial, ofVariant, wholeRange, withPatched } from '../../src/drives/own/variants.ts'
import type { Patch, Variant } from '../../src/drives/own/variant.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'

const sheet = demoSheets.find((s) => s.id === 'rordrum-v')!
const body = bodyOf(sheet)
const early = sheet.variants![0]!
const variant = (patch: Patch): Variant => ({ id: 'x', label: 'X', patch })

describe('a variant', () => {
  it('is the sheet with what differs, and nothing else', () => {
    const of = ofVariant(body, early)
    expect(filled(of).measures[0]!.window).toEqual({ min: 0.15, max: 0.24 })
    expect(of.variant).toEqual({ id: 'early', label: 'early' })
    expect(of.variants).toBeUndefined()
    expect(
      differences(body, of)
        .map((d) => d.path)
        .sort(),
    ).toEqual(
      [
        'bearings.output-inner.setting.newNm',
        'measures.backlash.target',
        'measures.backlash.window',
        'parts.output-ring.name',
        'variant',
        ...sheet.variants!.map((v) => `variants.${v.id}`),
      ].sort(),
    )
    expect(body).toEqual(bodyOf(sheet))
  })
  it('takes rows away, adds them, and keeps the others in their order', () => {
    const of = ofVariant(
      body,
      variant({
        parts: { breather: null, 'extra-ring': { name: 'Extra ring', kind: 'ring' } },
        summary: null,
      }),
    )
    expect(of.parts.at(-1)).toEqual({ name: 'Extra ring', kind: 'ring', id: 'extra-ring' })
    expect(of.parts.slice(0, -1).map((p) => p.id)).toEqual(
      body.parts.filter((p) => p.id !== 'breather').map((p) => p.id),
    )
    expect(of.summary).toBeUndefined()
  })
  it.each<[string, Patch, string]>([
    ['takes away what a part refers to', { bearings: { 'output-inner': null } }, 'output-inner'],
    [
      'turns a window upside down',
      { measures: { backlash: { window: { min: 1, max: 0.5 } } } },
      'upside down',
    ],
    ['takes away a list', { parts: null }, 'takes away a list'],
    ['makes a list of something else', { gears: 'none' }, 'takes away a list'],
    ['is of a family that is none', { family: 'tractor' }, 'takes away a list'],
  ])('that %s is refused by its name', (_, patch, why) => {
    const { wrong } = checkBody({ ...body, variants: [variant(patch)] })
    expect(wrong.map((w) => w.message).join(' ')).toContain(why)
    expect(wrong[0]!.path).toMatch(/^variants\[0\]\.patch/)
    expect(wrong[0]!.message).toMatch(/^X: /)
  })
  it('cannot become another sheet', () => {
    expect(ofVariant(body, variant({ id: 'other', format: 9 }))).toMatchObject({ id: body.id, format: 4 })
  })
})

describe('a patch', () => {
  it('is typed figure by figure, and forgets what is the same for all again', () => {
    const one = withPatched({}, 'measures.backlash.window', wholeRange({ max: 0.3 }))
    expect(one).toEqual({ measures: { backlash: { window: { min: null, max: 0.3 } } } })
    expect(filled(ofVariant(body, variant(one))).measures[0]!.window).toEqual({ max: 0.3 })
    expect(withPatched(one, 'measures.backlash.window', undefined)).toEqual({})
  })
})

describe('serial numbers', () => {
  it.each([
    ['RV-2999', true],
    ['rv 0017', true],
    ['RV-3000', false],
    ['LV-12', undefined],
    ['no number', undefined],
  ])('%s up to RV-2999: %s', (serial, holds) => {
    expect(holdsSerial(early, serial)).toBe(holds)
  })
  it('without limits nothing is told', () => expect(holdsSerial({}, 'RV-1')).toBeUndefined())
})
