import type { SheetBody } from '@moray/core/drives/own/body'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { comparedFields, differences } from '@moray/core/drives/own/differences'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { describe, expect, it } from 'vitest'
import { differenceLabel } from '../src/drives/own/difference-words.ts'
import { anyText } from '../src/drives/own/show-figure.ts'

const before = bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!)

/** The rows of the table "What changes", as they are read. */
function rows(from: SheetBody, to: SheetBody) {
  const fields = new Map([...comparedFields(from), ...comparedFields(to)].map((f) => [f.path, f]))
  return differences(from, to).map((d) => [
    differenceLabel(d, from, to),
    anyText(fields.get(d.path), d.from, 'metric'),
    anyText(fields.get(d.path), d.to, 'metric'),
  ])
}

describe('what changes between two versions of a sheet', () => {
  it('is named figure by figure where a whole group was not there before', () => {
    const without = { ...before, tests: [] }
    const found = rows(without, {
      ...without,
      tests: [{ id: 'case', workKpa: 68.94757293168361, holdMin: 5 }],
    })
    expect(found.map(([, from]) => from)).toEqual(['nothing', 'nothing'])
    expect(found.map(([label]) => label).join(' ')).not.toContain('tests.')
    expect(found.flat().join(' ')).not.toMatch(/[{}"]|68\.9475/)
  })
  it('names a row that came, and a field of a row by what it is', () => {
    const parts = before.parts.map((p, i) => (i === 0 ? { ...p, name: 'Nut, new' } : p))
    const found = rows(before, {
      ...before,
      parts: [...parts, { id: 'extra', name: 'Extra washer', kind: 'washer' }],
    } as SheetBody)
    expect(found).toEqual([
      ['Part Nut, new: name', before.parts[0]!.name, 'Nut, new'],
      ['Part Extra washer', 'nothing', 'Extra washer'],
    ])
  })
  it('names a figure of a variant by variant and figure', () => {
    const variants = (patch: object) => [{ id: 'late', label: 'Late', patch }] as never
    const found = rows(
      { ...before, variants: variants({}) },
      { ...before, variants: variants({ spaces: { case: { fillMl: 640 } } }) },
    )
    expect(found).toHaveLength(1)
    expect(found[0]![0]).toMatch(/^Late: /)
    expect(found[0]![2]).toBe('640 ml')
  })
})
