import { expect, it } from 'vitest'
import { afterClosure } from '../../src/route/after-closure.ts'

const parts = [
  { id: 'nut', after: [] },
  { id: 'carrier', after: ['nut'] },
  { id: 'gear', after: ['carrier', 'lid'] },
  { id: 'shaft', after: ['gear'] },
]

it.each([
  [['gear'], [], ['gear', 'carrier', 'nut', 'lid']],
  // what is off already is neither taken nor followed
  [['shaft'], ['carrier'], ['shaft', 'gear', 'lid']],
  [['nut', 'carrier'], [], ['nut', 'carrier']],
  [[], [], []],
])('everything before %j, with %j off', (targets, off, all) => {
  expect([...afterClosure(parts, targets, new Set(off))].sort()).toEqual([...all].sort())
})
it('ends where parts wait for one another', () => {
  const circle = [
    { id: 'a', after: ['b'] },
    { id: 'b', after: ['a'] },
  ]
  expect([...afterClosure(circle, ['a'])]).toEqual(['a', 'b'])
})
