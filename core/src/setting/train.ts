import type { Adjuster, DriveSheet } from '../drives/sheet.ts'
import { settableAdjusters } from '../drives/sheet.ts'
import { isDerived, settingMeasures, type SetMeasure } from './measures.ts'
import { GIVEN_U } from '../drives/own/geometry.ts'
import { armFactor } from '../gears/backlash.ts'
import { meshGeometry } from '../gears/mesh.ts'
import { sensitivityUncertainty } from '../gears/sensitivity-uncertainty.ts'

/** How every measure answers to every stack: measure id → stack id → mm (of a torque Nm) per mm of stack. Zeros are left out. */
export type Sensitivities = Record<string, Record<string, number>>

/** How far one mm of outward travel of gear `gearId` changes a measure, mm per mm, at the place where it is read. */
function perGearTravel(sheet: DriveSheet, measure: SetMeasure, gearId: string): number {
  if (measure.kind === 'depth') return measure.gear === gearId ? 1 : 0
  if (measure.kind === 'end-play' || isDerived(measure)) return 0
  const mesh = sheet.meshes.find((m) => m.id === measure.mesh)!
  if (gearId !== mesh.pinion && gearId !== mesh.gear) return 0
  // what is only drawn answers nothing: there the manual's rule speaks, or nobody
  if (mesh.basis === 'drawn') return 0
  const geometry = meshGeometry(mesh.mesh)
  const atPitch = gearId === mesh.pinion ? geometry.backlashPerPinionMm : geometry.backlashPerGearMm
  return atPitch * armFactor(mesh.mesh, measure.member, measure.radiusMm)
}

/** How a bearing or a seat answers to the stack that sets it, mm or Nm per mm: shims at the bearing press it, those under the cover hold the cover off. */
function perSetter(measure: SetMeasure, stack: Adjuster): number {
  if (!isDerived(measure) || measure.by !== stack.id) return 0
  // what is in is no longer wanted
  if (measure.kind === 'seat') return -1
  if (measure.kind === 'rolling-torque') return measure.nmPerMm ?? 0
  return measure.shimsAt === 'bearing' ? 1 : -1
}

/**
 * The linear system y = y₀ + J ΔS of a whole gear train: ∂(measure)/∂(stack) = effect × change per outward mm of
 * the gear that the stack moves. A pinion that meshes with two gears moves both backlashes by itself.
 * Depth grows as the pinion moves outward. Crush and torque answer to the stack that sets the bearing. A rule of thumb in the sheet replaces the geometry's entry.
 * @param sheet one that checkSheet accepts
 * @param adjusters what is moved; a threaded carrier answers per mm that it is turned in
 */
export function sensitivities(sheet: DriveSheet, adjusters = settableAdjusters(sheet)): Sensitivities {
  const table: Sensitivities = {}
  for (const measure of settingMeasures(sheet)) {
    const row: Record<string, number> = {}
    for (const stack of adjusters) {
      const own = stack.rules?.[measure.id]
      const moved = stack.moves ? stack.effect * perGearTravel(sheet, measure, stack.moves) : 0
      const value = own ?? (moved || perSetter(measure, stack))
      if (value !== 0) row[stack.id] = value
    }
    table[measure.id] = row
  }
  return table
}

/** What a sensitivity stands on, and its relative standard uncertainty. */
export interface Trust {
  from: 'depth' | 'rule' | 'geometry' | 'bearing'
  relU: number
}

/** Depth answers mm for mm but for dirt and seating; a manual's own rule is printed to two figures; an arm is set up by eye. All relative. */
const DEPTH_REL_U = 0.02
const RULE_REL_U = 0.05
const RADIUS_REL_U = 0.02
/** A printed slope of a rolling torque is one bearing's, on one day: by half as much again it may be another. Our own. */
const TORQUE_REL_U = 0.25

/**
 * How far each entry of {@link sensitivities} is to be trusted: by what it stands on, and for geometry by what of it was measured and what
 * assumed (sensitivity-uncertainty).
 * @param sheet one that checkSheet accepts
 */
export function sensitivityTrust(
  sheet: DriveSheet,
  adjusters = settableAdjusters(sheet),
): Record<string, Record<string, Trust>> {
  const table = sensitivities(sheet, adjusters)
  return Object.fromEntries(
    settingMeasures(sheet).map((measure) => [
      measure.id,
      Object.fromEntries(
        adjusters
          .filter((a) => table[measure.id]![a.id] !== undefined)
          .map((a): [string, Trust] => [a.id, trustIn(sheet, measure, a.rules?.[measure.id] !== undefined)]),
      ),
    ]),
  )
}

function trustIn(sheet: DriveSheet, measure: SetMeasure, ruled: boolean): Trust {
  if (isDerived(measure) && !ruled)
    return { from: 'bearing', relU: measure.kind === 'rolling-torque' ? TORQUE_REL_U : DEPTH_REL_U }
  if (measure.kind === 'depth') return { from: 'depth', relU: DEPTH_REL_U }
  const mesh = measure.kind === 'backlash' && sheet.meshes.find((m) => m.id === measure.mesh)
  if (ruled || !mesh) return { from: 'rule', relU: RULE_REL_U }
  const u = { ...(mesh.u ?? GIVEN_U), radiusRel: RADIUS_REL_U, atArm: true }
  return { from: 'geometry', relU: sensitivityUncertainty({ mesh: mesh.mesh, u }).relU }
}

/**
 * How far each gear has moved outward, mm, when stacks differ from where they were.
 * @param change stack id → mm thicker, carrier id → mm turned further in
 */
export function gearTravel(sheet: DriveSheet, change: Record<string, number>): Record<string, number> {
  const travel: Record<string, number> = {}
  for (const gear of sheet.gears) travel[gear.id] = 0
  for (const stack of settableAdjusters(sheet))
    if (stack.moves) travel[stack.moves]! += stack.effect * (change[stack.id] ?? 0)
  return travel
}
