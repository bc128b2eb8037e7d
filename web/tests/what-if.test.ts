import { demoSheets } from '@moray/core/drives/sheets/index'
import { solverInput } from '@moray/core/setting/assess'
import type { ShimPlan } from '@moray/core/setting/shim-solve'
import { trueReading, virtualCase } from '@moray/core/simulation/virtual-case'
import { flushPromises } from '@vue/test-utils'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { couplings } from '../src/job/panels/decide/couplings.ts'
import WhatIf from '../src/job/panels/decide/WhatIf.vue'
import { fixtureJob, mountPart } from './job-fixture.ts'

afterEach(() => vi.unstubAllGlobals())

const sheet = demoSheets.find((s) => s.id === 'lomvi-90')!
const gearcase = virtualCase(sheet, () => 0.5)
const gauge = { resolution: 0.01, mpe: 0.005, repeatability: 0.005 }
/** The question to the solver of a case that was read three times each. */
const question = solverInput(
  sheet,
  {
    stacks: gearcase.stacks,
    readings: Object.fromEntries(
      sheet.measures.map((m) => {
        const value = trueReading(gearcase, m.id, gearcase.stacks)
        return [m.id, [1, 2, 3].map(() => ({ value, gauge }))]
      }),
    ),
  },
  [],
)
const say = (mm: number, digits: number) => `${mm.toFixed(digits)} mm`
const units = { length: say, of: () => ({ say }) }

describe('couplings in words', () => {
  it('name every measure that a stack moves, with sign and size, and no other', () => {
    const pinion = couplings(question, 'pinion', sheet, units as never)
    expect(pinion).toMatch(/^0\.10 mm more moves pinion depth by [+−]0\.100 mm/)
    expect(pinion).toContain('forward backlash')
    const forward = couplings(question, 'forward', sheet, units as never)
    expect(forward).toMatch(/moves forward backlash by −0\.\d{3} mm\.$/)
    expect(couplings(question, 'nothing', sheet, units as never)).toBe('It moves nothing that is measured.')
  })
})

describe('what if', () => {
  const mounted = () => mountPart(WhatIf, fixtureJob(), { question, busy: false })
  it('moves what will be read with the stack, by key and by hand, and goes back to what is built', async () => {
    const { wrapper } = await mounted()
    const previews = () => (wrapper.emitted('preview') ?? []).map(([p]) => p as ShimPlan | null)
    const slider = wrapper.get<HTMLInputElement>('#if-forward')
    await slider.trigger('keydown', { key: '+' })
    await wrapper.get('button[aria-label="Forward shims: thicker"]').trigger('click')
    const before = question.quantities.find((q) => q.id === 'backlash-forward')!
    const after = previews().at(-1)!
    const moved = 0.02 * before.sensitivity['forward']!
    expect(after.predicted['backlash-forward']!.value - before.measured).toBeCloseTo(moved, 6)
    expect(after.predicted['depth']!.value).toBeCloseTo(
      question.quantities.find((q) => q.id === 'depth')!.measured,
      9,
    )
    expect(after.stacks['forward']!.thicknessMm).toBeCloseTo(gearcase.stacks['forward']! + 0.02, 6)
    await slider.setValue(String(gearcase.stacks['forward']! + 0.2))
    expect(wrapper.text()).toMatch(/Lands in every window with\s*\d+ %/)
    await wrapper
      .findAll('button')
      .find((b) => b.text() === 'Back to what is built')!
      .trigger('click')
    await flushPromises()
    expect(previews().at(-1)).toBeNull()
  })
  it('stays within what the stack may be, and offers the drawer only once something was moved', async () => {
    const { wrapper } = await mounted()
    const seek = () => wrapper.findAll('button').find((b) => b.text() === 'Look for these in the drawer')!
    expect(seek().attributes('disabled')).toBeDefined()
    const thinner = wrapper.get('button[aria-label="Pinion shims: thinner"]')
    for (let n = 0; n < 200; n++) await thinner.trigger('click')
    const plan = (wrapper.emitted('preview')!.at(-1) as [ShimPlan])[0]
    const pinion = sheet.adjusters.find((a) => a.id === 'pinion')!
    expect(plan.stacks['pinion']!.thicknessMm).toBeCloseTo(pinion.minMm, 9)
    expect(seek().attributes('disabled')).toBeUndefined()
  })
})
