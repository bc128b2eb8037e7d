import { describe, expect, it } from 'vitest'
import { contactTeeth, pairAfter, pairStands, USUAL_CROWN } from '../../src/contact/as-set.ts'
import { sideOf, FLANKS } from '../../src/gears/flank.ts'
import { contactSolver, patchLine, toothContact } from '../../src/contact/tooth-contact.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { gearFromMeasures, usualAddenda } from '../../src/gears/gear-from-measures.ts'
import { meshGeometry } from '../../src/gears/mesh.ts'
import { armFactor } from '../../src/gears/backlash.ts'
import { sensitivities } from '../../src/setting/train.ts'
import { random } from '../refused.ts'

const lomvi = demoSheets.find((s) => s.id === 'lomvi-90')!
const forward = lomvi.meshes.find((m) => m.id === 'forward') ?? lomvi.meshes[0]!

describe('the teeth of a pair for its contact', () => {
  it('has all that the contact needs on every demo sheet, and says what was assumed', () => {
    for (const sheet of demoSheets)
      for (const pair of sheet.meshes) {
        const { mesh, pushed, assumed } = contactTeeth(pair)
        expect(assumed, sheet.id).toContain('crowning')
        for (const flank of FLANKS) {
          const patch = patchLine(
            contactSolver(mesh, sideOf(flank, { mesh, pushed })),
            { pinionMm: 0, gearMm: 0, offsetMm: 0, shaftAngleErrorDeg: 0 },
            USUAL_CROWN,
          )!
          expect(Math.abs(patch.centroidLength), `${sheet.id} ${pair.id} ${flank}`).toBeLessThan(0.12)
          expect(Math.abs(patch.centroidProfile), `${sheet.id} ${pair.id} ${flank}`).toBeLessThan(0.25)
          expect(patch.outline.length).toBeGreaterThan(10)
        }
      }
  })
  it('takes the addenda of the usual proportions: those that measured diameters would give', () => {
    const mesh = { pinionTeeth: 13, gearTeeth: 28, moduleMm: 4.2, faceWidthMm: 17, spiralAngleDeg: 35 }
    const usual = usualAddenda(mesh)
    const { gearPitchAngleDeg } = meshGeometry(mesh)
    const outside = 28 * 4.2 + 2 * usual.gearAddendumMm * Math.cos((gearPitchAngleDeg * Math.PI) / 180)
    const found = gearFromMeasures({ pinionTeeth: 13, gearTeeth: 28, form: 'spiral', gearOutsideMm: outside })
    expect(found.moduleMm).toBeCloseTo(4.2, 9)
    expect(found.pinionAddendumMm).toBeCloseTo(usual.pinionAddendumMm, 9)
    expect(usual.pinionAddendumMm).toBeGreaterThan(usual.gearAddendumMm)
  })
  it('leaves what is given as it is', () => {
    const given = { ...forward.mesh, gearAddendumMm: 2.1, pinionAddendumMm: 4.4, cutterRadiusMm: 51 }
    const { mesh, assumed } = contactTeeth({ ...forward, mesh: given })
    expect(mesh).toEqual(given)
    expect(assumed).toEqual(['crowning'])
    expect(contactTeeth({ ...forward, basis: 'drawn' }).assumed).toContain('angles')
  })
  it('says of a pair measured by calliper what was put in: addenda and cutter always, an angle only where nobody took it', () => {
    const given = { ...forward.mesh, gearAddendumMm: 2.1, pinionAddendumMm: 4.4, cutterRadiusMm: 51 }
    const u = { pressureAngleDeg: 0.25, spiralAngleDeg: 1, faceWidthMm: 0.3, moduleRel: 0.01 }
    const measured = (more: object) =>
      contactTeeth({ ...forward, mesh: given, basis: 'measured', u: { ...u, ...more } }).assumed
    expect(measured({})).toEqual(['addenda', 'cutter', 'crowning'])
    expect(measured({ spiralAngleDeg: 2.5 })).toEqual(['addenda', 'cutter', 'angles', 'crowning'])
    expect(measured({ pressureAngleDeg: 1.25 })).toContain('angles')
    const straight = { ...given, spiralAngleDeg: 0 }
    expect(contactTeeth({ ...forward, mesh: straight, basis: 'measured', u }).assumed).toEqual([
      'addenda',
      'crowning',
    ])
  })
})

describe('where a pair stands by the gauges', () => {
  const depth = lomvi.measures.find((m) => m.kind === 'depth')!
  const backlash = lomvi.measures.find((m) => m.kind === 'backlash' && m.mesh === forward.id)!
  const known = (d: number, b: number, u = 0.005) => ({
    [depth.id]: { value: depth.target! + d, u },
    [backlash.id]: { value: backlash.target! + b, u },
  })

  it('is right where both are on target', () => {
    const at = pairStands(lomvi, forward, known(0, 0))!
    expect(at.pinionMm).toBeCloseTo(0, 12)
    expect(at.gearMm).toBeCloseTo(0, 12)
    expect(at.pinionUMm).toBeCloseTo(0.01, 12)
  })
  it('gives back what a virtual pair was set to, in 200 cases', () => {
    const r = random(5)
    const { backlashPerPinionMm: c1, backlashPerGearMm: c2 } = meshGeometry(forward.mesh)
    if (backlash.kind !== 'backlash') throw new Error('no backlash')
    const arm = armFactor(forward.mesh, backlash.member, backlash.radiusMm)
    for (let i = 0; i < 200; i++) {
      const [p, g] = [(r() - 0.5) * 0.4, (r() - 0.5) * 0.4]
      const at = pairStands(lomvi, forward, known(p, (c1 * p + c2 * g) * arm))!
      expect(at.pinionMm).toBeCloseTo(p, 9)
      expect(at.gearMm).toBeCloseTo(g, 9)
    }
  })
  it('takes the pinion to stand right where no depth was read, and says so; without backlash it says nothing', () => {
    const { [backlash.id]: only } = known(0, 0.1)
    expect(pairStands(lomvi, forward, { [backlash.id]: only })).toMatchObject({
      pinionMm: 0,
      depthKnown: false,
    })
    expect(pairStands(lomvi, forward, { [depth.id]: { value: 40, u: 0.01 } })).toBeUndefined()
  })
  it('says nothing of teeth that are only drawn, nor at a radius that nobody has measured', () => {
    expect(pairStands(lomvi, { ...forward, basis: 'drawn' }, known(0, 0))).toBeUndefined()
    const lacking = { ...lomvi, lacks: [`measures.${backlash.id}.radiusMm`] }
    expect(pairStands(lacking, forward, known(0, 0))).toBeUndefined()
  })
  it('moves with the stacks as the gear train does: the backlash that follows is the one that the stacks predict', () => {
    const stacks = { [lomvi.adjusters.find((a) => a.moves === forward.pinion)!.id]: 0.1 }
    const before = pairStands(lomvi, forward, known(0.02, -0.03))!
    const after = pairAfter(lomvi, forward, before, stacks)
    const { backlashPerPinionMm: c1, backlashPerGearMm: c2 } = meshGeometry(forward.mesh)
    if (backlash.kind !== 'backlash') throw new Error('no backlash')
    const arm = armFactor(forward.mesh, backlash.member, backlash.radiusMm)
    const moved = (c1 * (after.pinionMm - before.pinionMm) + c2 * (after.gearMm - before.gearMm)) * arm
    // the geometry's own entry; a rule of the sheet may say otherwise
    const bare = { ...lomvi, adjusters: lomvi.adjusters.map(({ rules: _rules, ...a }) => a) }
    const predicted = Object.entries(stacks).reduce(
      (sum, [id, mm]) => sum + (sensitivities(bare)[backlash.id]![id] ?? 0) * mm,
      0,
    )
    expect(moved).toBeCloseTo(predicted, 9)
  })
})

describe('patches many a second', () => {
  it('are those of the single calculation', () => {
    const { mesh } = contactTeeth(forward)
    const setting = { pinionMm: 0.05, gearMm: -0.04, offsetMm: 0, shaftAngleErrorDeg: 0 }
    const solver = contactSolver(mesh, 1)
    patchLine(solver, { ...setting, pinionMm: -0.2 }, USUAL_CROWN)
    const { outline, centroidLength, areaShare } = toothContact({ mesh, side: 1, ...setting, ...USUAL_CROWN })
    expect(patchLine(solver, setting, USUAL_CROWN)).toMatchObject({ outline, centroidLength, areaShare })
  })
  it('move toward the top as the pinion moves outward, and toward the root as it moves inward, on both flanks', () => {
    const { mesh, pushed } = contactTeeth(forward)
    for (const flank of FLANKS) {
      const solver = contactSolver(mesh, sideOf(flank, { mesh, pushed }))
      const at = (pinionMm: number) =>
        patchLine(solver, { pinionMm, gearMm: 0, offsetMm: 0, shaftAngleErrorDeg: 0 }, USUAL_CROWN)!
          .centroidProfile
      expect(at(0.1)).toBeGreaterThan(at(0) + 0.05)
      expect(at(-0.1)).toBeLessThan(at(0) - 0.05)
    }
  })
})
