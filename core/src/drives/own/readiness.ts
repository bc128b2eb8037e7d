import type { DriveSheet } from '../sheet.ts'
import { figureAt, type BodyMesh, type SheetBody } from './body.ts'
import { figureFields, touches } from './figures.ts'
import type { Ability, FigureField } from './figure-field.ts'
import { likeOf, meshOf, moduleOf } from './geometry.ts'
import { sourceOf } from './source.ts'

/** Something that a sheet lacks for one of its abilities. */
export interface Lack {
  /** The figure that would do. */
  path: string
  label: string
  /** Other figures that would do as well, together. */
  or?: string[]
}

/** What a sheet can do, or what it takes until it can. `none`: this drive has nothing of the kind. */
export interface Readiness {
  ability: Ability
  state: 'ready' | 'partly' | 'open' | 'none'
  lacks: Lack[]
  /** Figures it works with that are only assumed. */
  assumed: string[]
}

export const ABILITIES: Record<Ability, string> = {
  setting: 'Setting: the next stacks',
  preload: 'Rolling torque of bearings',
  crush: 'Crush under the cover',
  torque: 'Torque and locks',
  tightness: 'Pressure test',
  filling: 'Filling',
  inspection: 'Identify and inspect',
  contact: 'Contact pattern',
  service: 'Service',
  estimate: 'Estimate',
}

/** What this sheet can do by now, and what each figure that is missing would unlock. */
export function readiness(body: SheetBody): Readiness[] {
  const fields = figureFields(body)
  return (Object.keys(ABILITIES) as Ability[]).map((ability) => {
    const own = fields.filter((f) => f.for === ability)
    const lacks = [
      ...own.filter((f) => figureAt(body, f.path) === undefined).map(({ path, label }) => ({ path, label })),
      ...furtherLacks(body, ability, fields),
    ]
    const has = hasKind(body, ability, own)
    const some =
      own.some((f) => figureAt(body, f.path) !== undefined) || (ability === 'estimate' && anyPrice(body))
    return {
      ability,
      state: !has ? 'none' : !lacks.length ? 'ready' : some ? 'partly' : 'open',
      lacks,
      assumed: own.map((f) => f.path).filter((p) => sourceOf(body.sources, p)?.kind === 'assumed'),
    }
  })
}

const anyPrice = (body: SheetBody) =>
  [...body.parts, ...(body.groups ?? []).flatMap((g) => g.pieces ?? [])].some(
    (p) => p.price !== undefined && p.price > 0,
  )

/** Whether the drive has anything of the kind at all. */
function hasKind(body: SheetBody, ability: Ability, own: readonly FigureField[]): boolean {
  if (ability === 'contact') return body.meshes.length > 0
  if (ability === 'tightness') return !body.tests?.some((t) => t.noTest)
  if (ability === 'setting') return body.measures.length > 0
  return ['service', 'estimate', 'torque', 'inspection'].includes(ability) || own.length > 0
}

/** What is missing beyond single figures: a rule or a geometry, a list that is empty. */
function furtherLacks(body: SheetBody, ability: Ability, fields: readonly FigureField[]): Lack[] {
  switch (ability) {
    case 'setting':
      return answerLacks(body, fields)
    case 'contact':
      return body.meshes.flatMap((m) => geometryLacks(body, m, fields).slice(0, 1))
    case 'torque':
      return body.groups?.some((g) => g.torqueNm)
        ? []
        : [{ path: 'groups', label: 'the fasteners, with their torques' }]
    case 'service':
      return body.service?.length ? [] : [{ path: 'service', label: 'service intervals' }]
    case 'estimate':
      return anyPrice(body) ? [] : [{ path: 'parts', label: 'prices of parts' }]
    default:
      return []
  }
}

/** Stacks of which nobody knows how a backlash answers: by a rule of the manual, or by the geometry of the pair. */
function answerLacks(body: SheetBody, fields: readonly FigureField[]): Lack[] {
  return body.adjusters
    .filter((a) => a.kind === 'shim' && a.moves !== undefined && a.setBy === undefined)
    .flatMap((a) =>
      body.measures.flatMap((m): Lack[] => {
        if (m.kind !== 'backlash' || !touches(body, m.mesh, a.moves!)) return []
        const mesh = body.meshes.find((x) => x.id === m.mesh)!
        if (a.rules?.[m.id] !== undefined) return []
        const or = geometryLacks(body, mesh, fields).map((l) => l.path)
        if (m.radiusMm === undefined) or.push(`measures.${m.id}.radiusMm`)
        if (!or.length) return []
        const path = `adjusters.${a.id}.rules.${m.id}`
        return [{ path, label: fields.find((f) => f.path === path)?.label ?? path, or }]
      }),
    )
}

/** Figures that make the geometry of a pair, as far as they are missing. */
function geometryLacks(body: SheetBody, mesh: BodyMesh, fields: readonly FigureField[]): Lack[] {
  if (meshOf(body, mesh).basis !== 'drawn') return []
  const gears = [mesh.pinion, mesh.gear]
  const needed = [
    ...gears.map((g) => `gears.${g}.teeth`),
    `meshes.${mesh.id}.form`,
    `meshes.${mesh.id}.faceWidthMm`,
    ...(moduleOf(body, mesh) || gears.some((g) => figureAt(body, `gears.${g}.outsideMm`) !== undefined)
      ? []
      : [`gears.${mesh.gear}.outsideMm`]),
  ]
  const like = likeOf(body, mesh)
  const known = (path: string) =>
    figureAt(body, path) !== undefined ||
    (like !== undefined &&
      figureAt(body, path.replace(`meshes.${mesh.id}.`, `meshes.${like.id}.`)) !== undefined)
  return needed
    .filter((path) => !known(path))
    .map((path) => ({ path, label: fields.find((f) => f.path === path)?.label ?? path }))
}

/** Whether a sheet that stands lacks a figure. */
export const lacks = (sheet: DriveSheet, path: string): boolean => sheet.lacks?.includes(path) ?? false
