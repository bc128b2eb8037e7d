import { describe, expect, it } from 'vitest'
import type { Closing } from '../../src/job/record.ts'
import { repeatedWords, sameWords } from '../../src/job/same-words.ts'

const closing = (step: string, words: string, takenBack = false): Closing => ({
  id: 1,
  step,
  answers: { [`${step}.seen`]: words, [`${step}.note`]: 'as it should be' },
  texts: {},
  departedFrom: [],
  reason: null,
  lead: null,
  by: 'Ylva',
  at: '2026-11-02T07:00:00.000Z',
  takenBack: takenBack ? { reason: 'x', by: 'Ylva', at: '2026-11-02T07:00:00.000Z', replacedBy: null } : null,
})
const three = [closing('seals', 'All good.'), closing('o-rings', 'all good'), closing('inside', ' All good ')]

describe('the same words at inspection points', () => {
  it('are pointed out from the third on, however they are spelled', () => {
    expect(repeatedWords({ closings: three })).toEqual([{ words: 'All good.', points: 3 }])
    expect(sameWords({ closings: three.slice(0, 2) }, 'inside', 'ALL GOOD!')).toBe(2)
  })
  it('are nothing to point out twice, nor where they differ, nor where a step was taken back', () => {
    expect(repeatedWords({ closings: three.slice(1) })).toEqual([])
    expect(sameWords({ closings: three.slice(0, 1) }, 'inside', 'all good')).toBe(0)
    expect(sameWords({ closings: three }, 'splines', 'clean, greased')).toBe(0)
    expect(repeatedWords({ closings: [...three.slice(1), closing('seals', 'all good', true)] })).toEqual([])
  })
  it('are those of the eye, and no other text', () => {
    const notes = ['a', 'b', 'c'].map((s) => ({ ...closing(s, s), answers: { [`${s}.note`]: 'all good' } }))
    expect(repeatedWords({ closings: notes })).toEqual([])
  })
})
