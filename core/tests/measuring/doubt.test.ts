import { describe, expect, it } from 'vitest'
import { doubtOf, doubtWords } from '../../src/measuring/doubt.ts'

const gauge = { resolution: 0.01, mpe: 0.01, repeatability: 0.003 }
const depth = { min: 38.37, max: 38.43 }

describe('a reading that is asked about', () => {
  it.each([
    // 11.48, then 23 at the depth gauge: 11.5 mm apart
    [38.523, [], undefined],
    [27.003, [], 'far'],
    [27.003, [38.523], 'apart'],
    [38.53, [38.523], undefined],
    // what the readings before have scattered is explained
    [0.6, [0.45, 0.5], undefined],
    [0.76, [0.45, 0.5], 'apart'],
    [0.05, [0.45], 'apart'],
  ] as const)('%s after %j: %s', (value, counted, kind) =>
    expect(doubtOf(value, counted, gauge, depth)?.kind).toBe(kind),
  )
  it('knows how far it stands apart, on either side', () => {
    expect(doubtOf(1, [0.45, 0.46], gauge, {})?.byMm).toBeCloseTo(0.54, 12)
    expect(doubtOf(0.1, [0.45, 0.46], gauge, {})?.byMm).toBeCloseTo(0.35, 12)
  })
  it('never misses an open side of a window', () => {
    expect(doubtOf(50, [], gauge, { min: 1 })).toBeUndefined()
    expect(doubtOf(50, [], gauge, { max: 0.9 })).toMatchObject({ kind: 'far' })
    expect(doubtOf(2.3, [], gauge, { max: 0.9 })).toBeUndefined()
    expect(doubtOf(2.5, [], gauge, { max: 0.9 })).toMatchObject({ kind: 'far' })
    // a wide window is missed by twenty widths only
    expect(doubtOf(3, [], gauge, { min: 0, max: 0.2 })).toBeUndefined()
    expect(doubtOf(4.3, [], gauge, { min: 0, max: 0.2 })).toMatchObject({ kind: 'far' })
  })
  it('says what to look at', () => {
    expect(doubtWords({ kind: 'apart', byMm: 11.52 }, true)).toMatch(/11\.52 mm .*apart.*turn counter/)
    expect(doubtWords({ kind: 'far', byMm: 11.367 }, true)).toMatch(/11\.37 mm .*outside.*master/)
    // feelers have no pointer; and an inch shop reads inches
    expect(doubtWords({ kind: 'far', byMm: 37.85 }, false)).not.toMatch(/turn counter|master/)
    expect(doubtWords({ kind: 'far', byMm: 37.85 }, false)).toContain('1.4902 in')
  })
})
