import { describe, expect, it } from 'vitest'
import { contactPairs } from '../../src/contact/as-set.ts'
import type { Outline } from '../../src/contact/marked.ts'
import { marksOf, nextMark, readBackOf, type Seen } from '../../src/contact/read-back.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { assess } from '../../src/setting/assess.ts'

const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!
const [pair] = contactPairs(sheet, assess(sheet, { stacks: {}, readings: {} }))
const LINE: Outline = [
  [-0.3, -0.4],
  [0.5, -0.4],
  [0.5, 0.4],
  [-0.3, 0.4],
]
const mark = (flank: Seen['flank'], place: number, more: Partial<Seen> = {}): Seen => ({
  mesh: pair!.pair.id,
  flank,
  place,
  outline: LINE,
  superseded: null,
  ...more,
})
const ask = (marks: Seen[]) => readBackOf(sheet, pair!, marksOf(marks, pair!.pair.id))

describe('the marks that count', () => {
  it('are those of the pair that nobody has marked anew', () => {
    const old = mark('drive', 1, { superseded: { reason: 'smeared' } })
    const now = mark('drive', 1)
    expect(marksOf([old, now, mark('coast', 1, { mesh: 'another' })], pair!.pair.id)).toEqual({
      1: { drive: now },
    })
  })
  it('lead on, flank by flank and place by place, and begin again when all are there', () => {
    const next = (...marks: Seen[]) => nextMark(marksOf(marks, pair!.pair.id))
    expect(next()).toEqual({ place: 1, flank: 'drive' })
    expect(next(mark('drive', 1))).toEqual({ place: 1, flank: 'coast' })
    expect(next(mark('drive', 1), mark('coast', 1))).toEqual({ place: 2, flank: 'drive' })
    const all = [1, 2, 3].flatMap((n) => [mark('drive', n), mark('coast', n)])
    expect(next(...all)).toEqual({ place: 1, flank: 'drive' })
  })
})

describe('the question to the pattern', () => {
  it('waits for both flanks of one place', () => {
    expect(ask([])).toBeUndefined()
    expect(ask([mark('drive', 1), mark('coast', 2)])).toBeUndefined()
    expect(ask([mark('drive', 2), mark('coast', 2)])).toBeDefined()
  })
  it('takes where a patch lies and not how large it is, every whole place, and the way the shims work', () => {
    const question = ask([1, 3].flatMap((n) => [mark('drive', n), mark('coast', n)]))!
    expect(question.drive.length).toBeCloseTo(0.1, 12)
    expect(question.drive.profile).toBeCloseTo(0, 12)
    expect(question.drive.extents).toBeUndefined()
    expect(question.otherPlaces).toHaveLength(1)
    expect(question.depth).toBeUndefined()
    expect(question.backlash).toBeUndefined()
    expect(question.pinionEffect).toBe(sheet.adjusters.find((a) => a.moves === pair!.pair.pinion)!.effect)
  })
  it('is none where the teeth are only drawn', () => {
    const drawn = { ...pair!, pair: { ...pair!.pair, basis: 'drawn' as const } }
    const marks = marksOf([mark('drive', 1), mark('coast', 1)], pair!.pair.id)
    expect(readBackOf(sheet, drawn, marks)).toBeUndefined()
  })
})
