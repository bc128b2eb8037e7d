import { gearFromMeasures } from '../../gears/gear-from-measures.ts'
import { checkMesh, gearPitchAngleOf, type Mesh } from '../../gears/mesh.ts'
import { InputError } from '../../checks/input-error.ts'
import type { GearMesh, MeshUncertainty } from '../sheet.ts'
import type { BodyMesh, SheetBody } from './body.ts'

/** What no manual prints, and what is assumed for it: angles in degrees with their standard uncertainties, by handbook of bevel gears. */
export const ASSUMED = {
  pressureAngleDeg: 20,
  pressureAngleUDeg: 1.25,
  spiralAngleDeg: 35,
  spiralAngleUDeg: 2.5,
  /** Of the mean cone distance; only the contact patch needs it. */
  cutterPerConeDistance: 0.9,
} as const

/** Standard uncertainty of a protractor on the pitch cone, degrees, and of a calliper along a tooth, mm. */
const MEASURED_U = { angleDeg: 1, faceWidthMm: 0.3 }
/** Of an angle that a manual names, degrees. */
const NAMED_U_DEG = 0.25
/** Uncertainties of a geometry that somebody has drawn: the module is exact; angles hold as cut. */
export const GIVEN_U: MeshUncertainty = {
  pressureAngleDeg: 1.25,
  spiralAngleDeg: 2.5,
  faceWidthMm: 0.3,
  moduleRel: 0.01,
}

/** What the section is drawn with while nobody has counted or measured. */
const DRAWN = { pinionTeeth: 14, gearTeeth: 27, moduleMm: 4.2 }

type ToothFigure = 'form' | 'faceWidthMm' | 'spiralAngleDeg' | 'pressureAngleDeg' | 'shaftAngleDeg'

/** The pair that shares its pinion with another one and was measured before it: their teeth are cut alike. */
export const likeOf = (body: SheetBody, m: BodyMesh): BodyMesh | undefined => {
  const first = body.meshes.find((x) => x.pinion === m.pinion && !x.mesh)
  return first && first.id !== m.id ? first : undefined
}

/** A figure of the teeth of a pair; its own, or that of the pair before it on the same pinion. */
export const toothFigure = <F extends ToothFigure>(body: SheetBody, m: BodyMesh, figure: F): BodyMesh[F] =>
  m[figure] ?? likeOf(body, m)?.[figure]

const teethOf = (body: SheetBody, gear: string) => body.gears.find((g) => g.id === gear)?.teeth

/**
 * The geometry of a pair of gears as far as it is known: as given; from teeth counted, diameters and face width measured (module by
 * the usual proportions, angles assumed where nobody has measured them); or what the section is drawn with. Impossible figures are drawn
 * as if they were not known; the check says what is wrong with them.
 */
export function meshOf(body: SheetBody, m: BodyMesh): Pick<GearMesh, 'mesh' | 'basis' | 'u'> {
  if (m.mesh) return { mesh: m.mesh }
  const [form, faceWidthMm, spiral, pressure, shaftAngleDeg] = [
    toothFigure(body, m, 'form'),
    toothFigure(body, m, 'faceWidthMm'),
    toothFigure(body, m, 'spiralAngleDeg'),
    toothFigure(body, m, 'pressureAngleDeg'),
    toothFigure(body, m, 'shaftAngleDeg'),
  ]
  const [z1, z2] = [teethOf(body, m.pinion), teethOf(body, m.gear)]
  const straight = form === 'straight'
  const angles = {
    ...(shaftAngleDeg === undefined ? {} : { shaftAngleDeg }),
    pressureAngleDeg: pressure ?? ASSUMED.pressureAngleDeg,
    spiralAngleDeg: straight ? 0 : (spiral ?? ASSUMED.spiralAngleDeg),
  }
  const found = moduleOf(body, m)
  if (z1 !== undefined && z2 !== undefined && found) {
    const measured = possible(() => {
      const mesh = shaped(z1, z2, found.moduleMm, angles, faceWidthMm)
      checkMesh(mesh)
      return { ...mesh, cutterRadiusMm: cutterOf(mesh) }
    })
    // the sensitivity needs form, face width and module; what is missing of them makes the pair a drawing
    if (measured && form !== undefined && faceWidthMm !== undefined)
      return {
        mesh: measured,
        basis: 'measured',
        u: {
          pressureAngleDeg: pressure === undefined ? ASSUMED.pressureAngleUDeg : NAMED_U_DEG,
          spiralAngleDeg: straight ? 0 : spiral === undefined ? ASSUMED.spiralAngleUDeg : MEASURED_U.angleDeg,
          faceWidthMm: MEASURED_U.faceWidthMm,
          moduleRel: found.rel,
        },
      }
    if (measured) return { mesh: measured, basis: 'drawn' }
  }
  const drawn = possible(() => {
    const mesh = shaped(
      z1 ?? DRAWN.pinionTeeth,
      z2 ?? DRAWN.gearTeeth,
      (DRAWN.moduleMm * DRAWN.gearTeeth) / (z2 ?? DRAWN.gearTeeth),
      angles,
    )
    checkMesh(mesh)
    return mesh
  })
  return {
    mesh: drawn ?? shaped(DRAWN.pinionTeeth, DRAWN.gearTeeth, DRAWN.moduleMm, {}),
    basis: 'drawn',
  }
}

/**
 * Module of a pair by its outside diameters, with its relative standard uncertainty; by those of the pair before it on the same pinion where
 * none of its own is measured. Undefined while nothing says it, or what does cannot be.
 */
export function moduleOf(body: SheetBody, m: BodyMesh): { moduleMm: number; rel: number } | undefined {
  const [pinion, gear] = [m.pinion, m.gear].map((id) => body.gears.find((g) => g.id === id))
  const form = toothFigure(body, m, 'form')
  const shaftAngleDeg = toothFigure(body, m, 'shaftAngleDeg')
  if (pinion?.teeth !== undefined && gear?.teeth !== undefined) {
    const [z1, z2] = [pinion.teeth, gear.teeth]
    if (pinion.outsideMm !== undefined || gear.outsideMm !== undefined)
      return possible(() => {
        const { moduleMm, moduleUMm } = gearFromMeasures({
          pinionTeeth: z1,
          gearTeeth: z2,
          form: form === 'straight' ? 'straight' : 'spiral',
          ...(shaftAngleDeg === undefined ? {} : { shaftAngleDeg }),
          ...(gear.outsideMm === undefined ? {} : { gearOutsideMm: gear.outsideMm }),
          ...(pinion.outsideMm === undefined ? {} : { pinionOutsideMm: pinion.outsideMm }),
        })
        return { moduleMm, rel: moduleUMm / 2 / moduleMm }
      })
  }
  const like = likeOf(body, m)
  return like && moduleOf(body, like)
}

const RAD = Math.PI / 180

/** A mesh with the usual face width where none is measured: three tenths of the cone distance, at most ten modules. */
function shaped(z1: number, z2: number, module: number, angles: Partial<Mesh>, faceWidthMm?: number): Mesh {
  const sigma = (angles.shaftAngleDeg ?? 90) * RAD
  const delta2 = gearPitchAngleOf(z1, z2, sigma)
  const cone = (module * z2) / (2 * Math.sin(delta2))
  return {
    pinionTeeth: z1,
    gearTeeth: z2,
    moduleMm: module,
    faceWidthMm: faceWidthMm ?? Math.min(0.3 * cone, 10 * module),
    ...angles,
  }
}

function cutterOf(mesh: Mesh): number {
  const sigma = (mesh.shaftAngleDeg ?? 90) * RAD
  const delta2 = gearPitchAngleOf(mesh.pinionTeeth, mesh.gearTeeth, sigma)
  const cone = (mesh.moduleMm * mesh.gearTeeth) / (2 * Math.sin(delta2)) - mesh.faceWidthMm / 2
  return ASSUMED.cutterPerConeDistance * cone
}

/** Undefined where the figures make nothing that can be. */
function possible<T>(make: () => T): T | undefined {
  try {
    return make()
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    return undefined
  }
}
