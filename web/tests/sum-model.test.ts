import { examples } from '@moray/contract/calculations/examples'
import { calculations, describeCalculation } from '@moray/contract/calculations/registry'
import { describe, expect, it } from 'vitest'
import { guides } from '../src/sums/guides.ts'
import { numberOf, toInput, toTyped } from '../src/sums/sum-model.ts'

describe('forms made from descriptions', () => {
  it.each(calculations.map((c) => [c.name, c] as const))(
    '%s: the example goes into the form and comes out as it was',
    (name, c) => {
      const guide = guides[name]
      expect(guide, name).toBeDefined()
      expect(guide!.formula.length).toBeGreaterThan(20)
      const fields = describeCalculation(name).input.find((way) => {
        const method = way.find((f) => f.name === 'method')
        return !method || method.values?.includes(examples[name]!.method as string)
      })!
      const { input, problems } = toInput(fields, toTyped(fields, examples[name]!))
      expect(problems).toEqual({})
      expect(input).toEqual(examples[name]!)
      // and the registry takes it
      const turns = c.turns(input)
      let turn = turns.next()
      while (!turn.done) turn = turns.next()
      for (const { name: field } of c.output.slice(0, 1)) expect(turn.value).toHaveProperty(field)
    },
  )

  it('reads bench notation where the unit is one of the bench, and plain numbers elsewhere', () => {
    const problems = {}
    expect(numberOf('16t', 'mm', 'a', problems)).toBeCloseTo(0.4064, 12)
    expect(numberOf('27 ft-lb', 'Nm', 'a', problems)).toBeCloseTo(36.607, 3)
    expect(numberOf('0,25', 'ml/min', 'a', problems)).toBe(0.25)
    expect(numberOf('1e3', undefined, 'a', problems)).toBe(1000)
    expect(problems).toEqual({})
    expect(numberOf('16t', undefined, 'b', problems)).toBeUndefined()
    expect(numberOf('x', 'mm', 'c', problems)).toBeUndefined()
    expect(Object.keys(problems)).toEqual(['b', 'c'])
  })

  it('names the place of what is not understood, rows and all', () => {
    const [fields] = describeCalculation('preload').input
    const typed = toTyped(fields!, examples.preload!)
    ;(typed.trials as Record<string, string>[])[1]!.torqueNm = 'firm'
    expect(Object.keys(toInput(fields!, typed).problems)).toEqual(['trials[1].torqueNm'])
  })

  it('leaves out what is optional and empty', () => {
    const [fields] = describeCalculation('runout').input
    const { input } = toInput(fields!, toTyped(fields!, { readingsMm: [1, 2, 3] }))
    expect(input).toEqual({ readingsMm: [1, 2, 3] })
  })
})
