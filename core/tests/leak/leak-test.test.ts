import { describe, expect, it } from 'vitest'
import { leakTest, type LeakTestInput } from '../../src/leak/leak-test.ts'
import { refused } from '../refused.ts'

const base = { atmosphereKpa: 101.3, volumeMl: 650, allowedMlPerMin: 0.25, gaugeResolutionKpa: 0.1 }
const hold = (minutes: number, at: (min: number) => { gaugeKpa: number; tempC?: number }): LeakTestInput => ({
  ...base,
  readings: Array.from({ length: minutes + 1 }, (_, m) => ({ s: m * 60, ...at(m) })),
})

describe('leak test', () => {
  it('takes a case that only cools for tight, and an uncompensated one for leaking', () => {
    const cooling = (m: number) => {
      const tempC = 24 - m / 20
      return { gaugeKpa: (171.3 * (tempC + 273.15)) / 297.15 - 101.3, tempC }
    }
    const known = leakTest(hold(60, cooling))
    expect(known.verdict).toBe('tight')
    expect(known.compensatedDropKpa).toBeCloseTo(0, 9)
    const blind = leakTest(hold(60, (m) => ({ gaugeKpa: cooling(m).gaugeKpa })))
    expect(blind.compensated).toBe(false)
    expect(blind.compensatedDropKpa).toBeCloseTo(171.3 - 171.3 * (294.15 / 297.15), 9)
    // how much cooling explains it: about the three degrees there were
    expect(blind.temperatureExplainsC).toBeCloseTo(2.96, 1)
  })
  it('finds the rate of a straight leak, under pressure and under vacuum alike', () => {
    const under = leakTest(hold(30, (m) => ({ gaugeKpa: 70 - 0.1 * m, tempC: 20 })))
    const vacuum = leakTest(hold(30, (m) => ({ gaugeKpa: -50 + 0.1 * m, tempC: 20 })))
    const k = (650 / 101.325) * (273.15 / 293.15)
    expect(under.leakMlPerMin).toBeCloseTo(0.1 * k, 9)
    expect(vacuum.leakMlPerMin).toBeCloseTo(0.1 * k, 9)
    expect(under.verdict).toBe('leaks')
  })
  it('calls a significant change the other way invalid', () => {
    expect(leakTest(hold(30, (m) => ({ gaugeKpa: 70 + 0.2 * m, tempC: 20 }))).verdict).toBe('invalid')
    expect(leakTest(hold(30, (m) => ({ gaugeKpa: -50 - 0.2 * m, tempC: 20 }))).verdict).toBe('invalid')
  })
  it('says too short until the hold it asked for, and decides after it', () => {
    const still = (minutes: number) =>
      leakTest({ ...base, readings: [0, minutes].map((m) => ({ s: m * 60, gaugeKpa: 70, tempC: 20 })) })
    const needed = still(1).holdNeededMin!
    expect(still(1).verdict).toBe('too-short')
    expect(still(needed).verdict).toBe('tight')
    expect(still(needed).leakUMlPerMin).toBeCloseTo(base.allowedMlPerMin / 2, 9)
  })
  it.each([
    [{ readings: [{ s: 0, gaugeKpa: 70 }] }, 'readings'],
    [
      {
        readings: [
          { s: 0, gaugeKpa: 70 },
          { s: 0, gaugeKpa: 70 },
        ],
      },
      'readings[1].s',
    ],
    [
      {
        readings: [
          { s: 0, gaugeKpa: 70, tempC: 20 },
          { s: 60, gaugeKpa: 70 },
        ],
      },
      'readings[1].tempC',
    ],
    [
      {
        readings: [
          { s: 0, gaugeKpa: 70 },
          { s: 60, gaugeKpa: -102 },
        ],
      },
      'readings[1].gaugeKpa',
    ],
    [
      {
        readings: [
          { s: 0, gaugeKpa: NaN },
          { s: 60, gaugeKpa: 1 },
        ],
      },
      'readings[0].gaugeKpa',
    ],
    [{ volumeMl: 0 }, 'volumeMl'],
    [{ allowedMlPerMin: 0 }, 'allowedMlPerMin'],
    [{ gaugeResolutionKpa: 0 }, 'gaugeResolutionKpa'],
    [{ atmosphereKpa: -1 }, 'atmosphereKpa'],
  ])('refuses %j at %s', (wrong, path) => {
    const good = {
      ...base,
      readings: [
        { s: 0, gaugeKpa: 70 },
        { s: 60, gaugeKpa: 70 },
      ],
    }
    expect(refused(() => leakTest({ ...good, ...wrong } as LeakTestInput)).fields[0]!.path).toBe(path)
  })
})
