import { readdirSync, readFileSync } from 'node:fs'
import { InputError } from '@moray/core/checks/input-error'
import { describe, expect, it } from 'vitest'
import { calculate, calculations, describeCalculation } from '../src/calculations/registry.ts'
import { ShimSolveFields } from '../src/calculations/shim-fields.ts'
import { validate } from '../src/fields/validate.ts'
import { TakeReading } from '../src/requests/reading.ts'
import { EnterStack, TakePlan } from '../src/requests/setting.ts'

function problems(work: () => unknown): { path: string; message: string }[] {
  try {
    work()
  } catch (e) {
    expect(e).toBeInstanceOf(InputError)
    return (e as InputError).fields
  }
  throw new Error('nothing was refused')
}

/** The reference cases of the core, asked through the registry. */
const cases = new URL('../../core/tests/cases/', import.meta.url)

const reading = { build: 0, measure: 'depth', text: '11.6', unit: 'mm', gaugeId: 'g01' }

describe('requests', () => {
  it('pass when they are right, and become instances', () => {
    expect(validate(TakeReading, reading)).toBeInstanceOf(TakeReading)
    const plan = validate(TakePlan, {
      fromBuild: 0,
      stacks: [{ location: 'pinion', pieces: [{ id: 'd1' }] }],
    })
    expect(plan.stacks[0]!.pieces[0]!.id).toBe('d1')
  })

  it.each([
    [{ ...reading, surprise: 1 }, 'surprise', 'not a field'],
    [{ ...reading, build: '0' }, 'build', 'whole number'],
    [{ ...reading, build: 0.5 }, 'build', 'whole number'],
    [{ ...reading, build: -1 }, 'build', 'whole number'],
    [{ ...reading, text: 12 }, 'text', 'must be text'],
    [{ ...reading, text: '' }, 'text', 'empty'],
    [{ ...reading, text: 'x'.repeat(61) }, 'text', '61 characters'],
    [{ ...reading, unit: 'furlong' }, 'unit', 'one of mm, h, t, in'],
    [{ ...reading, gaugeId: undefined }, 'gaugeId', 'missing'],
    [{ ...reading, note: null }, 'note', 'null'],
    [{ ...reading, confirmed: 'yes' }, 'confirmed', 'true or false'],
    [{ ...reading, clockDeg: 400 }, 'clockDeg', 'must not be above 360'],
  ])('%j is refused at %s', (body, path, words) => {
    const [first] = problems(() => validate(TakeReading, body))
    expect(first).toEqual({ path, message: expect.stringContaining(words) })
  })

  it.each([[null], [[]], ['text'], [7], [undefined]])('%j is no request at all', (body) => {
    expect(problems(() => validate(TakeReading, body))[0]!.message).toContain('JSON object')
  })

  it('names the place inside lists', () => {
    const body = {
      location: 'pinion',
      unit: 'mm',
      pieces: [{ text: '0.5' }, { text: '0.5', shape: 'round' }, { lineId: 7 }],
    }
    expect(problems(() => validate(EnterStack, body)).map((p) => p.path)).toEqual([
      'pieces[1].shape',
      'pieces[2].lineId',
    ])
    expect(problems(() => validate(EnterStack, { ...body, pieces: [3] }))[0]!.path).toBe('pieces[0]')
    expect(problems(() => validate(EnterStack, { ...body, pieces: {} }))[0]!.path).toBe('pieces')
    expect(
      problems(() => validate(EnterStack, { ...body, pieces: Array(13).fill({ text: '1' }) }))[0]!.message,
    ).toContain('at most 12')
  })

  it('takes no field from a prototype', () => {
    const body = JSON.parse(
      '{"__proto__": {"build": 0}, "measure": "depth", "text": "1", "unit": "mm", "gaugeId": "g"}',
    )
    expect(problems(() => validate(TakeReading, body)).length).toBeGreaterThan(0)
    expect(({} as Record<string, unknown>).build).toBeUndefined()
  })

  it('refuses what is not a number where numbers belong', () => {
    const quantity = {
      id: 'q',
      measured: 0,
      u: 0.1,
      window: { min: 0, max: 1 },
      target: 0.5,
      sensitivity: { a: 'much' },
    }
    const body = {
      locations: [{ id: 'a', currentMm: 0, minMm: 0, maxMm: 1, maxPieces: 1 }],
      quantities: [quantity],
      pieces: [],
    }
    expect(problems(() => validate(ShimSolveFields, body))[0]!.path).toBe('quantities[0].sensitivity')
    const text = { ...body, quantities: [{ ...quantity, sensitivity: {}, window: 'wide' }] }
    expect(problems(() => validate(ShimSolveFields, text))[0]!.path).toBe('quantities[0].window')
  })
})

describe('the registry', () => {
  it('describes every field of every calculation, with what it is', () => {
    expect(calculations.map((c) => c.name).sort()).toEqual(
      [
        'parse-reading mesh-geometry backlash-transfer depth ride-height runout judge shim-solve trial-update preload crush',
        'shaft-runout backlash-round temperature-effect',
        'gear-from-measures sensitivity-uncertainty float-stack clamp-load pump-volume swing reach service-due',
        'threaded-carrier torque-adapter torque-order lock-alignment leak-test ratio tooth-contact pattern-read fault-rank',
      ]
        .flatMap((line) => line.split(' '))
        .sort(),
    )
    for (const { name } of calculations) {
      const { input, output } = describeCalculation(name)
      expect(input.length, name).toBeGreaterThan(0)
      for (const way of input)
        expect(
          way.every((f) => f.what && f.type),
          name,
        ).toBe(true)
      expect(
        output.every((f) => f.what),
        name,
      ).toBe(true)
    }
  })
  it('describes inherited and nested fields', () => {
    const [fields] = describeCalculation('backlash-transfer').input
    expect(fields!.map((f) => f.name)).toEqual([
      'mesh',
      'readingMm',
      'radiusMm',
      'member',
      'indicatorAngleDeg',
    ])
    expect(fields![0]!.fields!.find((f) => f.name === 'moduleMm')).toMatchObject({
      unit: 'mm',
      type: 'number',
    })
  })
  it('checks a depth by its method', () => {
    expect(
      calculate('depth', { method: 'arbor', readingMm: 30, arborDiameterMm: 20, farSide: false }),
    ).toEqual({ depthMm: 40 })
    expect(
      problems(() =>
        calculate('depth', {
          method: 'arbor',
          readingMm: 30,
          arborDiameterMm: 20,
          farSide: false,
          masterMm: 5,
        }),
      )[0]!.path,
    ).toBe('masterMm')
    expect(problems(() => calculate('depth', { method: 'guess' }))[0]!.path).toBe('method')
    expect(problems(() => calculate('depth', null))[0]!.message).toContain('JSON object')
  })
  it.each(readdirSync(cases).map((f) => [f.replace('.json', '')]))(
    'takes every reference case of %s',
    (name) => {
      const list = JSON.parse(readFileSync(new URL(`${name}.json`, cases), 'utf8')) as { input: object }[]
      expect(list.length).toBeGreaterThan(2)
      for (const { input } of list) expect(Object.keys(calculate(name, input)).length).toBeGreaterThan(0)
    },
  )
  it('knows what it does not know', () => {
    expect(problems(() => calculate('horoscope', {}))[0]!.message).toContain('there are parse-reading')
  })
})
