import { hiddenOnes, leftHanded, propellerHeld, ringLock } from '../../src/drives/graph/unit-facts.ts'
import { groupProblems, inTheAir } from '../../src/drives/graph/check-graph.ts'
import { describe, expect, it } from 'vitest'
import { checkSheet } from '../../src/drives/check-sheet.ts'
import { FAMILIES, type DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets, lomvi90 } from '../../src/drives/sheets/index.ts'
import { gearTravel, sensitivities } from '../../src/setting/train.ts'
import { isSettable } from '../../src/setting/assess.ts'
import { refused } from '../refused.ts'

describe('sheets that ship', () => {
  it('cover every family, and hang together', () => {
    expect([...new Set(demoSheets.map((s) => s.family))].sort()).toEqual(Object.keys(FAMILIES).sort())
    for (const s of demoSheets) checkSheet(s)
  })
  it.each(demoSheets.map((s) => [s.id, s] as const))(
    '%s knows its fasteners whole, and as its bench does',
    (_, sheet) => {
      const rows = sheet.fasteners!
      expect(rows.length).toBeGreaterThanOrEqual(6)
      expect(rows.length).toBeLessThanOrEqual(16)
      rows.forEach((f, i) => {
        expect(
          groupProblems(
            sheet.graph.groups!.find((g) => g.id === f.id)!,
            `groups[${i}]`,
          ),
        ).toEqual([])
        if (f.torqueNm) expect(f.torqueNm.min!).toBeLessThan(f.torqueNm.max!)
        // what has no torque is locked by a pin, and says so
        else expect(f.lock, f.id).toBe('castle-pin')
      })
      expect(new Set(rows.map((f) => f.id)).size).toBe(rows.length)
      const [lock, hidden, held] = [
        ringLock(sheet.graph),
        hiddenOnes(sheet.graph),
        propellerHeld(sheet.graph),
      ]
      expect(rows.filter((f) => f.hand === 'left').length).toBe(leftHanded(sheet.graph).length)
      if (lock)
        expect(rows.find((f) => f.name === lock.what)).toMatchObject({
          torqueNm: lock.torqueNm,
          tabs: lock.tabs,
        })
      if (hidden) expect(rows.find((f) => f.hidden)).toMatchObject(hidden)
      expect(inTheAir(sheet.graph), 'rows that nothing leads to').toEqual([])
      if (held?.kind === 'tabs') expect(rows.map((f) => f.torqueNm)).toContainEqual(held.torqueNm)
      expect(sheet.service!.every((s) => s.months !== undefined || s.hours !== undefined)).toBe(true)
    },
  )
  it('say of themselves that their numbers are invented', () =>
    expect(demoSheets.every((s) => s.demo)).toBe(true))
  it('know which drives have something to set', () => {
    expect(demoSheets.filter((s) => !isSettable(s)).map((s) => s.id)).toEqual(['teist-6', 'sivkrok-b'])
  })
})

describe('a sheet with a slip in it', () => {
  const broken = (change: (s: DriveSheet) => void) => {
    const sheet = structuredClone(lomvi90)
    change(sheet)
    return refused(() => checkSheet(sheet)).fields.map((f) => f.path)
  }
  it.each([
    ['a gear on no axis', (s: DriveSheet) => (s.gears[0]!.axis = 'nowhere'), 'gears[0].axis'],
    ['teeth that differ', (s: DriveSheet) => (s.gears[0]!.teeth = 14), 'meshes[0].mesh.pinionTeeth'],
    [
      'a window upside down',
      (s: DriveSheet) => (s.measures[0]!.window = { min: 2, max: 1 }),
      'measures[0].window',
    ],
    ['a target outside', (s: DriveSheet) => (s.measures[1]!.target = 9), 'measures[1].target'],
    ['an impossible stack', (s: DriveSheet) => (s.adjusters[0]!.minMm = 5), 'adjusters[0]'],
    ['a stack moving nothing known', (s: DriveSheet) => (s.adjusters[0]!.moves = 'x'), 'adjusters[0].moves'],
    ['ids used twice', (s: DriveSheet) => (s.gears[1]!.id = 'pinion'), 'gears[1].id'],
    [
      'a mesh that cannot be cut',
      (s: DriveSheet) => (s.meshes[0]!.mesh = { ...s.meshes[0]!.mesh, moduleMm: -1 }),
      'meshes[0].mesh.moduleMm',
    ],
    ['an axis backwards', (s: DriveSheet) => (s.axes[0]!.toMm = -500), 'axes[0]'],
    ['no readings wanted', (s: DriveSheet) => (s.measures[0]!.readings = 0), 'measures[0].readings'],
  ])('%s is found', (_, change, path) => expect(broken(change)).toContain(path))
})

describe('gear train', () => {
  it('moves both backlashes with the pinion, in the outboard layout', () => {
    const J = sensitivities(lomvi90)
    expect(J.depth).toEqual({ pinion: 1 })
    expect(J['backlash-forward']!.pinion).toBeCloseTo(J['backlash-reverse']!.pinion!, 12)
    expect(J['backlash-forward']!.pinion).toBeGreaterThan(0)
    expect(J['backlash-forward']!.forward).toBeLessThan(0)
    expect(J['backlash-forward']!.reverse).toBeUndefined()
  })
  it("lets the sheet's rule of thumb replace the geometry", () => {
    const ruled = structuredClone(lomvi90)
    ruled.adjusters[1]!.rules = { 'backlash-forward': -1.1 }
    expect(sensitivities(ruled)['backlash-forward']!.forward).toBe(-1.1)
    expect(sensitivities(ruled)['backlash-forward']!.pinion).toBe(
      sensitivities(lomvi90)['backlash-forward']!.pinion,
    )
  })
  it('turns stack changes into travel with the sign of the effect', () => {
    expect(gearTravel(lomvi90, { pinion: 0.1, forward: 0.1 })).toEqual({
      pinion: 0.1,
      'forward-gear': -0.1,
      'reverse-gear': 0,
    })
  })
})
