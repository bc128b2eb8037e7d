import type { DriveSheet, Measure } from '../drives/sheet.ts'
import { shimAdjusters } from '../drives/sheet.ts'
import { armFactor } from './backlash.ts'
import { meshGeometry } from './mesh.ts'

/** How every measure answers to every stack: measure id → stack id → mm per mm of stack. Zeros are left out. */
export type Sensitivities = Record<string, Record<string, number>>

/** How far one mm of outward travel of gear `gearId` changes a measure, mm per mm, at the place where it is read. */
function perGearTravel(sheet: DriveSheet, measure: Measure, gearId: string): number {
  if (measure.kind === 'depth') return measure.gear === gearId ? 1 : 0
  if (measure.kind === 'end-play') return 0
  const mesh = sheet.meshes.find((m) => m.id === measure.mesh)!
  if (gearId !== mesh.pinion && gearId !== mesh.gear) return 0
  const geometry = meshGeometry(mesh.mesh)
  const atPitch = gearId === mesh.pinion ? geometry.backlashPerPinionMm : geometry.backlashPerGearMm
  return atPitch * armFactor(mesh.mesh, measure.member, measure.radiusMm)
}

/**
 * The linear system y = y₀ + J ΔS of a whole gear train: ∂(measure)/∂(stack) = effect × change per outward mm of
 * the gear that the stack moves. A pinion that meshes with two gears moves both backlashes by itself.
 * Depth grows as the pinion moves outward. A rule of thumb in the sheet replaces the geometry's entry.
 * @param sheet one that checkSheet accepts
 * @param adjusters what is moved; a threaded carrier answers per mm that it is turned in
 */
export function sensitivities(sheet: DriveSheet, adjusters = shimAdjusters(sheet)): Sensitivities {
  const table: Sensitivities = {}
  for (const measure of sheet.measures) {
    const row: Record<string, number> = {}
    for (const stack of adjusters) {
      const own = stack.rules?.[measure.id]
      const value = own ?? (stack.moves ? stack.effect * perGearTravel(sheet, measure, stack.moves) : 0)
      if (value !== 0) row[stack.id] = value
    }
    table[measure.id] = row
  }
  return table
}

/**
 * How far each gear has moved outward, mm, when stacks differ from where they were.
 * @param change stack id → mm thicker
 */
export function gearTravel(sheet: DriveSheet, change: Record<string, number>): Record<string, number> {
  const travel: Record<string, number> = {}
  for (const gear of sheet.gears) travel[gear.id] = 0
  for (const stack of shimAdjusters(sheet))
    if (stack.moves) travel[stack.moves]! += stack.effect * (change[stack.id] ?? 0)
  return travel
}
