import { refuse } from '../checks/input-error.ts'
import { finite, notNegative, positive } from '../checks/numbers.ts'

export type DepthInput =
  | { method: 'master-drop'; masterMm: number; dropMm: number; extends: boolean }
  | { method: 'arbor'; readingMm: number; arborDiameterMm: number; farSide: boolean }
  | { method: 'feeler-block'; clearanceMm: number; nominalClearanceMm: number; nominalDepthMm: number }
  | { method: 'case-and-gear'; caseMm: number; assemblyMm: number; nominalMm: number; effect?: 1 | -1 }

export type DepthResult = { depthMm: number } | { shimMm: number }

/**
 * Where a gear stands on its own axis, from what the gauge shows. All in mm.
 *
 * - master-drop: gauge zeroed at master length M, plunger then moves by d: M − d (retracting) or M + d (extending).
 * - arbor: reading to the arbor's near side plus its radius gives the centreline; minus the radius from the far side.
 * - feeler-block: the depth is off its nominal by what the feeler is off the block's nominal clearance.
 * - case-and-gear: shim = C − A − N when more shim pushes the gear inward (effect −1, default), N − C − A when outward.
 *   A negative result is returned as it is: it says that the parts do not go together.
 *
 * @throws InputError on non-finite values, lengths that cannot be, or a drop longer than a retracting master
 */
export function depth(input: DepthInput): DepthResult {
  switch (input.method) {
    case 'master-drop': {
      positive('masterMm', input.masterMm)
      finite('dropMm', input.dropMm)
      const depthMm = input.extends ? input.masterMm + input.dropMm : input.masterMm - input.dropMm
      if (depthMm <= 0)
        refuse(
          'dropMm',
          `is ${input.dropMm}; with a master of ${input.masterMm} mm the depth would be ${depthMm} mm; check the turn counter`,
        )
      return { depthMm }
    }
    case 'arbor':
      finite('readingMm', input.readingMm)
      positive('arborDiameterMm', input.arborDiameterMm)
      return { depthMm: input.readingMm + (input.farSide ? -1 : 1) * (input.arborDiameterMm / 2) }
    case 'feeler-block':
      notNegative('clearanceMm', input.clearanceMm)
      notNegative('nominalClearanceMm', input.nominalClearanceMm)
      positive('nominalDepthMm', input.nominalDepthMm)
      return { depthMm: input.nominalDepthMm + (input.clearanceMm - input.nominalClearanceMm) }
    case 'case-and-gear': {
      positive('caseMm', input.caseMm)
      positive('assemblyMm', input.assemblyMm)
      positive('nominalMm', input.nominalMm)
      const effect = input.effect ?? -1
      if (effect !== 1 && effect !== -1)
        refuse('effect', `is ${String(effect)}; it is +1 (outward) or −1 (inward)`)
      return {
        shimMm:
          effect === -1
            ? input.caseMm - input.assemblyMm - input.nominalMm
            : input.nominalMm - input.caseMm - input.assemblyMm,
      }
    }
    default:
      refuse('method', 'is one of master-drop, arbor, feeler-block, case-and-gear')
  }
}
