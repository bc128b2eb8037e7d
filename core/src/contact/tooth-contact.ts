import { InputError, refuse } from '../checks/input-error.ts'
import { finite, notNegative, positive } from '../checks/numbers.ts'
import type { Mesh } from '../gears/mesh.ts'
import { contactField, type ContactField } from './contact-field.ts'

/** How the pair stands: displacements from where the pattern was developed. mm, outward positive; degrees, opening. */
export interface ContactSetting {
  pinionMm: number
  gearMm: number
  offsetMm: number
  shaftAngleErrorDeg: number
}

/** How the teeth are crowned and how thick the compound is. mm; centre in ξ, η. */
export interface ContactCrown {
  crownLengthMm: number
  crownProfileMm: number
  centreLength: number
  centreProfile: number
  filmMm: number
}

export interface ToothContactInput extends ContactSetting, ContactCrown {
  mesh: Mesh
  /** Flank; side × hand = +1 is the gear's concave one. */
  side: 1 | -1
  /** Samples of crown angle and along the trace. @default 161 × 81 */
  samples?: { rows: number; columns: number }
  /** Also return the patch on a grid of the flank. @default false */
  raster?: boolean
}

export interface Patch {
  /** Share of the flank that can touch at all. */
  areaShare: number
  /** ξ: −1 toe, +1 heel. */
  centroidLength: number
  /** η: −1 root (the pinion tip's reach), +1 the gear's top. */
  centroidProfile: number
  extents: { lengthMin: number; lengthMax: number; profileMin: number; profileMax: number }
}

export interface ToothContact extends Patch {
  /** Range over one pitch of the turning that the setting asks of the gear. */
  motionErrorMicrorad: number
  /** Closed line round the patch, [ξ, η]. */
  outline: [number, number][]
  /** Rows from root to top, each from toe to heel, 1 where it touches. */
  raster?: number[][]
}

/** Working arrays for one flank, so that many settings can be computed without allocating. */
export interface ContactSolver {
  field: ContactField
  /** (ε − ψ_act) |N · (k₂ × X)| for every sample, mm along the normal; NaN outside the teeth. */
  separation: Float64Array
  /** Turning at which the teeth in mesh close, for every row. */
  closing: Float64Array
  own: Float64Array
  /** Turning needed at every sample. */
  turning: Float64Array
}

export function contactSolver(mesh: Mesh, side: 1 | -1, rows?: number, columns?: number): ContactSolver {
  const field = contactField(mesh, side, rows, columns)
  return {
    field,
    separation: new Float64Array(field.rows * field.columns),
    turning: new Float64Array(field.rows * field.columns),
    closing: new Float64Array(field.rows),
    own: new Float64Array(field.rows),
  }
}

/**
 * Fills the solver's arrays for one setting. gap = C_L (ξ − ξ₀)² + C_P (η − η₀)² + N · (t + ω × X) with
 * t = p k₁ − g k₂ + e y and ω = (0, −σ, 0); ε = gap / |N · (k₂ × X)|; ψ(θ) the least ε of a contact line; of the
 * teeth a crown pitch apart the one that closes first carries: ψ_act(θ) = min over k of ψ(θ + kτ).
 * No allocation.
 */
export function closeTeethInPlace(solver: ContactSolver, setting: ContactSetting, crown: ContactCrown): void {
  const { field, separation, turning, closing, own } = solver
  const { rows, columns, xi, eta, inside, normal, moment, lever, pinionAxis: k1, gearAxis: k2, theta } = field
  const tx = setting.pinionMm * k1[0] - setting.gearMm * k2[0]
  const ty = setting.offsetMm
  const tz = setting.pinionMm * k1[2] - setting.gearMm * k2[2]
  const sigma = (setting.shaftAngleErrorDeg * Math.PI) / 180
  const { crownLengthMm: CL, crownProfileMm: CP, centreLength: x0, centreProfile: y0 } = crown
  for (let row = 0; row < rows; row++) {
    let least = Infinity
    for (let i = row * columns; i < (row + 1) * columns; i++) {
      if (inside[i] === 0) continue
      const dx = xi[i]! - x0
      const dy = eta[i]! - y0
      const gap =
        CL * dx * dx +
        CP * dy * dy +
        tx * normal[3 * i]! +
        ty * normal[3 * i + 1]! +
        tz * normal[3 * i + 2]! -
        sigma * moment[3 * i + 1]!
      const epsilon = gap / lever[i]!
      turning[i] = epsilon
      if (epsilon < least) least = epsilon
    }
    own[row] = least
  }
  const step = theta[1]! - theta[0]!
  const reach = Math.ceil((theta[rows - 1]! - theta[0]!) / field.pitch)
  for (let row = 0; row < rows; row++) {
    let first = own[row]!
    for (let k = -reach; k <= reach; k++) {
      const at = row + (k * field.pitch) / step
      const below = Math.floor(at)
      if (k === 0 || below < 0 || below + 1 >= rows) continue
      const share = at - below
      // next to the end of contact only one neighbour is finite; then that tooth is out of mesh
      const there = own[below]! * (1 - share) + own[below + 1]! * share
      if (there < first) first = there
    }
    closing[row] = first
  }
  for (let row = 0; row < rows; row++)
    for (let i = row * columns; i < (row + 1) * columns; i++)
      separation[i] = inside[i] === 1 ? (turning[i]! - closing[row]!) * lever[i]! : NaN
}

/** Area, centroid and extents of the patch in the solver's arrays. */
export function patchOf(solver: ContactSolver, filmMm: number): Patch {
  const { field, separation } = solver
  let all = 0
  let area = 0
  let sumLength = 0
  let sumProfile = 0
  let [lengthMin, lengthMax, profileMin, profileMax] = [Infinity, -Infinity, Infinity, -Infinity]
  for (let i = 0; i < separation.length; i++) {
    if (field.inside[i] === 0) continue
    const w = field.weight[i]!
    all += w
    if (separation[i]! > filmMm) continue
    const [x, y] = [field.xi[i]!, field.eta[i]!]
    area += w
    sumLength += w * x
    sumProfile += w * y
    if (x < lengthMin) lengthMin = x
    if (x > lengthMax) lengthMax = x
    if (y < profileMin) profileMin = y
    if (y > profileMax) profileMax = y
  }
  if (!(area > 0))
    refuse('filmMm', 'leaves no patch at all; the teeth do not meet on this flank', 'no-contact')
  return {
    areaShare: area / all,
    centroidLength: sumLength / area,
    centroidProfile: sumProfile / area,
    extents: { lengthMin, lengthMax, profileMin, profileMax },
  }
}

const OUTLINE_BANDS = 32

/** Line round the patch: in bands along the profile its outermost points toward toe and heel. */
function outlineOf(solver: ContactSolver, filmMm: number, extents: Patch['extents']): [number, number][] {
  const { field, separation } = solver
  const { profileMin, profileMax } = extents
  const toe = new Float64Array(OUTLINE_BANDS).fill(Infinity)
  const heel = new Float64Array(OUTLINE_BANDS).fill(-Infinity)
  const height = (profileMax - profileMin) / OUTLINE_BANDS || 1
  for (let i = 0; i < separation.length; i++) {
    if (field.inside[i] === 0 || separation[i]! > filmMm) continue
    const band = Math.min(OUTLINE_BANDS - 1, Math.floor((field.eta[i]! - profileMin) / height))
    if (field.xi[i]! < toe[band]!) toe[band] = field.xi[i]!
    if (field.xi[i]! > heel[band]!) heel[band] = field.xi[i]!
  }
  const at = (edge: Float64Array) =>
    [...edge].flatMap((x, b): [number, number][] =>
      Number.isFinite(x) ? [[x, profileMin + (b + 0.5) * height]] : [],
    )
  return [...at(toe), ...at(heel).reverse()]
}

const RASTER = { rows: 21, columns: 41 }

function rasterOf(solver: ContactSolver, filmMm: number): number[][] {
  const { field, separation } = solver
  const raster = Array.from({ length: RASTER.rows }, () => new Array<number>(RASTER.columns).fill(0))
  for (let i = 0; i < separation.length; i++) {
    if (field.inside[i] === 0 || separation[i]! > filmMm) continue
    const column = Math.round(((field.xi[i]! + 1) / 2) * (RASTER.columns - 1))
    const row = Math.round(((field.eta[i]! + 1) / 2) * (RASTER.rows - 1))
    if (row >= 0 && row < RASTER.rows) raster[row]![column] = 1
  }
  return raster
}

/** Range of ψ_act over the pitch in the middle of the contact, microradians of the gear. */
function motionError(solver: ContactSolver): number {
  const { field, closing, own } = solver
  let best = 0
  own.forEach((v, row) => {
    if (v < own[best]! || !Number.isFinite(own[best]!)) best = row
  })
  const half = field.pitch / 2
  let [low, high] = [Infinity, -Infinity]
  closing.forEach((v, row) => {
    if (Math.abs(field.theta[row]! - field.theta[best]!) > half || !Number.isFinite(v)) return
    low = Math.min(low, v)
    high = Math.max(high, v)
  })
  return (high - low) * 1e6
}

/** Where a patch lies, and the line round it. */
export interface PatchLine extends Patch {
  outline: [number, number][]
}

/** The patch of a setting on flanks that are known already: many a second. @returns undefined where nothing touches on this flank */
export function patchLine(
  solver: ContactSolver,
  setting: ContactSetting,
  crown: ContactCrown,
): PatchLine | undefined {
  closeTeethInPlace(solver, setting, crown)
  try {
    const patch = patchOf(solver, crown.filmMm)
    return { ...patch, outline: outlineOf(solver, crown.filmMm, patch.extents) }
  } catch (e) {
    if (e instanceof InputError && e.code === 'no-contact') return undefined
    throw e
  }
}

export function checkCrown(crown: ContactCrown): void {
  notNegative('crownLengthMm', crown.crownLengthMm)
  notNegative('crownProfileMm', crown.crownProfileMm)
  finite('centreLength', crown.centreLength)
  finite('centreProfile', crown.centreProfile)
  positive('filmMm', crown.filmMm)
}

/**
 * The contact patch of one flank for a setting, unloaded, in closed form.
 * @throws InputError on geometry that cannot be, missing addenda or cutter radius, or when nothing touches
 */
export function toothContact(input: ToothContactInput): ToothContact {
  checkCrown(input)
  for (const name of ['pinionMm', 'gearMm', 'offsetMm', 'shaftAngleErrorDeg'] as const)
    if (Math.abs(finite(name, input[name])) > 5)
      refuse(name, `is ${input[name]}; a setting error of more than 5 is no setting error`)
  const solver = contactSolver(input.mesh, input.side, input.samples?.rows, input.samples?.columns)
  closeTeethInPlace(solver, input, input)
  const patch = patchOf(solver, input.filmMm)
  return {
    ...patch,
    motionErrorMicrorad: motionError(solver),
    outline: outlineOf(solver, input.filmMm, patch.extents),
    ...(input.raster ? { raster: rasterOf(solver, input.filmMm) } : {}),
  }
}
