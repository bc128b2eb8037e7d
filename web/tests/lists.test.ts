import type { SheetDraft } from '@moray/contract/replies'
import { templateOf } from '@moray/core/drives/own/template'
import fc from 'fast-check'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { placeDots } from '../src/drawing/row-dots.ts'
import { matching, theOne } from '../src/drives/lists/matching.ts'
import { readTable, splitTable, torqueUnitOfHeading } from '../src/drives/lists/pasted.ts'
import { namesOf, withNames } from '../src/drives/lists/piece-names.ts'
import { keyFor } from '../src/drives/lists/table-keys.ts'
import { ROW_FORMS } from '../src/drives/row-forms.ts'
import { optionsOf } from '../src/drives/show-rows.ts'

beforeEach(() => setActivePinia(createPinia()))
const body = templateOf('outboard-fnr', 'own', 'Own')
const draft = { body, changes: [] } as unknown as SheetDraft
const formOf = (list: string) => ROW_FORMS.find((f) => f.list === list)!
const read = (list: string, text: string, torqueUnit?: 'inlb') => {
  const form = formOf(list)
  const columns = form.shown.map((k) => form.columns.find((c) => c.key === k)!)
  return readTable(splitTable(text, form, columns), form, {
    draft,
    hand: { first: 'imperial', ...(torqueUnit ? { torqueUnit } : {}) },
    optionsFor: (f, c, row) => optionsOf(body, f, c, row),
    taken: new Set([...body.parts, ...body.groups!].map((r) => r.id)),
  })
}

describe('a row found by a few letters', () => {
  const options = [
    'Carrier ring nut',
    'Carrier key',
    'Water pump cover and impeller',
    'Impeller key',
    'Øvre ring',
  ].map((label) => ({ id: label, label }))
  const found = (text: string) => matching(text, options).map((o) => o.label)
  it.each([
    ['car', ['Carrier key', 'Carrier ring nut']],
    ['car rin', ['Carrier ring nut']],
    ['imp', ['Impeller key', 'Water pump cover and impeller']],
    ['pel', ['Water pump cover and impeller', 'Impeller key']],
    ['zzz', []],
  ])('%s', (text, expected) => expect(found(text)).toEqual(expected))
  it('is meant for sure only where one alone can be', () => {
    expect(theOne('Carrier key', options)?.id).toBe('Carrier key')
    expect(theOne('carrier', options)).toBeUndefined()
    expect(theOne('wat pum', options)?.id).toBe('Water pump cover and impeller')
  })
})

describe('a table of a manual', () => {
  it('is read by its heading, in the words of the trade, and in its own unit', () => {
    const text = 'Fastener\tQty\tTorque (in-lb)\nCap screw\t6\t180 - 204\n'
    expect(torqueUnitOfHeading(text)).toBe('inlb')
    const named =
      'What they are\tHow many\tTorque (in-lb)\tThread is\tLock\nCap screw\t6\t180 to 204\tLH\tself\n'
    const { rows, problems } = read('groups', named, 'inlb')
    expect(problems).toEqual([])
    expect(rows).toHaveLength(1)
    expect(rows[0]!.row).toMatchObject({
      id: 'cap-screw',
      count: 6,
      hand: 'left',
      lock: 'self-locking',
      torqueUnit: 'inlb',
    })
    expect((rows[0]!.row.torqueNm as { min: number }).min).toBeCloseTo(20.34, 2)
    expect(rows[0]!.printed.torqueNm).toContain('180 to 204')
  })
  it('without a heading is taken for the columns from where it was pasted', () => {
    const { rows } = read('tools', 'Puller\nBearing driver\n')
    expect(rows.map((r) => r.row.name)).toEqual(['Puller', 'Bearing driver'])
  })
  it('gives its figures to rows that are there by their name, and leaves the rest of them', () => {
    const nut = body.groups!.find((g) => g.id === 'propeller-nut')!
    const { rows } = read('groups', `${nut.name.toUpperCase()}\t\t55 ftlb\n`)
    expect(rows[0]!.before).toEqual(nut)
    expect(rows[0]!.row).toMatchObject({ id: 'propeller-nut', holds: nut.holds, torqueUnit: 'ftlb' })
  })
  it('may lead to rows of its own, and to one that nobody knows', () => {
    const named = 'Name\tKind\tCannot come off before\nTop plug\tlip\t\nTop seal\tlip\ttop plug; pump base?\n'
    const { rows, problems } = read('parts', named)
    expect(problems).toEqual([])
    expect(rows[1]!.row.after).toEqual({ 'top-plug': true, 'pump-base': 'unknown' })
  })
  it('says everything that is wrong, by line and column', () => {
    const named = [
      'What they are\tHow many\tTorque\tHolds',
      'One\tmany\t30\t',
      '\t2\t30\t',
      'Three\t2\t30 to 20\tno such thing',
    ].join('\n')
    expect(read('groups', named).problems.map((p) => `${p.line} ${p.column}`)).toEqual([
      '2 How many',
      '3 What they are',
      '4 Holds',
      '4 Torque',
    ])
  })
})

describe('loose pieces typed in one line', () => {
  it('keep what is known of those that are there', () => {
    const before = [{ id: 'washer', name: 'Tab washer', price: 40 }]
    const after = withNames(before, 'nut, tab washer , Pin', new Set(['nut']))
    expect(after).toEqual([{ id: 'nut-2', name: 'nut' }, before[0], { id: 'pin', name: 'Pin' }])
    expect(namesOf(after)).toBe('nut, Tab washer, Pin')
  })
})

describe('keys of a table', () => {
  const key = (name: string, more: object = {}, tag = 'input') => {
    const target = document.createElement(tag)
    return keyFor({ key: name, target, altKey: false, ctrlKey: false, metaKey: false, ...more } as never)
  }
  it.each([
    ['Enter', 'next'],
    ['ArrowUp', 'up'],
    ['ArrowDown', 'down'],
    ['Escape', 'leave'],
    ['a', undefined],
  ])('%s', (name, act) => expect(key(name)).toBe(act))
  it('move a row with Alt, and leave a choice and a field of several lines their own', () => {
    expect([key('ArrowUp', { altKey: true }), key('ArrowDown', { altKey: true })]).toEqual([
      'earlier',
      'later',
    ])
    expect([key('ArrowDown', {}, 'select'), key('Enter', {}, 'textarea')]).toEqual([undefined, undefined])
    expect(key('Enter', { ctrlKey: true })).toBeUndefined()
  })
})

describe('dots of rows on a drawing', () => {
  const point = fc.tuple(
    fc.double({ min: -50, max: 900, noNaN: true }),
    fc.double({ min: -50, max: 600, noNaN: true }),
  )
  const rows = fc
    .array(fc.option(point, { nil: undefined }), { maxLength: 60 })
    .map((all) => all.map((at, i) => ({ id: String(i), ...(at ? { at } : {}) })))
  it('lie in the frame, none on another, every row once, at 280 to 1000 px', () => {
    fc.assert(
      fc.property(
        rows,
        fc.integer({ min: 280, max: 1000 }),
        fc.integer({ min: 180, max: 560 }),
        (wanted, width, height) => {
          const dots = placeDots(wanted, { width, height })
          expect(dots.map((d) => d.id).sort()).toEqual(wanted.map((w) => w.id).sort())
          for (const { at } of dots) {
            expect(at[0] >= 9 && at[0] <= width - 9 && at[1] >= 9 && at[1] <= height - 9).toBe(true)
            const near = dots.filter((d) => Math.hypot(d.at[0] - at[0], d.at[1] - at[1]) < 14.9)
            expect(near).toHaveLength(1)
          }
        },
      ),
      { numRuns: 150 },
    )
  })
  it('lie at their place where there is room', () => {
    const [dot] = placeDots([{ id: 'a', at: [100, 80] }], { width: 300, height: 200 })
    expect(dot).toEqual({ id: 'a', at: [100, 80], placed: true })
  })
})
