import { ASSUMED } from '../drives/own/geometry.ts'
import type { DriveSheet, GearMesh, Measure, MeshUncertainty } from '../drives/sheet.ts'
import { armFactor } from '../gears/backlash.ts'
import { usualAddenda } from '../gears/gear-from-measures.ts'
import { meshGeometry, type Mesh } from '../gears/mesh.ts'
import { gearTravel } from '../setting/train.ts'
import type { Assessment } from '../setting/assess.ts'
import { pushedFlank, type PushedFlank } from '../gears/flank.ts'
import type { GaugedBacklash } from './pattern-question.ts'
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
const ASSUMABLE = ['addenda', 'cutter', 'angles', 'crowning'] as const
export type AssumedFigure = (typeof ASSUMABLE)[number]

/** The teeth of a pair, complete enough for its contact, and what of them is assumed. */
export interface ContactTeeth {
  mesh: Mesh
  /** Which flank of the gear the pinion pushes, as far as that is known. */
  pushed: PushedFlank
  assumed: AssumedFigure[]
}

/**
 * Completes the teeth of a pair for the contact: addenda by the usual proportions of bevel gears, a cutter of 0.9 mean cone distances. Crowning is
 * on no sheet and always assumed.
 */
export function contactTeeth(pair: GearMesh): ContactTeeth {
  const { mesh, basis = 'given', u } = pair
  const whole: Mesh = { ...mesh }
  const spiral = (mesh.spiralAngleDeg ?? 0) !== 0
  const noAddenda = mesh.gearAddendumMm === undefined || mesh.pinionAddendumMm === undefined
  const noCutter = spiral && mesh.cutterRadiusMm === undefined
  if (noAddenda) Object.assign(whole, usualAddenda(mesh))
  if (noCutter) whole.cutterRadiusMm = ASSUMED.cutterPerConeDistance * meshGeometry(mesh).meanConeDistanceMm
  // a pair that was measured by calliper has its addenda and its cutter by the usual proportions, and the angles that nobody took
  const given = basis === 'given'
  const assumed: Record<AssumedFigure, boolean> = {
    addenda: noAddenda || !given,
    cutter: noCutter || (spiral && !given),
    angles: basis === 'drawn' || (basis === 'measured' && u !== undefined && someAngleAssumed(u)),
    crowning: true,
  }
  return { mesh: whole, pushed: pushedFlank(pair), assumed: ASSUMABLE.filter((a) => assumed[a]) }
}

/** An angle that was taken with a protractor, or named by a manual, is surer than one that is assumed. */
const someAngleAssumed = (u: MeshUncertainty) =>
  u.spiralAngleDeg >= ASSUMED.spiralAngleUDeg || u.pressureAngleDeg >= ASSUMED.pressureAngleUDeg

/** How far the members of a pair stand from where they belong, mm outward, each with U (k = 2); what the gauges say. */
export interface PairStands {
  pinionMm: number
  pinionUMm: number
  gearMm: number
  gearUMm: number
  /** False where no depth was measured: the pinion is taken to stand right. */
  depthKnown: boolean
  /** The backlash that says it, at the outer pitch circle. */
  backlash: GaugedBacklash
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
 * @returns undefined without a backlash reading of this pair, where its radius is not known, and where its teeth are only drawn: what nobody has
 *   counted or measured answers nothing
 */
export function pairStands(
  sheet: DriveSheet,
  pair: GearMesh,
  known: Readonly<Record<string, Known | undefined>>,
): PairStands | undefined {
  const backlash = sheet.measures.find((m) => m.kind === 'backlash' && m.mesh === pair.id && known[m.id])
  if (backlash?.kind !== 'backlash' || pair.basis === 'drawn') return undefined
  if (sheet.lacks?.includes(`measures.${backlash.id}.radiusMm`)) return undefined
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
    backlash: {
      valueMm: read.value * atPitch,
      uMm: read.u * atPitch,
      targetMm: middle(backlash) * atPitch,
    },
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

/** A pair of gears of a build, ready for its contact. */
export interface ContactPair {
  pair: GearMesh
  teeth: ContactTeeth
  /** Where it stands by the gauges; undefined while they do not say. */
  stands: PairStands | undefined
}

export function contactPairs(sheet: DriveSheet, assessment: Pick<Assessment, 'measures'>): ContactPair[] {
  const known = knownFrom(assessment)
  return sheet.meshes.map((pair) => ({
    pair,
    teeth: contactTeeth(pair),
    stands: pairStands(sheet, pair, known),
  }))
}
