import { InputError } from '@moray/core/checks/input-error'
import Ajv from 'ajv/dist/2020.js'
import { describe, expect, it } from 'vitest'
import { calculate, calculations, describeCalculation } from '../src/calculations/registry.ts'
import { TakeReading } from '../src/requests/reading.ts'
import { EnterStack } from '../src/requests/setting.ts'
import { SetShopRules } from '../src/requests/shop.ts'
import { CloseStep } from '../src/requests/route.ts'
import { schemaOf } from '../src/fields/schema.ts'
import { validate } from '../src/fields/validate.ts'
import { allSchemas } from '../src/schemas.ts'
import { examples } from '../src/calculations/examples.ts'

/** Figures at which a computation may leave what it can say. */
const SIZES = [1e308, -1e308, 1e200, 1e60, 1e6, -1e6, 1e-308, 1e-12, 0, -0, -1]
const OTHERS: unknown[] = [null, '', 'x', '\ud800', true, {}, [], { constructor: { a: 1 } }, [null], [[[]]]]

const run = (name: string, input: object): 'computed' | 'refused' => {
  try {
    const text = JSON.stringify(calculate(name, input))
    expect(text).not.toMatch(/NaN|Infinity/)
    return 'computed'
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    expect(e.fields.length).toBeGreaterThan(0)
    return 'refused'
  }
}

/** Every figure, text and list of an input, with a setter for a copy of it. */
function places(input: object): ((value: unknown) => object)[] {
  const found: ((value: unknown) => object)[] = []
  const walk = (value: unknown, put: (v: unknown) => object) => {
    found.push(put)
    if (typeof value !== 'object' || value === null) return
    for (const [key, inner] of Object.entries(value).slice(0, 12))
      walk(inner, (v) =>
        put(
          Array.isArray(value)
            ? value.map((x, i) => (String(i) === key ? v : (x as unknown)))
            : { ...value, [key]: v },
        ),
      )
  }
  for (const [key, value] of Object.entries(input)) walk(value, (v) => ({ ...input, [key]: v }))
  return found
}

describe('every calculation', () => {
  it('has an example here', () =>
    expect(Object.keys(examples).sort()).toEqual(calculations.map((c) => c.name).sort()))
  it.each(calculations.map((c) => c.name))(
    '%s computes finite figures or refuses by name, whatever stands at whichever place',
    (name) => {
      const input = examples[name]!
      expect(run(name, input)).toBe('computed')
      const counts = { computed: 0, refused: 0 }
      for (const put of places(input).slice(0, 60))
        for (const v of [...SIZES, ...OTHERS]) counts[run(name, put(v))]++
      expect(counts.refused).toBeGreaterThan(OTHERS.length)
    },
  )
  it('names in its description what its result has', () => {
    for (const { name } of calculations) {
      const result = calculate(name, examples[name]!) as Record<string, unknown>
      const named = describeCalculation(name).output.map((o) => o.name)
      for (const key of Object.keys(result)) expect(named, `${name}.${key}`).toContain(key)
    }
  })
})

describe('the JSON Schemas', () => {
  const ajv = new Ajv({ strict: false, allErrors: false, unicodeRegExp: true })
  it('are schemas, one for every write and calculation', () => {
    const all = allSchemas()
    expect(Object.keys(all).length).toBeGreaterThan(45)
    for (const [name, schema] of Object.entries(all)) expect(ajv.validateSchema(schema), name).toBe(true)
  })
  it('take every example that the classes take', () => {
    const all = allSchemas()
    for (const [name, input] of Object.entries(examples)) {
      const ok = ajv.validate(all[`calc ${name}`]!, input)
      expect(ok, `${name} ${ajv.errorsText()}`).toBe(true)
    }
  })
  it.each([
    [TakeReading, { build: 0, measure: 'm', text: '.4', unit: 'mm', gaugeId: 'g' }],
    [TakeReading, { build: -1, measure: 'm', text: '.4', unit: 'mm', gaugeId: 'g' }],
    [TakeReading, { build: 0.5, measure: 'm', text: '.4', unit: 'mm', gaugeId: 'g' }],
    [TakeReading, { build: 0, measure: 'm', text: '.4', unit: 'cm', gaugeId: 'g' }],
    [TakeReading, { build: 0, measure: 'm', text: 'a\u0000', unit: 'mm', gaugeId: 'g' }],
    [TakeReading, { build: 0, measure: 'm', text: '.4', unit: 'mm', gaugeId: 'g', mood: 'good' }],
    [TakeReading, { measure: 'm', text: '.4', unit: 'mm', gaugeId: 'g' }],
    [EnterStack, { location: 'p', unit: 'mm', pieces: [{ text: '.4' }] }],
    [EnterStack, { location: 'p', unit: 'mm', pieces: Array(13).fill({ text: '1' }) }],
    [EnterStack, { location: 'p', unit: 'mm', pieces: [{ text: 4 }] }],
    [EnterStack, { location: 'p', unit: 'mm', pieces: {} }],
    [SetShopRules, { departuresNeedLead: true, rate: 1, consumables: 1, currency: 'kr', stands: [] }],
    [SetShopRules, { departuresNeedLead: 'yes', rate: 1, consumables: 1, currency: 'kr', stands: ['a'] }],
    [SetShopRules, { departuresNeedLead: true, rate: -1, consumables: 1, currency: 'kr', stands: ['a'] }],
    [CloseStep, { step: 's', answers: { a: true, b: 1, c: 'x' } }],
    [CloseStep, { step: 's', answers: { a: [] } }],
    [CloseStep, { step: 's', answers: { a: 1e9 } }],
  ] as [new () => object, object][])('agree with the class %o about %j', (owner, body) => {
    let taken = true
    try {
      validate(owner, body)
    } catch {
      taken = false
    }
    expect(ajv.validate(schemaOf(owner), body)).toBe(taken)
  })
})
