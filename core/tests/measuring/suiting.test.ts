import { describe, expect, it } from 'vitest'
import type { GaugeKindId } from '../../src/measuring/gauge-kinds.ts'
import { gaugesFor, suits } from '../../src/measuring/suiting.ts'

const gauge = (id: string, kind: GaugeKindId) => ({ id, kind })
const feelers = gauge('feelers', 'feeler-set')
const dial = gauge('dial', 'plunger-dial')
const arm = gauge('arm', 'backlash-arm')
const ids = (list: { id: string }[]) => list.map((g) => g.id)

describe('gauges for a backlash', () => {
  it('are indicators; feelers stand under the others, whichever came first into the shop', () => {
    const { suiting, others } = gaugesFor([feelers, dial], 'backlash', undefined)
    expect([ids(suiting), ids(others)]).toEqual([['dial'], ['feelers']])
  })
  it('begin with the one that was used last, then with the one that is made for nothing else', () => {
    expect(ids(gaugesFor([dial, arm], 'backlash', undefined).suiting)).toEqual(['arm', 'dial'])
    expect(ids(gaugesFor([dial, arm], 'backlash', 'dial').suiting)).toEqual(['dial', 'arm'])
  })
  it('hold none that suits where the shop has none', () => {
    expect(gaugesFor([feelers], 'backlash', 'feelers')).toEqual({ suiting: [], others: [feelers] })
  })
  it('of a way that no kind is made for all suit', () => {
    expect(suits('feeler-set', 'pair-depth')).toBe(true)
    expect(suits('feeler-set', 'crush')).toBe(true)
    expect(suits('plunger-dial', 'crush')).toBe(false)
  })
})
