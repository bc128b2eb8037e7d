import { assumed, ifAny, said } from '../graph/edges.ts'
import { CASE_SPACE, MOUNT, type Group, type Interface, type Joint, type Said } from '../graph/rows.ts'
import type { Body3 } from './body-3.ts'
import { freeId, sameName } from './words.ts'

/**
 * Joints out of the closures of a sheet of format 3, those of its carriers, and those of its ports. A group whose words name a joint closes it; words that
 * name none stay with the group.
 */
export function jointsOf(body: Body3, groups: Group[], facts: Readonly<Record<string, string>>): Joint[] {
  const taken = new Set<string>()
  const oil = body.bench.lubricant !== 'grease'
  const joints: Joint[] = (body.further?.closures ?? []).map((c): Joint => {
    const groupOf = (id: string) => groups.find((g) => g.id === (facts[`fasteners.${id}`] ?? id))?.id
    const given = c.fasteners ?? []
    const known = given.flatMap((id) => groupOf(id) ?? [])
    const lost = given.filter((id) => groupOf(id) === undefined)
    const words: Said[] = [
      ...(c.sealedBy ? [{ of: 'sealed-by' as const, text: c.sealedBy }] : []),
      ...(lost.length ? [{ of: 'closed-by' as const, text: lost.join(', ') }] : []),
    ]
    return {
      id: freeId(c.id, taken),
      name: c.name,
      kind: c.kind,
      ...ifAny('closedBy', said(...known)),
      ...(c.tested === undefined ? {} : { provedBy: c.tested ? ('air' as const) : ('none' as const) }),
      ...(words.length ? { said: words } : {}),
      ...(c.kind === 'halves' ? { interfaces: assumed(MOUNT) } : { behind: assumed(CASE_SPACE) }),
    }
  })
  carriers(body, joints, groups, taken)
  if (oil) ports(joints, groups, taken)
  for (const joint of joints) {
    const text = joint.said?.find((s) => s.of === 'sealed-by')?.text
    const named = text === undefined ? undefined : body.parts.find((p) => sameName(p.name, text))
    if (!named) continue
    joint.sealedBy = { ...assumed(named.id), ...joint.sealedBy }
    joint.said = joint.said!.filter((x) => x.of !== 'sealed-by')
    if (!joint.said.length) delete joint.said
  }
  for (const group of groups) closeByWords(group, joints)
  return joints
}

/** The joint of each carrier: with the case, sealed by the rings that come off after it. */
function carriers(body: Body3, joints: Joint[], groups: readonly Group[], taken: Set<string>) {
  const cases = body.parts.filter((p) => p.role === 'body').map((p) => p.id)
  const free = joints.filter((j) => j.kind === 'carrier' && !j.between)
  for (const carrier of body.parts.filter((p) => p.role === 'carrier')) {
    let joint = free.shift()
    if (!joint) {
      joint = {
        id: freeId(carrier.id, taken),
        name: carrier.name,
        kind: 'carrier',
        behind: assumed(CASE_SPACE),
        assumed: true,
      }
      joints.push(joint)
    }
    joint.between = assumed(carrier.id, ...cases)
    const rings = body.parts.filter((p) => p.kind === 'ring' && p.after?.includes(carrier.id))
    if (rings.length) joint.sealedBy = assumed(...rings.map((p) => p.id))
    const holding = groups.filter((g) => g.holds?.[carrier.id] !== undefined).map((g) => g.id)
    if (!joint.closedBy && holding.length) joint.closedBy = assumed(...holding)
  }
}

/** Drain and vent of an oil-filled case: no pressure test sees them, they are looked at after the run. */
function ports(joints: Joint[], groups: readonly Group[], taken: Set<string>) {
  for (const g of groups) {
    if (!g.port) continue
    const known = joints.find((j) => j.closedBy?.[g.id] !== undefined)
    if (known) {
      known.provedBy = 'dry-after-run'
      continue
    }
    joints.push({
      id: freeId(g.id, taken),
      name: g.name,
      kind: 'plug',
      closedBy: said(g.id),
      behind: assumed(CASE_SPACE),
      provedBy: 'dry-after-run',
      assumed: true,
    })
  }
}

/** A group that says by name what it closes. */
function closeByWords(group: Group, joints: readonly Joint[]) {
  const text = group.said?.find((s) => s.of === 'closes')?.text
  const joint = text === undefined ? undefined : joints.find((j) => sameName(j.name, text))
  if (!joint) return
  joint.closedBy = { ...assumed(group.id), ...joint.closedBy }
  group.said = group.said!.filter((s) => s.of !== 'closes')
  if (!group.said.length) delete group.said
}

/** What the unit is joined by: one interface, which has no name where nobody has said what it is joined to. */
export function interfaceOf(body: Body3): Interface {
  const { joins } = body.bench
  return {
    id: MOUNT,
    ...(joins ? { name: joins.to ?? 'its place' } : {}),
    ...(joins?.gear ? { gear: joins.gear } : {}),
    ...(joins?.oilJoint ? { sharesOil: true } : {}),
  }
}
