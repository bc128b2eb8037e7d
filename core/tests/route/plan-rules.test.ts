import { labourOf } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import type { Part } from '../../src/drives/parts.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { planOf } from '../../src/route/plan.ts'
import { ownScope, usualScope } from '../../src/route/scope.ts'
import { settingsOf } from '../../src/setting/settings-of-part.ts'

const sheetOf = (id: string) => demoSheets.find((s) => s.id === id)!
const lomvi = sheetOf('lomvi-90')
const ids = (parts: readonly { id: string }[]) => parts.map((p) => p.id)
const reasons = (
  sheet: DriveSheet,
  ...more: Parameters<typeof planOf> extends [unknown, ...infer R] ? R : never
) => Object.fromEntries(planOf(sheet, ...more).renew.map((r) => [r.part, r.why]))
/** A drive with one part more, or one that is otherwise. */
const withPart = (part: Partial<Part> & { id: string }): DriveSheet => {
  const like = lomvi.parts.find((p) => p.id === part.id)
  const made = { name: part.id, kind: 'other', count: 1, after: [], inside: false, ...like, ...part } as Part
  return { ...lomvi, parts: [...lomvi.parts.filter((p) => p.id !== part.id), made] }
}

describe('what a scope reaches', () => {
  it('a seal that comes out after a part that shifts is one of the shift shaft, whatever else has to be off', () => {
    const sheet = withPart({ id: 'rod-seal', kind: 'seal', after: ['carrier', 'shift-rod'] })
    expect(usualScope(sheet, 'shift-seal').targets).toEqual(
      expect.arrayContaining(['shift-seal', 'rod-seal']),
    )
    expect(usualScope(sheet, 'shift-seal').targets).not.toContain('prop-seals')
  })
  it('a strike and a service leave the unit on the boat, with the propeller and what locks it off', () => {
    for (const usual of ['strike', 'service']) {
      const { mounted, targets } = usualScope(lomvi, usual)
      expect(mounted, usual).toBe(true)
      expect(targets, usual).toEqual(expect.arrayContaining(['propeller', 'prop-lock']))
    }
  })
  it('a ring comes off once all that hold it are off, not some of them', () => {
    const sheet = withPart({ id: 'two-ring', kind: 'ring', after: ['pump-cover', 'carrier'] })
    expect(ids(planOf(sheet, usualScope(sheet, 'pump')).off)).not.toContain('two-ring')
    expect(ids(planOf(sheet, usualScope(sheet, 'seals:propshaft')).off)).not.toContain('two-ring')
    expect(ids(planOf(sheet, usualScope(sheet, 'full')).off)).toContain('two-ring')
  })
  it('shims and washers lie loose once all that hold them are off', () => {
    const sheet = withPart({ id: 'two-shim', kind: 'shim', after: ['pump-cover', 'carrier'] })
    expect(ids(planOf(sheet, usualScope(sheet, 'pump')).off)).not.toContain('two-shim')
  })
})

describe('what is new', () => {
  it('by the school of cups a cup goes with its bearing, and a carrier of the same make does not', () => {
    const bearing = { condemned: ['forward-taper'] }
    const pair = lomvi.parts.filter((p) => p.id === 'forward-taper' || p.id === 'forward-cup')
    const sheet = {
      ...lomvi,
      parts: lomvi.parts.map((p) => (pair.includes(p) || p.id === 'carrier' ? { ...p, set: 'forward' } : p)),
    }
    const scope = usualScope(lomvi, 'full')
    const renewed = reasons(sheet, scope, { cups: 'renew' }, bearing)
    expect(renewed['forward-cup']).toBe('school')
    // it is sold with it here, and that is another reason
    expect(renewed['carrier']).toBe('set')
  })
  it('what is sold together is new together, unless it was only reached', () => {
    const sheet = {
      ...lomvi,
      parts: lomvi.parts.map((p) =>
        ['prop-seals', 'propeller'].includes(p.id) ? { ...p, set: 'stern' } : p,
      ),
    }
    expect(reasons(sheet, usualScope(sheet, 'clutch'))['propeller']).toBeUndefined()
    expect(reasons(sheet, usualScope(sheet, 'seals:propshaft'))['propeller']).toBe('set')
  })
  it('what is only looked at after a blow is not new for that', () => {
    expect(reasons(lomvi, { ...usualScope(lomvi, 'strike'), mode: 'rebuild' })).toEqual({})
  })
})

describe('how long it takes', () => {
  it('is never less than a small part of opening and closing', () => {
    const labour = labourOf(lomvi.graph)
    const test = planOf(lomvi, usualScope(lomvi, 'test'))
    expect(test.off).toEqual([])
    expect(test.hours).toBeCloseTo(0.12 * (labour.openHours + labour.closeHours), 9)
  })
  it('lets oil out where a unit is opened, and never of one that came empty', () => {
    expect(planOf(sheetOf('alke-2-lower'), usualScope(sheetOf('alke-2-lower'), 'refit')).drains).toBe(false)
    expect(
      planOf(sheetOf('alke-2-lower'), { ...ownScope(sheetOf('alke-2-lower'), ['shift-seal']) }).drains,
    ).toBe(true)
  })
})

describe('what a part carries', () => {
  const of = (sheet: DriveSheet, id: string) =>
    settingsOf(
      sheet,
      sheet.parts.find((p) => p.id === id)!,
    )
  it('a bearing the gear on its side of the shaft, and a needle none', () => {
    expect(of(lomvi, 'forward-taper')).toEqual(expect.arrayContaining(['backlash-forward']))
    expect(of(lomvi, 'forward-taper')).not.toContain('backlash-reverse')
    expect(of(lomvi, 'carrier-needle')).toEqual([])
  })
  it('a stack that sets a preload no end play; one that moves nothing the end play of its shaft', () => {
    const axis = lomvi.adjusters[0]!.axis
    const play = {
      id: 'play',
      label: 'Play',
      kind: 'end-play',
      axis,
      window: { min: 0.1, max: 0.2 },
      readings: 1,
    }
    const free = (setBy: string | undefined) =>
      ({
        ...lomvi,
        measures: [...lomvi.measures, play],
        adjusters: lomvi.adjusters.map((a, i) => (i ? a : { ...a, moves: undefined, setBy })),
      }) as unknown as DriveSheet
    const shims = lomvi.parts.find((p) => p.place === `stack:${lomvi.adjusters[0]!.id}`)!
    expect(settingsOf(free(undefined), shims)).toContain('play')
    expect(settingsOf(free('preload'), shims)).not.toContain('play')
  })
})

describe('a new clutch', () => {
  const scope = (sheet: DriveSheet) => usualScope(sheet, 'clutch')
  it('comes with the pin and spring that hold it, or with what is sold with it', () => {
    expect(reasons(lomvi, scope(lomvi))).toMatchObject({ 'clutch-dog': 'wanted', 'dog-spring': 'holds' })
    const upper = sheetOf('havsule-duo-upper')
    expect(reasons(upper, scope(upper))).toMatchObject({ cone: 'wanted', 'cone-springs': 'holds' })
    const worn = { condemned: ['clutch-dog'] }
    expect(reasons(lomvi, usualScope(lomvi, 'full'), {}, worn)).toMatchObject({
      'clutch-dog': 'condemned',
      'dog-spring': 'holds',
    })
  })
  it('is not asked for by a new spring', () => {
    const renewed = reasons(lomvi, usualScope(lomvi, 'seals:propshaft'), {}, { condemned: ['dog-spring'] })
    expect(renewed['dog-spring']).toBe('condemned')
    expect(renewed['clutch-dog']).toBeUndefined()
  })
})
