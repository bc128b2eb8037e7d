import { edgesOf } from './graph/edges.ts'
import type { Part } from './parts.ts'
import type { DriveSheet } from './sheet.ts'

/** Seal parts by the shaft that their place on the drawing names. */
export function sealsOnAxis(sheet: DriveSheet, axis: string): Part[] {
  const places = new Set(sheet.seals.filter((s) => s.axis === axis).map((s) => `seal:${s.id}`))
  return sheet.parts.filter((p) => p.kind === 'seal' && p.place !== undefined && places.has(p.place))
}

/** The shaft that turns on an axis: the one that its seals run on. Undefined where no seal says so. */
export function shaftOnAxis(sheet: DriveSheet, axis: string): Part | undefined {
  const seals = new Set(sealsOnAxis(sheet, axis).map((p) => p.id))
  const rows = sheet.graph.parts.filter((p) => seals.has(p.id))
  const under = new Set(rows.flatMap((p) => edgesOf(p.runsOn)))
  return sheet.parts.find((p) => p.kind === 'shaft' && under.has(p.id))
}
