import { caseSpace } from '../graph/unit-facts.ts'
import { fastenersOf, furtherOf, partsOf } from '../graph/old-view.ts'
import { GRAPH_LISTS, type Graph } from '../graph/rows.ts'
import type { Adjuster, Bearing, DriveSheet, GearMesh, Measure } from '../sheet.ts'
import type { BodyAdjuster, BodyBearing, BodyMeasure, SheetBody } from './body.ts'
import { lackingIn } from './figures.ts'
import { pushedAsSaid } from './flank-figures.ts'
import { meshOf } from './geometry.ts'
import { placesOf } from './places.ts'

/** Stands in for figures of a stack that nobody has typed: the section is drawn with them, and the solver may use the widest range. mm. */
const STACK = { minMm: 0, maxMm: 3, maxPieces: 6, startMm: 0.8 }
/** Readings of a set where the sheet does not ask for another number. */
const READINGS = 3
/** Radius of an arm for the drawing, until the sheet says where it is read. mm. */
const RADIUS_MM = 40

/**
 * The sheet that a body makes: everything is there that a computation, the route, or the drawing asks for; what the body does not say is either
 * absent (a window without limits, no torque) or filled for the drawing only, and named in `lacks`. No limit is ever invented.
 */
export function filled(body: SheetBody): DriveSheet {
  const meshes = body.meshes.map((m): GearMesh => {
    const { mesh: _m, form: _f, faceWidthMm: _w, spiralAngleDeg: _s, pressureAngleDeg: _p, ...rest } = m
    const { shaftAngleDeg: _a, ...names } = rest
    return { ...names, ...pushedAsSaid(body, m), ...meshOf(body, m) }
  })
  const { axes, at } = placesOf(body, meshes)
  const graph = graphOf(body)
  const { id, name, family, ratio, belts, service, manual, sources, variants, variant } = body
  // hours that nobody has said are usual ones, and are called so
  const lacks = [...lackingIn(body), ...(body.unit?.hours ? [] : ['unit.hours'])]
  const fillMl = caseSpace(graph)?.fillMl
  const fasteners = fastenersOf(graph)
  const further = furtherOf(graph)
  return {
    id,
    name,
    family,
    ...(ratio ? { ratio } : {}),
    ...(belts ? { belts } : {}),
    ...(service ? { service } : {}),
    ...(manual === undefined ? {} : { manual }),
    ...(sources ? { sources } : {}),
    ...(variants ? { variants } : {}),
    ...(variant ? { variant } : {}),
    ...(fillMl === undefined ? {} : { oilCapacityMl: fillMl }),
    ...(fasteners.length ? { fasteners } : {}),
    ...(further ? { further } : {}),
    graph,
    version: body.version ?? 0,
    demo: body.demo ?? false,
    summary: body.summary ?? '',
    axes,
    gears: body.gears.map(({ outsideMm, ...g }) => ({
      ...g,
      teeth: g.teeth ?? drawnTeeth(meshes, g.id),
      ...(outsideMm === undefined ? {} : { outsideMm }),
    })),
    meshes,
    adjusters: body.adjusters.map((a) => adjusterOf(a, at.get(`adjuster:${a.id}`)!)),
    bearings: body.bearings.map(({ side: _side, order: _order, setting, ...b }): Bearing => ({
      ...b,
      atMm: at.get(`bearing:${b.id}`)!,
      ...(setting ? { setting: settingOf(setting) } : {}),
    })),
    seals: body.seals.map(({ side: _side, order: _order, ...s }) => ({
      ...s,
      atMm: at.get(`seal:${s.id}`)!,
    })),
    measures: body.measures.map(measureOf),
    runoutLimits: (body.runoutLimits ?? []).flatMap(({ zone, tirMm }) =>
      tirMm === undefined ? [] : [{ zone, tirMm }],
    ),
    parts: partsOf(graph),
    ...(lacks.length ? { lacks } : {}),
  }
}

/** The rows of a body that make its graph. */
export function graphOf(body: SheetBody): Graph {
  const kept = [...GRAPH_LISTS, 'unit', 'upgraded'] as const
  return Object.fromEntries(
    kept.flatMap((k) => (body[k] === undefined ? [] : [[k, body[k]]])),
  ) as unknown as Graph
}

function settingOf(s: NonNullable<BodyBearing['setting']>): NonNullable<Bearing['setting']> {
  // a crush that nobody has typed is none; the route asks for it before anything is computed with it
  return s.kind === 'crush' ? { ...s, crushMm: s.crushMm ?? 0 } : { ...s, newNm: s.newNm ?? {} }
}

function drawnTeeth(meshes: readonly GearMesh[], gear: string): number {
  const m = meshes.find((x) => x.pinion === gear || x.gear === gear)
  return m ? (m.pinion === gear ? m.mesh.pinionTeeth : m.mesh.gearTeeth) : 20
}

function adjusterOf({ side: _side, order: _order, ...a }: BodyAdjuster, atMm: number): Adjuster {
  const minMm = a.minMm ?? Math.min(STACK.minMm, a.startMm ?? STACK.minMm)
  const maxMm = a.maxMm ?? Math.max(STACK.maxMm, (a.startMm ?? 0) + 1)
  return {
    ...a,
    atMm,
    effect: a.effect ?? 0,
    minMm,
    maxMm,
    maxPieces: a.maxPieces ?? STACK.maxPieces,
    startMm: a.startMm ?? Math.min(maxMm, Math.max(minMm, STACK.startMm)),
  }
}

function measureOf(m: BodyMeasure): Measure {
  const base = { window: m.window ?? {}, readings: m.readings ?? READINGS, before: m.before ?? [] }
  if (m.kind === 'backlash')
    return { hold: '', member: 'pinion', ...m, ...base, radiusMm: m.radiusMm ?? RADIUS_MM }
  if (m.kind === 'end-play') return { ...m, ...base }
  const how = m.how ?? {}
  const number = (name: string) => Number(how[name] ?? 0)
  const full =
    how.method === 'arbor'
      ? ({
          method: 'arbor',
          arborDiameterMm: number('arborDiameterMm'),
          farSide: how.farSide === true,
        } as const)
      : how.method === 'feeler-block'
        ? ({
            method: 'feeler-block',
            nominalClearanceMm: number('nominalClearanceMm'),
            nominalDepthMm: number('nominalDepthMm'),
          } as const)
        : ({
            method: 'master-drop',
            masterMm: number('masterMm'),
            extends: how.extends === true,
          } as const)
  return { ...m, ...base, how: full }
}
