import { labourOf } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { shimAdjusters } from '../../src/drives/sheet.ts'
import { openingFor } from '../../src/route/opening.ts'

describe.each(demoSheets.map((s) => [s.id, s] as const))('opening %s for a stack', (_, sheet) => {
  const stacks = shimAdjusters(sheet).map((a) => a.id)
  it('takes off what stands before its shims, and never more for one than for all', () => {
    const all = openingFor(sheet, stacks)
    for (const id of stacks) {
      const one = openingFor(sheet, [id])
      expect(all.parts).toEqual(expect.arrayContaining(one.parts))
      expect(one.minutes).toBeLessThanOrEqual(all.minutes + 1e-9)
      const shims = sheet.parts.filter((p) => p.place === `stack:${id}`)
      if (shims.length) expect(one.minutes).toBeGreaterThan(0)
      for (const p of shims)
        for (const a of p.after) expect(one.parts.indexOf(a)).toBeLessThan(one.parts.indexOf(p.id))
    }
    const { openHours, closeHours } = labourOf(sheet.graph)
    expect(all.minutes).toBeLessThanOrEqual(60 * (openHours + closeHours) + 1e-9)
  })
  it('costs nothing where nothing is opened: no stack, or a carrier that is turned', () => {
    expect(openingFor(sheet, [])).toEqual({ parts: [], minutes: 0 })
    const threaded = sheet.adjusters.filter((a) => a.kind === 'threaded').map((a) => a.id)
    expect(openingFor(sheet, threaded).minutes).toBe(0)
  })
})
