import fc from 'fast-check'
import Papa from 'papaparse'
import { describe, expect, it } from 'vitest'
import { csvText, guarded, unguarded, type Cell } from '../src/csv.ts'

const column = (name: string) => ({ name, of: (row: Record<string, Cell>) => row[name] })

describe('a table of comma-separated values', () => {
  it('has a heading, lines that end as RFC 4180 has it, numbers with a point, and nothing where nothing is known', () => {
    const rows = [
      { a: 0.1, b: 'two, "three"', c: true },
      { a: -4, b: 'line\nbreak', c: null },
    ]
    expect(csvText([column('a'), column('b'), column('c')], rows)).toBe(
      'a,b,c\r\n0.1,"two, ""three""",yes\r\n-4,"line\nbreak",\r\n',
    )
    expect(csvText([column('a')], [], { bom: true })).toBe('\uFEFFa\r\n')
  })
  it.each(['=1+1', '+1', '-1', '@sum', '\tx', '\rx', "'=1"])('%j is no formula any more', (text) => {
    expect(guarded(text)).toBe(`'${text}`)
    expect(unguarded(guarded(text))).toBe(text)
  })
  it.each(['0.5', "O'Neil", '26-118', '', "'quoted'"])('%j stays as it is', (text) => {
    expect(guarded(text)).toBe(text)
  })
  it('gives back every text that went in', () => {
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'grapheme' }), { minLength: 1 }), (texts) => {
        const rows = texts.map((a) => ({ a }))
        const { data } = Papa.parse<Record<string, string>>(csvText([column('a')], rows), {
          header: true,
          newline: '\r\n',
        })
        const back = data.slice(0, rows.length).map((r) => unguarded(r.a ?? ''))
        expect(back).toEqual(texts)
      }),
    )
  })
})
