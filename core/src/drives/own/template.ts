import { demoSheets } from '../sheets/index.ts'
import { FAMILIES, type DriveSheet, type Family } from '../sheet.ts'
import { bareGraph } from './bare-graph.ts'
import { SHEET_FORMAT, type SheetBody } from './body.ts'

/** Zones of a shaft whose runout is looked at; the limits are the manual's. */
const ZONES = ['Seal land', 'Bearing journal', 'Spline']

/**
 * A sheet of this family without a figure on it: its shafts, gears, stacks, bearings, seals and usual parts, taken over from the invented sheet of the
 * family. What a drive has not is struck out, what it has besides is added; every figure is the technician's own.
 * @param id free, and kept for good
 */
export function templateOf(family: Family, id: string, name: string): SheetBody {
  const like = demoSheets.find((s) => s.family === family)!
  const along = ranks(like)
  return {
    format: SHEET_FORMAT,
    id,
    name,
    family,
    summary: FAMILIES[family],
    axes: like.axes.map(({ id, label, line, insideOf, offsetMm, fromMm, toMm, radiusMm }) => ({
      id,
      label,
      line,
      ...(insideOf === undefined ? {} : { insideOf }),
      ...(offsetMm === undefined ? {} : { offsetMm }),
      // shafts without gears are not laid out by any
      ...(like.gears.length ? {} : { fromMm, toMm, radiusMm }),
    })),
    gears: like.gears.map(({ id, label, axis, side }) => ({ id, label, axis, side })),
    meshes: like.meshes.map(({ id, label, pinion, gear, mesh }) => ({
      id,
      label,
      pinion,
      gear,
      ...(mesh.spiralAngleDeg ? {} : { form: 'straight' as const }),
    })),
    adjusters: like.adjusters.map(({ id, label, kind, axis, moves, setBy, atMm }) => ({
      id,
      label,
      kind,
      axis,
      ...(moves === undefined ? {} : { moves }),
      ...(setBy === undefined ? {} : { setBy }),
      ...along(axis, atMm),
    })),
    bearings: like.bearings.map(({ id, label, kind, axis, atMm, setting }) => ({
      id,
      label,
      kind,
      axis,
      ...(setting
        ? {
            setting:
              setting.kind === 'crush'
                ? {
                    kind: 'crush' as const,
                    ...(setting.shimsAt ? { shimsAt: setting.shimsAt } : {}),
                    ...(setting.by ? { by: setting.by } : {}),
                  }
                : {
                    kind: 'rolling-torque' as const,
                    ...(setting.by ? { by: setting.by } : {}),
                    ...(setting.sleeve ? { sleeve: true } : {}),
                  },
          }
        : {}),
      ...(like.gears.length ? along(axis, atMm) : { atMm }),
    })),
    seals: like.seals.map(({ id, label, axis, atMm }) => ({
      id,
      label,
      axis,
      ...(like.gears.length ? along(axis, atMm) : { atMm }),
    })),
    ...(like.belts ? { belts: like.belts } : {}),
    measures: like.measures.map((m) => {
      const { id, label } = m
      if (m.kind === 'depth') return { id, label, kind: m.kind, gear: m.gear }
      if (m.kind === 'end-play') return { id, label, kind: m.kind, axis: m.axis }
      return { id, label, kind: m.kind, mesh: m.mesh, hold: m.hold, member: m.member }
    }),
    runoutLimits: ZONES.map((zone, i) => ({ id: `zone-${i + 1}`, zone })),
    ...bareGraph(like.graph, OTHER_CASE[family]),
    sources: [{ path: 'parts', kind: 'assumed' }],
  }
}

/** What a case of a sterndrive is joined to, on a sheet that begins: the demo's own name for it is another drive's. */
const OTHER_CASE: Partial<Record<Family, string>> = {
  'stern-upper': 'its lower case',
  'stern-upper-reversing': 'its lower case',
  'stern-lower-fnr': 'its upper case',
  'stern-lower-twin': 'its upper case',
}

/** Side of the apex, and turn outward from there, of what sits along a shaft. */
function ranks(like: DriveSheet) {
  const all = [...like.adjusters, ...like.bearings, ...like.seals]
  const lineOf = (axis: string) => like.axes.find((a) => a.id === axis)!.line
  return (axis: string, atMm: number): { side: 1 | -1; order: number } => {
    const side = atMm < 0 ? -1 : 1
    const before = all.filter(
      (o) => lineOf(o.axis) === lineOf(axis) && o.atMm * side > 0 && Math.abs(o.atMm) < Math.abs(atMm),
    )
    return { side, order: before.length + 1 }
  }
}
