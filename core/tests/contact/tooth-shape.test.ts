import { describe, expect, it } from 'vitest'
import { contactTeeth } from '../../src/contact/as-set.ts'
import { sideOf } from '../../src/gears/flank.ts'
import { toothShape, type Point3 } from '../../src/contact/tooth-shape.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { meshGeometry } from '../../src/gears/mesh.ts'
import { refused } from '../refused.ts'

const pairs = demoSheets.flatMap((s) =>
  s.meshes.map((m) => [`${s.id} ${m.id}`, contactTeeth(m).mesh] as const),
)
const angle = ([x, y]: Point3) => Math.atan2(y, x)
const minus = (a: Point3, b: Point3): Point3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]]

describe.each(pairs)('the teeth of %s', (_, mesh) => {
  const g = meshGeometry(mesh)
  it.each(['gear', 'pinion'] as const)(
    'the %s is half a pitch thick on the pitch line, thinner at the top',
    (member) => {
      const tooth = toothShape(mesh, member)
      const thick = (up: number) => angle(tooth.at(0, up, 1)) - angle(tooth.at(0, up, -1))
      expect(thick(0)).toBeCloseTo(tooth.pitchAngle / 2, 9)
      expect(thick(1)).toBeLessThan(thick(0))
      expect(thick(-1)).toBeGreaterThan(thick(0))
      const [x, y] = tooth.at(1, 0, 1)
      const teeth = member === 'gear' ? mesh.gearTeeth : mesh.pinionTeeth
      expect(Math.hypot(x, y)).toBeCloseTo((mesh.moduleMm * teeth) / 2, 9)
    },
  )
  it('runs at the spiral angle at mid face, the mate the other way', () => {
    for (const [member, way] of [
      ['gear', 1],
      ['pinion', -1],
    ] as const) {
      const tooth = toothShape(mesh, member)
      const middle = (along: number) => {
        const [a, b] = [tooth.at(along, 0, 1), tooth.at(along, 0, -1)]
        return (angle(a) + angle(b)) / 2
      }
      const d = 1e-4
      const R = g.meanConeDistanceMm
      const lengthwise = d * (g.outerConeDistanceMm - g.innerConeDistanceMm)
      const beta = Math.atan(((middle(d) - middle(-d)) * R * Math.sin(tooth.coneAngle)) / lengthwise)
      expect((beta * 180) / Math.PI).toBeCloseTo(way * (mesh.hand ?? 1) * (mesh.spiralAngleDeg ?? 0), 2)
    }
  })
  it('has its concave flank hollow lengthwise, as it is named, where the teeth are spiral', () => {
    if (!mesh.spiralAngleDeg) return
    const tooth = toothShape(mesh, 'gear')
    const side = sideOf('drive', { mesh, pushed: 'concave' })
    const [toe, middle, heel] = [-1, 0, 1].map((along) => tooth.at(along, 0, side)) as [
      Point3,
      Point3,
      Point3,
    ]
    // the middle of a hollow flank lies behind the line from toe to heel, seen from in front of it
    const chord = toe.map((v, i) => (v + heel[i]!) / 2) as Point3
    const into = minus(middle, chord)
    const [x, y] = middle
    const ahead: Point3 = [-y * side, x * side, 0]
    expect(into[0] * ahead[0] + into[1] * ahead[1]).toBeLessThan(0)
  })
})

it('is not drawn without addenda or, where spiral, without its cutter', () => {
  const [, whole] = pairs.find(([, m]) => m.spiralAngleDeg)!
  const { gearAddendumMm: _, ...bare } = whole
  expect(refused(() => toothShape(bare, 'gear')).fields[0]!.path).toBe('mesh.gearAddendumMm')
  const { cutterRadiusMm: __, ...uncut } = whole
  expect(refused(() => toothShape(uncut, 'gear')).fields[0]!.path).toBe('mesh.cutterRadiusMm')
})
