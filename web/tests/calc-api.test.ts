import { describe, expect, it } from 'vitest'
import { createCalcApi, type Progress } from '../src/workers/calc-api.ts'

/** A search that runs for seconds when nobody stops it. */
function longQuestion() {
  const ids = ['a', 'b', 'c', 'd', 'e', 'f']
  return {
    locations: ids.map((id) => ({ id, currentMm: 0.6, minMm: 0.2, maxMm: 1.6, maxPieces: 4 })),
    quantities: ids.map((id) => ({
      id,
      measured: 0.9,
      u: 0.01,
      window: { min: 0, max: 0.06 },
      target: 0.03,
      sensitivity: Object.fromEntries(ids.map((other) => [other, other === id ? -0.7 : -0.15])),
    })),
    pieces: Array.from({ length: 60 }, (_, i) => ({
      id: `p${i}`,
      thicknessMm: 0.05 + ((i * 7919) % 997) / 1100,
      count: 4,
    })),
  }
}

describe('calculations in turns', () => {
  it('answer short questions at once', async () => {
    expect(await createCalcApi().run('parse-reading', { text: '16t', quantity: 'length' })).toMatchObject({
      value: 0.4064,
    })
  })
  it('pass refusals on', async () => {
    await expect(createCalcApi().run('parse-reading', { text: '16q', quantity: 'length' })).rejects.toThrow(
      'not understood',
    )
  })
  it('report while they work, and stop when told to', async () => {
    const api = createCalcApi()
    const seen: Progress[] = []
    const answer = await api.run('shim-solve', longQuestion(), (p) => {
      seen.push(p)
      if (seen.length === 3) api.cancel()
    })
    expect(answer).toBe('cancelled')
    expect(seen).toHaveLength(3)
    expect(seen.every((p) => p.stage.length > 0 && Number.isInteger(p.nodes))).toBe(true)
  })
  it('end the earlier question when a newer one comes', async () => {
    const api = createCalcApi()
    let second: Promise<object | 'cancelled'> | undefined
    const first = await api.run('shim-solve', longQuestion(), () => {
      second ??= api.run('parse-reading', { text: '1', quantity: 'length' })
    })
    expect(first).toBe('cancelled')
    expect(await second).toMatchObject({ value: 1 })
  })
})
