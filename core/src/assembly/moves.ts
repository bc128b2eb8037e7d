import type { Topic } from './act.ts'
import type { AssemblyIndex } from './assembly-index.ts'
import type { AssemblyState } from './state.ts'

/** A topic has to be looked at again. */
export const forget = (state: AssemblyState, topic: Topic, n: number) => state.unknownSince.set(topic, n)

/** A joint is parted: its proof is gone, whether it leaked has to be seen anew, oil below the level has run out, and grease that was laid bare is packed anew. */
export function opened(ix: AssemblyIndex, s: AssemblyState, id: string) {
  const joint = ix.joints.get(id)!
  const state = s.joints.get(id)!
  state.partings++
  state.leaks = false
  for (const space of joint.behind) {
    const held = s.spaces.get(space)
    if (!held || held.at === 'dry') continue
    const { holds } = ix.spaces.get(space)!
    if (holds === 'oil' ? joint.row.level !== 'above' : holds === 'grease' && joint.row.kind !== 'plug')
      Object.assign(held, { at: 'out', settled: false, emptied: s.n })
  }
}

/** A part leaves with its lot: joints and settings across the cut are parted, those within it are not. */
export function removed(ix: AssemblyIndex, s: AssemblyState, id: string, n: number) {
  const part = s.parts.get(id)
  if (!part) return
  for (const set of ix.parts.get(id)!.sets) {
    const setting = s.settings.get(set)
    if (setting) setting.disturbed = n
  }
  part.off = n
  if (part.at !== 'in') {
    // it comes out of the lot that it lay in
    delete part.lot
    return
  }
  const lot = new Set([id, ...(ix.lots.get(id) ?? []).filter((m) => s.parts.get(m)?.at === 'in')])
  const met = (of: 'joints' | 'settings') => new Set([...lot].flatMap((m) => ix.parts.get(m)![of]))
  for (const joint of met('joints')) {
    const { between, sealedBy } = ix.joints.get(joint)!
    // the gasket of a screw seals it against the case, which is no part of its row
    if (!between.length || ![...between, ...sealedBy].every((m) => lot.has(m))) opened(ix, s, joint)
  }
  for (const id of met('settings')) {
    const setting = ix.settings.get(id)!
    const there = setting.carriers.filter((c) => lot.has(c) || s.parts.get(c)?.at === 'in')
    const inLot = there.filter((c) => lot.has(c)).length
    if (inLot > 0 && inLot < there.length) s.settings.get(setting.id)!.seatings++
  }
  for (const m of lot) {
    Object.assign(s.parts.get(m)!, { at: 'tray', moved: true, ...(m === id ? {} : { lot: id }) })
    if (m === id) delete s.parts.get(m)!.lot
    touches(ix, s, m, n)
  }
}

/** What has to be looked at again once such a part was out. */
function touches(ix: AssemblyIndex, s: AssemblyState, id: string, n: number) {
  const { kind } = ix.parts.get(id)!
  if (kind === 'pump') forget(s, 'water', n)
  // the propeller shaft is moved along by whoever takes out what carries it
  if (kind === 'shift' || kind === 'clutch' || (ix.shifts && ix.carriers.has(id))) forget(s, 'shift', n)
  if (kind === 'hub') forget(s, 'propeller-turns', n)
}

/** A part goes in, and with it what lies in its lot; one whose host lies in the tray goes into that first. */
export function fitted(ix: AssemblyIndex, s: AssemblyState, id: string) {
  const part = s.parts.get(id)
  if (!part) return
  delete part.until
  const row = ix.parts.get(id)!
  const host = [...row.on, ...row.in].find((h) => s.parts.get(h)?.at === 'tray')
  if (host !== undefined) {
    Object.assign(part, { at: 'tray', lot: host })
    return
  }
  part.at = 'in'
  delete part.lot
  for (const m of ix.lots.get(id) ?? []) {
    const member = s.parts.get(m)!
    if (member.at === 'tray' && member.lot !== undefined && s.parts.get(member.lot)?.at === 'in') {
      member.at = 'in'
      delete member.lot
    }
  }
  const group = row.group === undefined ? undefined : ix.groups.get(row.group)
  if (group?.pieces.every((p) => s.parts.get(p)?.at === 'in')) {
    const state = s.groups.get(row.group!)!
    if (state.at === 'out') state.at = 'loose'
  }
}

/** A new one takes its place: another instance. What is pressed on the old one goes with it, unless it was pressed off before, or is new itself. */
export function renewed(ix: AssemblyIndex, s: AssemblyState, id: string, n: number) {
  const part = s.parts.get(id)
  if (!part) return
  part.instance++
  part.renewed = n
  part.condition = 'good'
  delete part.why
  if (ix.parts.get(id)!.kind === 'gear') forget(s, 'ratio', n)
  touches(ix, s, id, n)
  for (const m of ix.parts.values()) {
    const member = s.parts.get(m.id)!
    const stillOn = m.on.includes(id) && (member.at === 'in' || member.lot !== undefined)
    // what is new since then was pressed on the new one
    const isNew = member.renewed !== undefined && member.renewed > (part.off ?? 0)
    if (stillOn && !isNew && member.condition !== 'unsafe')
      Object.assign(member, { condition: 'condemned', why: 'pressed-on-scrap' })
  }
}

/** Nuts and screws that are slackened, or taken out with their pieces. */
export function loosened(ix: AssemblyIndex, s: AssemblyState, id: string, to: 'loose' | 'out') {
  const group = ix.groups.get(id)
  const state = s.groups.get(id)
  if (!group || !state || state.at === 'out') return
  const wasTight = state.at !== 'loose'
  Object.assign(state, { at: to, locked: false })
  if (wasTight) {
    state.moves++
    for (const setting of group.preloads) s.settings.get(setting)!.seatings++
    for (const joint of group.closes) opened(ix, s, joint)
  }
  if (to === 'out')
    for (const p of group.pieces) {
      const piece = s.parts.get(p)!
      Object.assign(piece, { at: 'tray', moved: true, off: s.n })
      if (ix.parts.get(p)!.useOnce) Object.assign(piece, { condition: 'condemned', why: 'used-once' })
    }
}

export function tightened(ix: AssemblyIndex, s: AssemblyState, id: string, to: 'snug' | 'final') {
  const state = s.groups.get(id)
  if (!state) return
  state.at = to
  // one that nothing locks is locked by being tight
  const { lock = 'none' } = ix.groups.get(id)!.row
  if (
    to === 'final' &&
    (lock === 'none' || lock === 'threadlocker' || lock === 'self-locking' || lock === 'spring-washer')
  )
    state.locked = true
}
