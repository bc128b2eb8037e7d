import type { BenchFacts, LeakPlan } from '../bench-facts.ts'
import type { Part, PartKind } from '../parts.ts'
import type { Adjuster, Bearing, DriveSheet, GearMesh, Measure } from '../sheet.ts'
import type {
  BodyAdjuster,
  BodyBearing,
  BodyBench,
  BodyLeak,
  BodyMeasure,
  BodyPart,
  SheetBody,
} from './body.ts'
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
/** Labour of a drive that nobody here has done yet, hours. */
const LABOUR = { openHours: 3, setHours: 3, closeHours: 3 }

/** Parts that end up inside the case unless a sheet says otherwise. */
export const INSIDE: readonly PartKind[] = [
  'gear',
  'shaft',
  'bearing',
  'needle',
  'cup',
  'shim',
  'washer',
  'key',
  'clutch',
]

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
  const { format: _format, ...head } = body
  // hours that nobody has said are usual ones, and are called so
  const lacks = [...lackingIn(body), ...(body.bench.labour ? [] : ['bench.labour'])]
  return {
    ...head,
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
    parts: body.parts.map(partOf),
    bench: benchOf(body.bench, body.oilCapacityMl),
    ...(lacks.length ? { lacks } : {}),
  }
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

function partOf(p: BodyPart): Part {
  return { count: 1, after: [], inside: INSIDE.includes(p.kind), ...p }
}

/** What air tests need: pressures that rise, a hold, a volume and what it may lose; the volume of the oil where nobody has measured it. */
function leakOf(leak: BodyLeak | undefined, oilMl: number | undefined): LeakPlan | null {
  if (!leak) return null
  const { workKpa, maxKpa, holdMin, allowedMlPerMin, allowedDrop } = leak
  const volumeMl = leak.volumeMl ?? oilMl
  if (
    workKpa === undefined ||
    maxKpa === undefined ||
    holdMin === undefined ||
    (allowedMlPerMin === undefined && allowedDrop?.kpa === undefined) ||
    volumeMl === undefined
  )
    return null
  return {
    ports: leak.ports ?? [],
    lowKpa: leak.lowKpa ?? workKpa / 4,
    workKpa,
    maxKpa,
    holdMin,
    ...(allowedDrop?.kpa === undefined ? {} : { allowedDrop }),
    ...(allowedMlPerMin === undefined ? {} : { allowedMlPerMin }),
    volumeMl,
    turns: leak.turns ?? 'Every shaft, both ways',
  }
}

function benchOf(b: BodyBench, oilMl: number | undefined): BenchFacts {
  const { lockTabs, propeller, joins, leftHand, hidden, leak, ...single } = b
  return {
    openGear: null,
    shifts: false,
    captive: null,
    pinchScrews: null,
    sealSprings: null,
    seals: { pair: false },
    raceLetters: null,
    oilFeed: null,
    waterTube: null,
    shiftRod: null,
    telltale: false,
    thrustHub: null,
    lubricant: 'oil',
    drainPlug: null,
    anodes: null,
    weightKg: null,
    labour: LABOUR,
    exchange: null,
    used: null,
    ...single,
    leftHand: leftHand?.what ? { place: '', ...leftHand, what: leftHand.what } : null,
    hidden: hidden?.count && hidden.where ? { count: hidden.count, where: hidden.where } : null,
    lockTabs:
      lockTabs?.what && lockTabs.torqueNm
        ? {
            what: lockTabs.what,
            tabs: lockTabs.tabs ?? 1,
            torqueNm: lockTabs.torqueNm,
            reachedMounted: lockTabs.reachedMounted ?? false,
          }
        : null,
    propeller:
      propeller?.kind === 'pin'
        ? { kind: 'pin', afterRun: propeller.afterRun ?? true }
        : propeller?.kind === 'tabs' && propeller.torqueNm
          ? {
              kind: 'tabs',
              tabs: propeller.tabs ?? 1,
              threads: propeller.threads ?? 1,
              torqueNm: propeller.torqueNm,
              afterRun: propeller.afterRun ?? true,
            }
          : null,
    joins: joins
      ? {
          to: joins.to ?? 'its place',
          gear: joins.gear ?? 'neutral',
          oilJoint: leakOf(joins.oilJoint, undefined),
        }
      : null,
    leak: leakOf(leak, oilMl),
  }
}
