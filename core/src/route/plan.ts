import { joinedTest, labourOf } from '../drives/graph/unit-facts.ts'
import { afterClosure } from './after-closure.ts'
import { ALWAYS_NEW, comesOff, setOf, type Part } from '../drives/parts.ts'
import { settingsOf } from '../setting/settings-of-part.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import type { Reached } from './goal.ts'
import { comesTo, pressedOn, usedOnce, withNewClutch, withNewGears } from './reached.ts'
import { reach } from './reach.ts'
import { CAME_ELSEWHERE, type Scope } from './scope.ts'

/** What follows from a scope before anything is opened. Pure: the same sheet, scope and grades give the same plan. */
export interface Plan {
  scope: Scope
  /** What comes off, in the order of the sheet, each after what holds it. */
  off: Part[]
  /** What stays in: seen and judged in place, not taken out. */
  stays: Part[]
  renew: Renewed[]
  /** Ids of measures, and `bearing:` settings, that what comes off carries or sets. */
  disturbed: string[]
  /** Measures of the sheet that nothing touches. */
  undisturbed: string[]
  /** Joints that have to be proved tight. */
  prove: ('case' | 'joined')[]
  /** The unit comes off the boat, or the halves apart. */
  apart: boolean
  /** The oil is let out. */
  drains: boolean
  hours: number
  /** What the parts cost, as far as their prices are known. */
  parts: number
  /** How many of them have no price. */
  unpriced: number
  waitDays: number
  /** What could be renewed for little more while it is open. */
  worth: WorthDoing[]
}

export interface Renewed {
  part: string
  name: string
  /** `wanted`: it is what the job is for. `disturbed`: opened on the way. `opening`: everything that seals and is reached. `set`: sold together. `pressed`: pressed on what is scrapped. `holds`: holds a clutch that is new, or is sold with it. `once`: it serves only once. */
  why: 'wanted' | 'disturbed' | 'opening' | 'set' | 'pressed' | 'holds' | 'once' | 'condemned' | 'school'
}

export interface WorthDoing {
  part: string
  name: string
  /** Parts that would come off besides. */
  more: string[]
  price?: number
}

export interface PlanWays {
  /** Choices of the shop that change what is renewed, by school. */
  seals?: string
  cups?: string
  impeller?: string
}

/** What the grades say: parts that are condemned, and parts that were looked at and go back. */
export interface PlanFindings {
  condemned?: readonly string[]
  kept?: readonly string[]
}

/** A job is never shorter than this part of the sheet's hours for opening and closing, however little comes off. */
const LEAST_SHARE = 0.12
/** What is worth doing beside it needs at most so many parts more. */
const MORE_PARTS = 2
/** Kinds that are renewed beside a job because rubber is cheap and labour is not. */
const CHEAP_KINDS: Part['kind'][] = ['seal', 'ring', 'pump', 'anode', 'key']
/** Modes in which nothing is built back by us unless the owner says so. */
const ONLY_LOOKED: Scope['mode'][] = ['look', 'strike', 'test']

/** So many plans of one sheet are kept: the jobs on a bench, and what somebody tries out on the page of its scope. */
const PLANS_KEPT = 100
const plansOf = perSheet(() => new Map<string, Plan>())

/**
 * What comes off, what is new, what has to be set and proved again, and what it costs, from the parts graph of the sheet ({@link reach}).
 * Condemned parts join the targets: a scope grows with what is found. Hours are the sheet's own, in the share of parts that come off (setting in
 * the share of measures that are disturbed); prices are the sheet's, a set or kit once. Every judgement of a job asks for its plan, which seldom
 * changes: it is kept, and not to be changed.
 */
export function planOf(
  sheet: DriveSheet,
  scope: Scope,
  ways: PlanWays = {},
  { condemned = [], kept = [] }: PlanFindings = {},
): Plan {
  const known = plansOf(sheet)
  const { usual, mode, targets, mounted, came, lying } = scope
  const key = JSON.stringify([
    usual,
    mode,
    targets,
    mounted,
    came,
    lying,
    ways.seals,
    ways.cups,
    ways.impeller,
    condemned,
    [...kept].sort(),
  ])
  const before = known.get(key)
  if (before) return before
  if (known.size >= PLANS_KEPT) known.clear()
  const beside = { ...(came ? { came } : {}), ...(lying ? { lying } : {}) }
  const plan = workOut(sheet, { usual, mode, targets, mounted, ...beside }, ways, { condemned, kept })
  known.set(key, plan)
  return plan
}

function workOut(
  sheet: DriveSheet,
  scope: Scope,
  ways: PlanWays,
  { condemned, kept }: Required<PlanFindings>,
): Plan {
  const loose = sheet.parts.filter(comesOff)
  const known = new Set(loose.map((p) => p.id))
  const renews = !ONLY_LOOKED.includes(scope.mode)
  // into a new case everything moves over
  const newCase = renews ? sheet.parts.filter((p) => !comesOff(p) && condemned.includes(p.id)) : []
  const targets = [
    ...new Set([
      ...(newCase.length ? known : scope.targets.filter((t) => known.has(t))),
      ...condemned.filter((t) => known.has(t)).flatMap((t) => setOf(sheet.parts, t).map((p) => p.id)),
    ]),
  ]
  const scrapped = withNewGears(sheet, scope, targets)
  const isScrapped = (id: string) =>
    condemned.includes(id) || sheet.parts.find((p) => p.id === id)?.kind !== 'shaft'
  const isWanted = scope.mode === 'rebuild' && scope.usual !== 'full' && scope.usual !== 'strike'
  const holds = renews ? withNewClutch(sheet, [...condemned, ...(isWanted ? targets : [])]) : []
  const pressed =
    renews && scope.usual !== 'full'
      ? pressedOn(sheet, [...targets, ...scrapped].filter(isScrapped), kept)
      : []
  const order = targets.length
    ? reach({
        parts: loose.map((p) => ({ id: p.id, after: p.after, sets: settingsOf(sheet, p) })),
        targets: [...targets, ...scrapped, ...pressed, ...holds],
      })
    : { order: [], disturbed: [] }
  const offIds = new Set(order.order)
  const labour = labourOf(sheet.graph)
  const fits = !ONLY_LOOKED.includes(scope.mode)
  const apart = !scope.mounted || newCase.length > 0
  const oilJoint = apart && fits && joinedTest(sheet.graph) !== null
  const reachesOil = loose.some(
    (p) => offIds.has(p.id) && (p.inside || (ALWAYS_NEW.includes(p.kind) && p.keeps !== 'water')),
  )
  const drains =
    reachesOil ||
    (oilJoint && !CAME_ELSEWHERE.includes(scope.mode)) ||
    scope.mode === 'service' ||
    scope.mode === 'test'
  const pullsLips = renews && scope.mode === 'rebuild' && ways.seals !== 'disturbed'
  for (const p of loose) {
    // a ring comes off with the joint that it lies in; a lip stays in its bore unless the shop renews all that is reached
    if (!ALWAYS_NEW.includes(p.kind) || offIds.has(p.id)) continue
    const opened = p.after.length ? p.after.every((a) => offIds.has(a)) : p.apart ? apart && fits : drains
    if (opened && order.order.length && (p.kind === 'ring' || (pullsLips && p.after.length))) offIds.add(p.id)
  }
  // shims and washers lie loose once what holds them is off
  for (const p of loose)
    if (['shim', 'washer'].includes(p.kind) && p.after.length && p.after.every((a) => offIds.has(a)))
      offIds.add(p.id)
  // what keys the carrier comes off with it
  const keyed = loose.some((p) => p.role === 'carrier' && offIds.has(p.id))
  if (keyed) for (const p of loose) if (p.role === 'carrier-key') offIds.add(p.id)
  const off = order.order
    .concat(loose.filter((p) => offIds.has(p.id) && !order.order.includes(p.id)).map((p) => p.id))
    .map((id) => loose.find((p) => p.id === id)!)
  const renewed = renews ? renewedOf(sheet, scope, off, { targets, condemned, pressed, holds }, ways) : []
  const renew = [...newCase.map((p): Renewed => ({ part: p.id, name: p.name, why: 'condemned' })), ...renewed]
  const moved = off.filter((p) => !order.order.includes(p.id) || scope.usual === 'full')
  const reached: Reached = {
    off: off.map((p) => p.id),
    renew: renew.map((r) => r.part),
    sets: [...order.disturbed, ...moved.flatMap((p) => settingsOf(sheet, p))],
    drains,
  }
  const { disturbed, prove } = comesTo(sheet, scope, reached)
  const measures = sheet.measures.map((m) => m.id)
  const isDisturbed = (id: string) => disturbed.includes(id)
  const openShare = Math.max(off.length / Math.max(1, loose.length), LEAST_SHARE)
  const setShare = measures.length ? measures.filter(isDisturbed).length / measures.length : 0
  const bought = new Map<string, Part>()
  for (const r of renew) {
    const p = sheet.parts.find((x) => x.id === r.part)!
    bought.set(p.set ?? p.kit ?? p.id, p)
  }
  return {
    scope,
    off,
    stays: loose.filter((p) => !offIds.has(p.id)),
    renew,
    disturbed,
    undisturbed: measures.filter((m) => !isDisturbed(m)),
    prove: scope.mode === 'test' ? ['case'] : fits || renews ? prove : [],
    apart,
    drains,
    hours: (labour.openHours + labour.closeHours) * openShare + labour.setHours * setShare,
    parts: [...bought.values()].reduce((sum, p) => sum + (p.price ?? 0), 0),
    unpriced: [...bought.values()].filter((p) => p.price === undefined).length,
    waitDays: Math.max(0, ...[...bought.values()].map((p) => p.waitDays ?? 0)),
    worth: renews && off.length ? worthDoing(loose, offIds, new Set(renew.map((r) => r.part))) : [],
  }
}

function renewedOf(
  sheet: DriveSheet,
  scope: Scope,
  off: readonly Part[],
  {
    targets,
    condemned,
    pressed,
    holds,
  }: Record<'targets' | 'condemned' | 'pressed' | 'holds', readonly string[]>,
  ways: PlanWays,
): Renewed[] {
  const offIds = new Set(off.map((p) => p.id))
  const once = usedOnce(sheet)
  const full = scope.usual === 'full'
  // what came off to be looked at is not new for that
  const onlySeen = full || scope.usual === 'strike'
  const found = new Map<string, Renewed>()
  const add = (p: Part, why: Renewed['why']) => {
    if (!found.has(p.id)) found.set(p.id, { part: p.id, name: p.name, why })
  }
  for (const p of off) {
    const wanted = targets.includes(p.id)
    if (condemned.includes(p.id)) add(p, 'condemned')
    else if (pressed.includes(p.id)) add(p, 'pressed')
    else if (holds.includes(p.id)) add(p, 'holds')
    else if (once.has(p.id)) add(p, 'once')
    else if (ALWAYS_NEW.includes(p.kind)) {
      if (wanted && !full) add(p, 'wanted')
      else if (ways.seals !== 'disturbed') add(p, 'opening')
      else if (p.after.some((a) => offIds.has(a)) || wanted) add(p, 'disturbed')
    } else if (wanted && !onlySeen && scope.mode === 'rebuild' && p.kind !== 'shaft') add(p, 'wanted')
    else if (p.kind === 'pump' && (scope.mode === 'pump' || ways.impeller === 'yearly')) add(p, 'school')
  }
  // carriers and cups with the bearing, where the shop does so
  if (ways.cups === 'renew')
    for (const p of off)
      if (p.kind === 'cup' && !p.role && setOf(sheet.parts, p.id).some((s) => found.has(s.id)))
        add(p, 'school')
  for (const r of [...found.values()])
    for (const p of setOf(sheet.parts, r.part))
      if (offIds.has(p.id) && r.why !== 'opening' && r.why !== 'disturbed') add(p, 'set')
  return off.flatMap((p) => found.get(p.id) ?? [])
}

function worthDoing(
  loose: readonly Part[],
  off: ReadonlySet<string>,
  renewed: ReadonlySet<string>,
): WorthDoing[] {
  return loose.flatMap((p) => {
    if (renewed.has(p.id) || !CHEAP_KINDS.includes(p.kind)) return []
    const more = [...afterClosure(loose, [p.id], off)]
    if (more.length > MORE_PARTS) return []
    return [
      {
        part: p.id,
        name: p.name,
        more: more.filter((id) => id !== p.id),
        ...(p.price === undefined ? {} : { price: p.price }),
      },
    ]
  })
}
