import type { Deed, Topic } from './act.ts'
import type { AssemblyIndex } from './assembly-index.ts'
import { applyAct } from './fold.ts'
import type { Goal } from './goal.ts'
import { invariants, type Code, type Line } from './invariants.ts'
import { configurationOf, foundConfiguration, type AssemblyState } from './state.ts'

export interface Left {
  /** Every act that is left, in an order in which they can be done. */
  deeds: readonly Deed[]
  /** The unit as it is laid open, before anything is closed again. */
  open: AssemblyState
}

/**
 * What is left to do to a unit: two passes. First everything is laid open that the goal wants touched, with what covers and holds it; then there is one
 * act for everything that is not as it must be before the unit leaves. Fitting disturbs nothing, so the second pass needs no third.
 * @param state as it stands now; not changed
 */
export function whatIsLeft(ix: AssemblyIndex, state: AssemblyState, goal: Goal): Left {
  const work = laidOpen(ix, state, goal)
  const open = copyOf(work.state)
  if (goal.closes) closeAgain(ix, work, goal)
  if ((work.state.ended ?? -1) < goal.endsAfter) work.do({ do: 'end', on: 'unit', fig: { end: goal.end } })
  return { deeds: work.deeds, open }
}

/** Everything laid open; oil that would run out on the way is let out first. */
function laidOpen(ix: AssemblyIndex, state: AssemblyState, goal: Goal): Work {
  const work = new Work(ix, copyOf(state))
  layOpen(ix, work, goal)
  const drained = new Set(work.deeds.flatMap((d) => (d.do === 'drain' ? [d.on] : [])))
  const runOut = [...ix.spaces].flatMap(([id, { holds }]) =>
    holds === 'oil' &&
    ['as-came', 'filled'].includes(state.spaces.get(id)!.at) &&
    work.state.spaces.get(id)!.at === 'out' &&
    !drained.has(id)
      ? [id]
      : [],
  )
  if (!runOut.length) return work
  const again = new Work(ix, copyOf(state))
  for (const id of runOut) again.do({ do: 'drain', on: id })
  layOpen(ix, again, goal)
  return again
}

/** Acts that are thought through one after the other, each on what the ones before it came to. */
class Work {
  readonly deeds: Deed[] = []
  /** The list as it stands, until the next act. */
  private known: Line[] | undefined
  constructor(
    private readonly ix: AssemblyIndex,
    readonly state: AssemblyState,
  ) {}

  do(deed: Deed): void {
    const act = {
      ...deed,
      n: this.state.n + 1,
      by: '',
      entered: '',
      at: '',
      sure: 'inferred',
      from: 'inferred',
    } as const
    this.deeds.push(...applyAct(this.ix, this.state, act), deed)
    this.known = undefined
  }

  /** Ids of the rows that a line of the list is about. */
  lines(...codes: Code[]): string[] {
    this.known ??= invariants(this.ix, this.state)
    return this.known.flatMap((l) => (l.colour !== 'accepted' && codes.includes(l.code) ? [l.on] : []))
  }
}

/** A state as it will be once some acts are done; the one given stays as it is. */
export function afterDeeds(ix: AssemblyIndex, state: AssemblyState, deeds: readonly Deed[]): AssemblyState {
  const work = new Work(ix, copyOf(state))
  for (const d of deeds) work.do(d)
  return work.state
}

function layOpen(ix: AssemblyIndex, work: Work, goal: Goal) {
  const { state } = work
  const isOff = (id: string, since: number) => (state.parts.get(id)!.off ?? -1) >= since
  if (goal.empties)
    for (const [id, space] of ix.spaces)
      if (space.holds !== 'water' && space.holds !== 'dry' && state.spaces.get(id)!.at === 'as-came')
        work.do({ do: 'drain', on: id })
  if (goal.apart)
    for (const [id, at] of state.interfaces) if (at === 'as-came') work.do({ do: 'part', on: id })
  for (const [id, since] of goal.off)
    if (
      ix.parts.has(id) &&
      !ix.parts.get(id)!.body &&
      state.parts.get(id)!.at !== 'left-out' &&
      !isOff(id, since)
    )
      work.do({ do: 'remove', on: id })
  // what may not stay in, and what leaks, is got at whether somebody wanted it or not
  for (const id of work.lines('condemned-in', ...(goal.mends ? (['unsafe-in'] as const) : [])))
    if (!ix.parts.get(id)!.body) work.do({ do: 'remove', on: id })
  if (!goal.mends) return
  for (const joint of work.lines('joint-leaks')) layLeakOpen(ix, work, joint)
}

/** A joint that leaks is laid open to what seals it; where nothing but the faces does, to those, and a screw of its own is taken out. */
function layLeakOpen(ix: AssemblyIndex, work: Work, id: string) {
  const { between, sealedBy, closedBy } = ix.joints.get(id)!
  const isIn = (part: string) => work.state.parts.get(part)?.at === 'in'
  const faces = between.filter((part) => !ix.parts.get(part)!.body)
  // a seal that leaks is condemned, and comes out as that
  if (sealedBy.some(isIn)) return
  for (const part of faces) if (isIn(part)) work.do({ do: 'remove', on: part })
  if (faces.length) return
  for (const group of closedBy)
    if (['as-came', 'final', 'snug'].includes(work.state.groups.get(group)!.at))
      work.do({ do: 'take-out', on: group })
}

function closeAgain(ix: AssemblyIndex, work: Work, goal: Goal) {
  const { state } = work
  for (const [id, since] of goal.renew)
    if (state.parts.has(id) && (state.parts.get(id)!.renewed ?? -1) < since) work.do({ do: 'renew', on: id })
  for (const [id, p] of state.parts)
    if (p.at === 'tray' && (p.condition === 'condemned' || p.condition === 'unsafe'))
      work.do({ do: 'renew', on: id })
  fitAll(ix, work)
  const groups = (wanted: (id: string) => boolean) => {
    for (const id of work.lines('group-not-tight')) if (wanted(id)) work.do({ do: 'tighten', on: id })
    for (const id of work.lines('group-not-locked')) if (wanted(id)) work.do({ do: 'lock', on: id })
  }
  const closes = (id: string) => ix.groups.get(id)!.joins.length > 0
  const plugs = (id: string) => ix.groups.get(id)!.row.port !== undefined
  groups((id) => !closes(id) && !plugs(id))
  settings(ix, work, goal)
  const bySelf = byAir(ix, work).some((id) => ix.joints.get(id)!.row.provedBy !== 'joined-air')
  if (bySelf && isAlone(ix, state)) work.do({ do: 'prove', on: 'case', fig: { verdict: 'good' } })
  for (const id of work.lines('interface-open')) work.do({ do: 'join', on: id })
  groups(closes)
  if (byAir(ix, work).length) work.do({ do: 'prove', on: 'joined', fig: { verdict: 'good' } })
  for (const id of work.lines('space-empty')) work.do({ do: 'fill', on: id })
  for (const id of work.lines('space-not-settled')) work.do({ do: 'settle', on: id })
  groups(plugs)
  const unknown = () =>
    [...goal.know].flatMap(([t, since]) => ((state.knownSince.get(t) ?? -1) < since ? [t] : []))
  if (work.lines('joint-not-proved').length || unknown().includes('runs'))
    work.do({ do: 'run', on: 'unit', fig: { dry: true } })
  const known = unknown()
  for (const topic of new Set([...work.lines('not-checked'), ...known]))
    work.do({ do: 'know', on: topic as Topic })
  for (const id of work.lines('temporary-in')) work.do({ do: 'take-away', on: id })
  if (state.pressure) work.do({ do: 'let-out', on: 'unit' })
}

/** Parts go back in the other order than they came off, each into what it lies in. */
function fitAll(ix: AssemblyIndex, work: Work) {
  const { state } = work
  const lying = [...state.parts]
    .filter(([, p]) => p.at === 'tray' || (p.at === 'left-out' && p.until === 'trial'))
    .sort(([, a], [, b]) => (b.off ?? 0) - (a.off ?? 0))
  // what is pressed on something goes on before that goes in
  for (const inHost of [true, false])
    for (const [id] of lying) {
      const row = ix.parts.get(id)!
      const hasHost = [...row.on, ...row.in].some((h) => state.parts.get(h)?.at === 'tray')
      const now = state.parts.get(id)!
      if (inHost === hasHost && (now.at === 'left-out' || (now.at === 'tray' && now.lot === undefined)))
        work.do({ do: 'fit', on: id })
    }
}

/** Set anew where a part that carries or sets it was off by itself, or another one is in; else the same parts are read once more. */
function settings(ix: AssemblyIndex, work: Work, goal: Goal) {
  const { state } = work
  const unproved = new Set(work.lines('setting-not-proved'))
  for (const s of ix.settings.values()) {
    const { proof, disturbed = -1 } = state.settings.get(s.id)!
    const wanted = goal.set.get(s.id)
    if (wanted !== undefined && (proof?.n ?? -1) < wanted) work.do({ do: 'accept', on: s.id })
    else if (unproved.has(s.id)) {
      const same = configurationOf(state, s) === (proof?.configuration ?? foundConfiguration(s))
      const anew = !same || disturbed > (proof?.n ?? -1)
      work.do(
        anew
          ? { do: 'accept', on: s.id }
          : { do: 'measure', on: s.id, fig: { check: true, verdict: 'good' } },
      )
    }
  }
}

/** It shares its oil with no other case as it stands: a test of this case alone sees all of it. */
const isAlone = (ix: AssemblyIndex, state: AssemblyState) =>
  [...ix.interfaces.values()].every((i) => i.sharesOil !== true || state.interfaces.get(i.id) === 'parted')

/** Joints that air proves, and has not since they were opened. */
const byAir = (ix: AssemblyIndex, work: Work) =>
  work.lines('joint-not-proved').filter((id) => ix.joints.get(id)!.row.provedBy !== 'dry-after-run')

/** A copy that can be changed without changing the other. */
export function copyOf(state: AssemblyState): AssemblyState {
  const each = <T extends object>(rows: ReadonlyMap<string, T>) =>
    new Map([...rows].map(([id, row]) => [id, { ...row }] as const))
  return {
    ...state,
    parts: each(state.parts),
    groups: each(state.groups),
    joints: each(state.joints),
    settings: each(state.settings),
    spaces: each(state.spaces),
    interfaces: new Map(state.interfaces),
    stacks: new Map(state.stacks),
    temporary: new Set(state.temporary),
    open: new Set(state.open),
    accepted: new Set(state.accepted),
    unknownSince: new Map(state.unknownSince),
    knownSince: new Map(state.knownSince),
  }
}
