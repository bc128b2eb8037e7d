import type { Fastener } from '../fasteners.ts'
import { assumed, said } from '../graph/edges.ts'
import { MOUNT, type Group, type Piece, type Propeller } from '../graph/rows.ts'
import type { Body3, Part3 } from './body-3.ts'
import { freeId, isLonger, sameName } from './words.ts'

/** Groups of a sheet of format 3, and which of them the old single facts are. */
export interface Groups {
  groups: Group[]
  propellers: Propeller[]
  /** Old fact to id of the group. */
  facts: Record<string, string>
}

/**
 * Fasteners, nuts in the list of parts, and the single facts of the bench, as groups: what has the same name is one group, and says all that each of them
 * said; where two of them said it differently, the list of fasteners counts.
 */
export function groupsOf(body: Body3): Groups {
  const { bench } = body
  // parts and groups meet in the same edges: a group never has the id of a part that stays one
  const taken = new Set(body.parts.filter((p) => p.kind !== 'nut').map((p) => p.id))
  const renamed: Record<string, string> = {}
  const groups: Group[] = (body.fasteners ?? []).map((f) => {
    const id = freeId(f.id, taken)
    if (id !== f.id) renamed[`fasteners.${f.id}`] = id
    return fromFastener(f, id)
  })
  for (const part of body.parts) {
    if (part.kind === 'nut') addNut(groups, part, taken)
    else if (part.thread === 'left')
      // a part that is screwed in: its thread is a group that holds it
      groups.push({
        id: freeId(part.id, taken),
        name: part.name,
        count: 1,
        hand: 'left',
        holds: said(part.id),
      })
  }
  for (const group of groups) holdParts(group, body.parts)
  const facts: Record<string, string> = { ...renamed }
  const fact = (name: string, wanted: string, what: string, more: Partial<Group>): Group => {
    const known = groups.find((g) => sameName(g.name, what)) ?? groups.find((g) => isLonger(g.name, what))
    if (!known) {
      const group = { id: freeId(wanted, taken), name: what, count: 1, ...more }
      groups.push(group)
      facts[name] = group.id
      return group
    }
    // what the list says itself counts
    Object.assign(known, { ...more, ...known })
    facts[name] = known.id
    return known
  }
  if (bench.lockTabs?.what) {
    const { what, tabs, torqueNm, reachedMounted } = bench.lockTabs
    const ring = fact('lockTabs', 'big-ring', what, {
      ...(tabs === undefined ? {} : { tabs }),
      ...(torqueNm ? { torqueNm } : {}),
      ...(reachedMounted ? {} : { interfaces: assumed(MOUNT) }),
    })
    ring.lock = 'tab-washer'
  }
  if (bench.leftHand?.what) {
    const { what, place } = bench.leftHand
    fact('leftHand', 'left-hand', what, { ...(place ? { place } : {}) }).hand = 'left'
  }
  if (bench.captive) fact('captive', 'captive', bench.captive, {}).captiveUntil ??= assumed(MOUNT)
  if (bench.hidden?.count && bench.hidden.where) {
    const { count, where } = bench.hidden
    const known = groups.find((g) => g.hidden)
    if (known) {
      known.where ??= where
      facts.hidden = known.id
    } else fact('hidden', 'hidden', 'Fasteners out of sight', { count, where, hidden: true })
  }
  if (bench.pinchScrews) {
    const { count, where } = bench.pinchScrews
    fact('pinchScrews', 'pinch', 'Pinch screws', { count, where }).pinches = true
  }
  const propellers = propellersOf(body, groups, facts, taken)
  plugs(body, groups, facts, taken)
  return { groups, propellers, facts }
}

function fromFastener(f: Fastener, id: string): Group {
  const { closes, captiveUntil, ...rest } = f
  return {
    ...rest,
    id,
    ...(captiveUntil ? { captiveUntil: assumed(MOUNT) } : {}),
    ...(closes || captiveUntil
      ? {
          said: [
            ...(closes ? [{ of: 'closes' as const, text: closes }] : []),
            ...(captiveUntil ? [{ of: 'captive-until' as const, text: captiveUntil }] : []),
          ],
        }
      : {}),
  }
}

/** A nut, lock or set of bolts among the parts: a piece of the group of that name, or of a group of its own. */
function addNut(groups: Group[], part: Part3, taken: Set<string>) {
  const { id, name, count, place, set, kit, price, waitDays, inside, role, pointedAtBy, thread, apart } = part
  const piece: Piece = {
    id,
    name,
    ...(count === undefined ? {} : { count }),
    ...(place === undefined ? {} : { place }),
    ...(set === undefined ? {} : { set }),
    ...(kit === undefined ? {} : { kit }),
    ...(price === undefined ? {} : { price }),
    ...(waitDays === undefined ? {} : { waitDays }),
    ...(inside === undefined ? {} : { inside }),
    ...(role === undefined ? {} : { role }),
    ...(pointedAtBy === undefined ? {} : { pointedAtBy }),
  }
  const known =
    groups.find((g) => g.id === id) ??
    groups.find((g) => sameName(g.name, name)) ??
    groups.find((g) => isLonger(g.name, name))
  const group: Group = known ?? { id: freeId(id, taken), name, count: count ?? 1 }
  if (!known) groups.push(group)
  group.pieces = [...(group.pieces ?? []), piece]
  if (part.after?.length) group.after = { ...group.after, ...said(...part.after) }
  if (apart) group.interfaces = { ...group.interfaces, ...said(MOUNT) }
  if (thread === 'left') group.hand = 'left'
}

/** Parts that had to wait for a nut are held by its group. */
function holdParts(group: Group, parts: readonly Part3[]) {
  const mine = new Set(group.pieces?.map((p) => p.id))
  const held = parts.filter((p) => p.kind !== 'nut' && p.after?.some((a) => mine.has(a))).map((p) => p.id)
  if (held.length) group.holds = { ...group.holds, ...said(...held) }
}

const HELD = { tabs: 'tab-washer', pin: 'shear-pin' } as const

/** Propellers with the groups that hold them: the nut of the first one is the nut that the bench knew. */
function propellersOf(body: Body3, groups: Group[], facts: Record<string, string>, taken: Set<string>) {
  const { propeller, thrustHub } = body.bench
  const rows = body.further?.propellers ?? []
  if (!propeller && !rows.length && !thrustHub) return []
  const given: Propeller[] = rows.length
    ? rows.map(({ torqueNm: _nm, ...p }) => p)
    : [{ id: 'only', name: 'Propeller', place: 'only' }]
  const first = given[0]!
  if (!first.held && propeller?.kind) first.held = HELD[propeller.kind]
  if (propeller?.afterRun !== undefined) first.afterRun = propeller.afterRun
  if (thrustHub) first.hub = thrustHub
  const nutName = 'Propeller nut'
  for (const [i, p] of given.entries()) {
    const torqueNm = rows[i]?.torqueNm ?? (i === 0 ? propeller?.torqueNm : undefined)
    const wanted = i === 0 ? 'propeller-nut' : `propeller-nut-${p.id}`
    const known =
      groups.find((g) => g.id === wanted) ??
      (i === 0 ? groups.find((g) => isLonger(g.name, nutName)) : undefined) ??
      groups.find((g) => isLonger(g.name, `${p.name} nut`)) ??
      (i === 0 ? groups.find((g) => holdsHub(g, body.parts)) : undefined)
    if (!known && torqueNm === undefined && !(i === 0 && propeller)) continue
    const group: Group = known ?? {
      id: freeId(wanted, taken),
      name: i === 0 ? nutName : `${p.name}: nut`,
      count: 1,
    }
    if (!known) groups.push(group)
    if (torqueNm) group.torqueNm ??= torqueNm
    if (p.held === 'tab-washer') group.lock ??= 'tab-washer'
    if (i === 0 && propeller?.tabs !== undefined) group.tabs ??= propeller.tabs
    if (i === 0 && propeller?.threads !== undefined) group.threads ??= propeller.threads
    if (i === 0) facts.propeller = group.id
    p.heldBy = known ? assumed(group.id) : said(group.id)
  }
  return given
}

const holdsHub = (g: Group, parts: readonly Part3[]) =>
  parts.some((p) => p.kind === 'hub' && g.holds?.[p.id] !== undefined)

/** Screws of the ports that an oil-filled case has; where the list has them already, they are those. */
function plugs(body: Body3, groups: Group[], facts: Record<string, string>, taken: Set<string>) {
  if (body.bench.lubricant === 'grease' || !(body.parts.length || groups.length)) return
  for (const port of ['drain', 'vent'] as const) {
    const known = groups.find((g) => g.id === port)
    const group: Group = known ?? {
      id: freeId(port, taken),
      name: port === 'drain' ? 'Drain screw' : 'Vent screw',
      count: 1,
      assumed: true,
    }
    group.port = port
    if (!known) groups.push(group)
    facts[port] = group.id
    if (port === 'drain' && body.bench.drainPlug) group.plug = body.bench.drainPlug
  }
}
