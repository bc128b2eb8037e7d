import type { Window } from '../../checks/window.ts'
import type { Graph } from '../graph/rows.ts'
import type {
  Adjuster,
  Axis,
  BacklashMeasure,
  Bearing,
  Belt,
  DepthMeasure,
  DriveSheet,
  EndPlayMeasure,
  Family,
  Gear,
  GearMesh,
  Seal,
  ServiceInterval,
} from '../sheet.ts'
import type { Source } from './source.ts'
import type { Variant } from './variant.ts'

type Needs<T, K extends keyof T> = Pick<T, K> & Partial<Omit<T, K>>

/** Where along its shaft something sits when nobody has nudged it: its side of the apex, and its turn outward from there. */
interface Along {
  side?: 1 | -1
  order?: number
}

export type BodyAxis = Needs<Axis, 'id' | 'label' | 'line'>
export type BodyGear = Needs<Gear, 'id' | 'label' | 'axis' | 'side'> & {
  /** Over the heel tips, by calliper, mm. */
  outsideMm?: number
  faceTirMm?: number
}
export type BodyMesh = Omit<GearMesh, 'mesh' | 'basis' | 'u'> & {
  /** All of it, where a maker's drawing gives it; otherwise it is counted and measured. */
  mesh?: GearMesh['mesh']
  form?: 'spiral' | 'straight'
  faceWidthMm?: number
  spiralAngleDeg?: number
  pressureAngleDeg?: number
  shaftAngleDeg?: number
}
export type BodyAdjuster = Needs<Adjuster, 'id' | 'label' | 'kind' | 'axis'> & Along
export type BodyBearing = Needs<Omit<Bearing, 'setting'>, 'id' | 'label' | 'kind' | 'axis'> &
  Along & {
    setting?:
      | {
          kind: 'rolling-torque'
          newNm?: Window
          runInNm?: Window
          by?: string
          sleeve?: boolean
          nmPerMm?: number
        }
      | { kind: 'crush'; crushMm?: number; toleranceMm?: number; shimsAt?: 'bearing' | 'cover'; by?: string }
  }
export type BodySeal = Needs<Seal, 'id' | 'label' | 'axis'> & Along

type Gaps<T, K extends keyof T> = Omit<T, K> & Partial<Pick<T, K>>
type Loose = 'window' | 'readings' | 'before'
export type BodyMeasure =
  | (Gaps<Omit<DepthMeasure, 'how'>, Loose> & { how?: Partial<Record<string, number | string | boolean>> })
  | Gaps<BacklashMeasure, Loose | 'radiusMm' | 'member' | 'hold'>
  | Gaps<EndPlayMeasure, Loose>

/** Which form of sheet this is; a stored one without it is older. */
export const SHEET_FORMAT = 4

/**
 * A sheet as it is typed, kept, and sent: a name, a family, what the drive is made of, and as many figures as are known so far. Lengths in mm,
 * torques in Nm, pressures in kPa. What the drawing needs and nobody types is filled in when it is read (fill.ts).
 */
export interface SheetBody extends Graph {
  format: typeof SHEET_FORMAT
  id: string
  /** Of a version that stands; a draft has none. */
  version?: number
  name: string
  family: Family
  demo?: boolean
  summary?: string
  /** What its figures come from unless they say otherwise: the manual, by its title. */
  manual?: string
  ratio?: DriveSheet['ratio']
  axes: BodyAxis[]
  gears: BodyGear[]
  meshes: BodyMesh[]
  adjusters: BodyAdjuster[]
  bearings: BodyBearing[]
  seals: BodySeal[]
  belts?: Belt[]
  measures: BodyMeasure[]
  runoutLimits?: { id?: string; zone: string; tirMm?: number }[]
  service?: ServiceInterval[]
  /** Where its figures come from, by path. */
  sources?: Source[]
  /** Drives that differ in a few figures. */
  variants?: Variant[]
  /** Which of them this is. */
  variant?: { id: string; label: string }
}

type Plain = Record<string, unknown>

/**
 * What stands at a path of a body: names between points, a row of a list by its id (`measures.depth.window`). Undefined where nothing stands.
 */
export function figureAt(body: SheetBody, path: string): unknown {
  let at: unknown = body
  for (const name of path.split('.')) {
    if (Array.isArray(at)) at = (at as { id: string }[]).find((row) => row.id === name)
    else if (typeof at === 'object' && at !== null && Object.hasOwn(at, name)) at = (at as Plain)[name]
    else return undefined
  }
  return at ?? undefined
}

/** Lists whose row is made by its first figure, and goes with its last one. */
export const MADE_BY_FIGURES: ReadonlySet<string> = new Set(['tests', 'ways', 'sealPairs'])

/** The body with another value at a path; undefined takes the figure away. The given one stays as it is. */
export function withFigure(body: SheetBody, path: string, value: unknown): SheetBody {
  const names = path.split('.')
  const change = (at: unknown, i: number): unknown => {
    if (i === names.length) return value
    const name = names[i]!
    if (i === 1 && MADE_BY_FIGURES.has(names[0]!)) {
      const rows = (at ?? []) as { id: string }[]
      const row = change(rows.find((r) => r.id === name) ?? { id: name }, 2) as { id: string }
      const next = rows.some((r) => r.id === name)
        ? rows.map((r) => (r.id === name ? row : r))
        : [...rows, row]
      const left = next.filter((r) => r !== row || Object.keys(r).length > 1)
      return left.length ? left : undefined
    }
    if (Array.isArray(at))
      return (at as { id: string }[]).map((row) => (row.id === name ? change(row, i + 1) : row))
    const before = (typeof at === 'object' && at !== null ? at : {}) as Plain
    const next = change(Object.hasOwn(before, name) ? before[name] : undefined, i + 1)
    const { [name]: _gone, ...others } = before
    return next === undefined || isEmpty(next) ? others : { ...before, [name]: next }
  }
  return change(body, 0) as SheetBody
}

const isEmpty = (v: unknown) =>
  typeof v === 'object' && v !== null && !Array.isArray(v) && Object.keys(v).length === 0
