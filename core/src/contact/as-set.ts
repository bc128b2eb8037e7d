import { ASSUMED, GIVEN_U } from '../drives/own/geometry.ts'
import type { DriveSheet, GearMesh, Measure } from '../drives/sheet.ts'
import { armFactor } from '../gears/backlash.ts'
import { usualAddenda } from '../gears/gear-from-measures.ts'
import { meshGeometry, type Mesh } from '../gears/mesh.ts'
import { gearTravel } from '../gears/train.ts'
import type { Assessment } from '../setting/assess.ts'
import type { ContactCrown } from './tooth-contact.ts'

/** Crowning that an ordinary pair is cut with, and compound as it is dabbed on: what a sheet does not say. mm. */
export const USUAL_CROWN: ContactCrown = {
  crownLengthMm: 0.02,
  crownProfileMm: 0.015,
  centreLength: 0,
  centreProfile: 0,
  filmMm: 0.006,
}

/** What of the teeth nobody has given: it was put in by the usual proportions. */
export type AssumedFigure = 'addenda' | 'cutter' | 'crowning' | 'angles'

/** The teeth of a pair, complete enough for its contact, and what of them is assumed. */
export interface ContactTeeth {
  mesh: Mesh
  assumed: AssumedFigure[]
}

/**
 * Completes the teeth of a pair for the contact: addenda by the usual proportions of bevel gears, a cutter of 0.9 mean cone distances. Crowning is
 * on no sheet and always assumed.
 */
export function contactTeeth({ mesh, basis, u }: GearMesh): ContactTeeth {
  const assumed: AssumedFigure[] = []
  const whole: Mesh = { ...mesh }
  if (whole.gearAddendumMm === undefined || whole.pinionAddendumMm === undefined) {
    Object.assign(whole, usualAddenda(mesh))
    assumed.push('addenda')
  }
  if ((whole.spiralAngleDeg ?? 0) !== 0 && whole.cutterRadiusMm === undefined) {
    whole.cutterRadiusMm = ASSUMED.cutterPerConeDistance * meshGeometry(mesh).meanConeDistanceMm
    assumed.push('cutter')
  }
  if (basis === 'drawn' || (u ?? GIVEN_U).spiralAngleDeg >= ASSUMED.spiralAngleUDeg + 1e-9)
    assumed.push('angles')
  return { mesh: whole, assumed: [...assumed, 'crowning'] }
}

/** How far the members of a pair stand from where they belong, mm outward, each with U (k = 2); what the gauges say. */
export interface PairStands {
  pinionMm: number
  pinionUMm: number
  gearMm: number
  gearUMm: number
  /** False where no depth was measured: the pinion is taken to stand right. */
  depthKnown: boolean
}

/** A value with its standard uncertainty. */
export interface Known {
  value: number
  u: number
}

/** What a build was read as, by measure. */
export const knownFrom = ({ measures }: Pick<Assessment, 'measures'>): Record<string, Known> =>
  Object.fromEntries(
    Object.values(measures).flatMap((m) =>
      m.judgement ? [[m.measure, { value: m.judgement.mean, u: m.judgement.u }]] : [],
    ),
  )

const middle = ({ window, target }: Measure) =>
  target ?? ((window.min ?? window.max ?? 0) + (window.max ?? window.min ?? 0)) / 2

/**
 * Where pinion and gear of a pair stand, from what was measured: the pinion by its depth against the target; the gear by what of the backlash,
 * against its target, the pinion does not explain: j − j₀ = c₁ p + c₂ g at the outer pitch circle (mesh.ts).
 * @param known value and standard uncertainty of each measure that was read, by its id
 * @returns undefined without a backlash reading of this pair
 */
export function pairStands(
  sheet: DriveSheet,
  pair: GearMesh,
  known: Readonly<Record<string, Known | undefined>>,
): PairStands | undefined {
  const backlash = sheet.measures.find((m) => m.kind === 'backlash' && m.mesh === pair.id && known[m.id])
  if (backlash?.kind !== 'backlash') return undefined
  const depth = sheet.measures.find((m) => m.kind === 'depth' && m.gear === pair.pinion && known[m.id])
  const { backlashPerPinionMm: c1, backlashPerGearMm: c2 } = meshGeometry(pair.mesh)
  const p = depth
    ? { value: known[depth.id]!.value - middle(depth), u: known[depth.id]!.u }
    : { value: 0, u: 0 }
  const read = known[backlash.id]!
  const atPitch = 1 / armFactor(pair.mesh, backlash.member, backlash.radiusMm)
  const gearMm = ((read.value - middle(backlash)) * atPitch - c1 * p.value) / c2
  return {
    pinionMm: p.value,
    pinionUMm: 2 * p.u,
    gearMm,
    gearUMm: 2 * Math.hypot((read.u * atPitch) / c2, (c1 * p.u) / c2),
    depthKnown: depth !== undefined,
  }
}

/** The same once stacks have changed. @param change stack id → mm thicker */
export function pairAfter(
  sheet: DriveSheet,
  pair: GearMesh,
  stands: Pick<PairStands, 'pinionMm' | 'gearMm'>,
  change: Record<string, number>,
): { pinionMm: number; gearMm: number } {
  const travel = gearTravel(sheet, change)
  return {
    pinionMm: stands.pinionMm + (travel[pair.pinion] ?? 0),
    gearMm: stands.gearMm + (travel[pair.gear] ?? 0),
  }
}
