import { refuse } from '../checks/input-error.ts'
import { finite, notNegative, positive } from '../checks/numbers.ts'
import type { Mesh } from '../gears/mesh.ts'
import { checkPair, type PatchPair } from './patch-place.ts'
import { checkCrown, type ContactCrown } from './tooth-contact.ts'

/** Patches of the same pair as it stood before: pinion and gear this much further out than now, mm. */
export interface EarlierPatches extends PatchPair {
  pinionMm: number
  gearMm: number
}

/** A depth gauge's answer: one part's distance from right, outward positive, with its standard uncertainty. */
export interface GaugedDepth {
  part: 'pinion' | 'gear'
  valueMm: number
  uMm: number
}

/** Backlash at the outer pitch circle with its standard uncertainty, and what it is with both parts right. */
export interface GaugedBacklash {
  valueMm: number
  uMm: number
  targetMm: number
}

export interface PatternReadInput extends ContactCrown, PatchPair {
  mesh: Mesh
  /** Flank that drives; the other one is the coast flank. @default 1 */
  driveSide?: 1 | -1
  /** The same at further places round the gear. */
  otherPlaces?: PatchPair[]
  /** Patches of the same pair when it was known to be set right; the computed ones without error when left out. */
  reference?: PatchPair
  /** Errors of the case to look for besides pinion and gear. @default none */
  also?: ('offset' | 'shaft-angle')[]
  /** What the gauges say of the same setting: further observations. */
  depth?: GaugedDepth
  backlash?: GaugedBacklash
  /** Earlier trials of this pair: they fix which way its pattern runs along the tooth with the pinion's depth. */
  earlier?: EarlierPatches[]
  /** +1 when more shim moves the member outward, −1 when inward; gives the answer in shims. */
  pinionEffect?: 1 | -1
  gearEffect?: 1 | -1
}

/** @throws InputError on what cannot be asked of a pattern */
export function checkQuestion(input: PatternReadInput): void {
  checkCrown(input)
  const side = input.driveSide ?? 1
  if (side !== 1 && side !== -1) refuse('driveSide', 'is 1 or −1')
  checkPair('', input)
  input.otherPlaces?.forEach((p, i) => checkPair(`otherPlaces[${i}].`, p))
  if (input.reference) checkPair('reference.', input.reference)
  for (const name of input.also ?? [])
    if (name !== 'offset' && name !== 'shaft-angle')
      refuse('also', `holds "${String(name)}"; there are offset and shaft-angle`)
  input.earlier?.forEach((e, i) => {
    checkPair(`earlier[${i}].`, e)
    for (const name of ['pinionMm', 'gearMm'] as const)
      if (Math.abs(finite(`earlier[${i}].${name}`, e[name])) > MOST_MOVED)
        refuse(`earlier[${i}].${name}`, `is ${e[name]}; allowed is −${MOST_MOVED} to ${MOST_MOVED} mm`)
  })
  if (input.depth) {
    const { part } = input.depth
    if (part !== 'pinion' && part !== 'gear')
      refuse('depth.part', `is "${String(part)}"; there are pinion and gear`)
    finite('depth.valueMm', input.depth.valueMm)
    positive('depth.uMm', input.depth.uMm)
  }
  if (input.backlash) {
    notNegative('backlash.valueMm', input.backlash.valueMm)
    notNegative('backlash.targetMm', input.backlash.targetMm)
    positive('backlash.uMm', input.backlash.uMm)
  }
}

/** From one trial to the next a part is not moved further, mm. */
const MOST_MOVED = 2
