import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Quantity } from '../../src/units/factors.ts'
import { parseReading } from '../../src/units/notation.ts'
import { refused } from '../refused.ts'

const length = (text: string, unit?: string, dialPerTurnMm?: number) =>
  parseReading({
    text,
    quantity: 'length',
    ...(unit ? { unit } : {}),
    ...(dialPerTurnMm ? { dialPerTurnMm } : {}),
  }).value

describe('lengths as said or scribbled', () => {
  it.each([
    ['23t', 0.5842],
    ['23 thou', 0.5842],
    ['23THOU', 0.5842],
    ['42h', 0.42],
    ['.023in', 0.5842],
    ['.023"', 0.5842],
    ['0,42 mm', 0.42],
    ['0.42mm', 0.42],
    ['+0.42 MM', 0.42],
    ['-0.1', -0.1],
    ['−0.1', -0.1],
    ['1/8in', 3.175],
    ['2 1/4"', 57.15],
    ['  1 / 8 inch ', 3.175],
    ['5um', 0.005],
    ['12.', 12],
    ['1e', NaN],
  ])('%s', (text, mm) => {
    if (Number.isNaN(mm)) refused(() => length(text))
    else expect(length(text)).toBeCloseTo(mm, 12)
  })

  it('gives a bare number the unit of the field', () => {
    expect(length('16', 't')).toBeCloseTo(0.4064, 12)
    expect(length('42', 'h')).toBeCloseTo(0.42, 12)
    expect(length('0.5')).toBe(0.5)
    expect(length('1/8', 'in')).toBeCloseTo(3.175, 12)
  })

  it('counts turns of the dial', () => {
    expect(length('4r 37t', 'mm', 2.54)).toBeCloseTo(4 * 2.54 + 0.037 * 25.4, 12)
    expect(length('2r 35h', 'mm', 1)).toBeCloseTo(2.35, 12)
    expect(length('2r35h', 'mm', 1)).toBeCloseTo(2.35, 12)
    expect(length('3r', 'mm', 1)).toBe(3)
    expect(length('3r 0.4', 'mm', 1)).toBeCloseTo(3.4, 12)
    expect(length('-2r 35h', 'mm', 1)).toBeCloseTo(-2.35, 12)
  })

  it.each([
    ['', 'empty'],
    ['   ', 'empty'],
    ['abc', 'character 1 "a"'],
    ['12x', 'character 3 "x"'],
    ['12mq', 'character 4 "q"'],
    ['1.2.3', 'character 4 "."'],
    ['12 34', 'two numbers in a row'],
    ['1/8mm', 'inches only'],
    ['1/8t', 'inches only'],
    ['1/0in', 'not 0 below the line'],
    ['1.5 1/4in', 'whole number'],
    ['1/', 'under the fraction line'],
    ['27ftlb', 'character 3 "f"'],
    ['2r 35h', 'no dial is chosen'],
    ['23 -t', 'character 4 "-"'],
    ['NaN', 'character 1 "N"'],
    ['Infinity', 'character 1 "I"'],
    ['1e5', 'character 2 "e"'],
    ['0x10', 'character 2 "x"'],
  ])('refuses %s, saying %s', (text, words) => {
    expect(refused(() => length(text)).message).toContain(words)
  })

  it('refuses a pointer past one turn: the counter or the unit is misread', () => {
    expect(refused(() => length('2r 101h', 'mm', 1)).code).toBe('pointer-past-turn')
    expect(refused(() => length('4r 37', 'mm', 2.54)).code).toBe('pointer-past-turn')
    expect(refused(() => length('2.5r 3h', 'mm', 1)).message).toContain('turns of the dial are whole')
  })
})

describe('other quantities', () => {
  it.each([
    ['27ftlb', 'torque', 36.60708460494781],
    ['27 ft-lb', 'torque', 36.60708460494781],
    ['27 lbft', 'torque', 36.60708460494781],
    ['145inlb', 'torque', 16.382800209004422],
    ['24Nm', 'torque', 24],
    ['24 N·m', 'torque', 24],
    ['2.4kgm', 'torque', 23.53596],
    ['12psi', 'pressure', 82.7370875180203],
    ['0.8bar', 'pressure', 80],
    ['80kPa', 'pressure', 80],
    ['-15inHg', 'pressure', -50.795829605115],
    ['68F', 'temperature', 20],
    ['20C', 'temperature', 20],
    ['-4 °F', 'temperature', -20],
    ['293.15K', 'temperature', 20],
    ['30', 'angle', 30],
    ['30°', 'angle', 30],
  ] as [string, Quantity, number][])('%s as %s', (text, quantity, value) => {
    expect(parseReading({ text, quantity }).value).toBeCloseTo(value, 9)
  })

  it('knows which quantities have no minus sign', () => {
    expect(refused(() => parseReading({ text: '-5Nm', quantity: 'torque' })).message).toContain(
      'no minus sign',
    )
  })

  it('refuses what is no quantity, no unit, no text, too long', () => {
    refused(() => parseReading({ text: '5', quantity: 'mass' as never }))
    refused(() => parseReading({ text: '5', quantity: 'length', unit: 'psi' }))
    refused(() => parseReading({ text: 5 as never, quantity: 'length' }))
    refused(() => parseReading({ text: '1'.repeat(61), quantity: 'length' }))
    refused(() => parseReading({ text: '5', quantity: '__proto__' as never }))
    refused(() => parseReading({ text: '5', quantity: 'length', unit: 'constructor' }))
  })
})

describe('properties', () => {
  it('never answers anything but a finite number or a refusal', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20 }), (text) => {
        try {
          return Number.isFinite(parseReading({ text, quantity: 'length' }).value)
        } catch (e) {
          return (e as Error).name === 'InputError'
        }
      }),
      { numRuns: 2000, seed: 7 },
    )
  })

  it('reads back what it wrote, in every unit, with point or comma', () => {
    const scale = { mm: 1, h: 0.01, t: 0.0254, in: 25.4 }
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99999 }),
        fc.constantFrom('mm', 'h', 't', 'in'),
        fc.boolean(),
        (n, unit, comma) => {
          const text = (n / 1000).toFixed(3)
          const value = length(`${comma ? text.replace('.', ',') : text} ${unit}`)
          expect(value).toBeCloseTo((n / 1000) * scale[unit as keyof typeof scale], 9)
        },
      ),
      { seed: 11 },
    )
  })
})
