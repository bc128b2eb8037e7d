import { refuse } from '../checks/input-error.ts'
import { positive, whole, within } from '../checks/numbers.ts'
import { gearPitchAngleOf, type Mesh } from './mesh.ts'

export interface GearFromMeasuresInput {
  pinionTeeth: number
  gearTeeth: number
  /** @default 90 */
  shaftAngleDeg?: number
  form: 'spiral' | 'straight'
  /** Outside diameters over the heel tips, mm; one at least. */
  gearOutsideMm?: number
  pinionOutsideMm?: number
  /** Standard uncertainty of a diameter. @default 0.1 */
  uOutsideMm?: number
}

export interface GearFromMeasures {
  /** Outer transverse module. */
  moduleMm: number
  /** Its expanded uncertainty (k = 2). */
  moduleUMm: number
  gearAddendumMm: number
  pinionAddendumMm: number
  /** Whether both diameters give the same module within their uncertainties; only with both. */
  agree?: boolean
}

const RAD = Math.PI / 180
/** Half width of what the addendum may differ from the usual proportions, in modules; rectangular. */
const ADDENDUM_HALF_WIDTH = 0.15

/** Addenda in modules by the usual proportions (see {@link gearFromMeasures}), with the cosines of the pitch angles. */
function addendaInModules(z1: number, z2: number, sigma: number, form: 'spiral' | 'straight') {
  const delta2 = gearPitchAngleOf(z1, z2, sigma)
  const delta1 = sigma - delta2
  const [cos1, cos2] = [Math.cos(delta1), Math.cos(delta2)]
  if (!(delta1 > 0) || !(cos2 > 1e-9))
    refuse('shaftAngleDeg', `is ${sigma / RAD}; with these teeth it makes no outside bevel pair`)
  const ratioSquared = (z2 * cos1) / (z1 * cos2)
  const [depth, base, part] = form === 'spiral' ? [1.7, 0.46, 0.39] : [2, 0.54, 0.46]
  const k2 = base! + part! / ratioSquared
  return { k1: depth! - k2, k2, cos1, cos2 }
}

/** Outer addenda of a pair by the usual proportions, mm. @throws InputError on angles that make no outside pair */
export function usualAddenda(mesh: Mesh): { gearAddendumMm: number; pinionAddendumMm: number } {
  const form = (mesh.spiralAngleDeg ?? 0) === 0 ? 'straight' : 'spiral'
  const { k1, k2 } = addendaInModules(
    mesh.pinionTeeth,
    mesh.gearTeeth,
    (mesh.shaftAngleDeg ?? 90) * RAD,
    form,
  )
  return { gearAddendumMm: k2 * mesh.moduleMm, pinionAddendumMm: k1 * mesh.moduleMm }
}

/**
 * Module and addenda from teeth counted and outside diameters measured: m = D / (z + 2 k cos δ), k the addendum in modules by the usual
 * proportions of bevel gears (working depth 1.700, k₂ = 0.460 + 0.390 / m₉₀² for spiral teeth; 2.000 and 0.540 + 0.460 / m₉₀² for straight
 * ones; m₉₀² = z₂ cos δ₁ / (z₁ cos δ₂)). u² = (u_D ∂m/∂D)² + (0.15/√3 ∂m/∂k)²; of two diameters the weighted mean.
 * @throws InputError without a diameter, on counts or diameters that cannot be, on angles that make no outside pair
 */
export function gearFromMeasures(input: GearFromMeasuresInput): GearFromMeasures {
  const z1 = whole('pinionTeeth', input.pinionTeeth, 3, 300)
  const z2 = whole('gearTeeth', input.gearTeeth, 3, 300)
  const sigma = within('shaftAngleDeg', input.shaftAngleDeg ?? 90, 1, 179) * RAD
  if (input.form !== 'spiral' && input.form !== 'straight') refuse('form', 'is spiral or straight')
  const uD = positive('uOutsideMm', input.uOutsideMm ?? 0.1)
  if (input.gearOutsideMm === undefined && input.pinionOutsideMm === undefined)
    refuse('gearOutsideMm', 'is missing; give the outside diameter of the gear, of the pinion, or both')
  const { k1, k2, cos1, cos2 } = addendaInModules(z1, z2, sigma, input.form)

  const from = (path: string, diameter: number | undefined, z: number, k: number, cos: number) => {
    if (diameter === undefined) return []
    const teeth = z + 2 * k * cos
    const module = positive(path, diameter) / teeth
    const u = Math.hypot(uD / teeth, ((module * 2 * cos) / teeth) * (ADDENDUM_HALF_WIDTH / Math.sqrt(3)))
    return [{ module, u }]
  }
  const found = [
    ...from('gearOutsideMm', input.gearOutsideMm, z2, k2, cos2),
    ...from('pinionOutsideMm', input.pinionOutsideMm, z1, k1, cos1),
  ]
  const weight = found.reduce((sum, f) => sum + 1 / f.u ** 2, 0)
  const moduleMm = found.reduce((sum, f) => sum + f.module / f.u ** 2, 0) / weight
  const [a, b] = found
  return {
    moduleMm,
    moduleUMm: 2 / Math.sqrt(weight),
    gearAddendumMm: k2 * moduleMm,
    pinionAddendumMm: k1 * moduleMm,
    ...(a && b ? { agree: Math.abs(a.module - b.module) <= 2 * Math.hypot(a.u, b.u) } : {}),
  }
}
