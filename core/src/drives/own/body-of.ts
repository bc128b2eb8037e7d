import type { DriveSheet } from '../sheet.ts'
import { SHEET_FORMAT, type SheetBody } from './body.ts'

/** A sheet that stands as a body: its graph and its gear train, without what was only filled in or read out of the graph. */
export function bodyOf(sheet: DriveSheet): SheetBody {
  const {
    graph,
    meshes,
    parts: _parts,
    fasteners: _fasteners,
    further: _further,
    oilCapacityMl: _oil,
    lacks: _lacks,
    edition: _edition,
    after: _after,
    ...head
  } = sheet
  return {
    format: SHEET_FORMAT,
    ...head,
    ...graph,
    meshes: meshes.map(({ basis: _basis, u: _u, ...m }) => m),
  }
}
