import type { Act, Topic } from './act.ts'
import type { AssemblyIndex } from './assembly-index.ts'
import { fitted, forget, loosened, opened, removed, renewed, tightened } from './moves.ts'
import { asItCame, configurationOf, jointAt, type AssemblyState } from './state.ts'

type Effect = (ix: AssemblyIndex, state: AssemblyState, act: Act) => void

/** What an act changes in the state, which is changed in place. An act on a row that the sheet has not changes nothing. */
export function applyEffect(ix: AssemblyIndex, state: AssemblyState, act: Act): void {
  state.n = act.n
  // what was accepted was so as it stood then: once something is opened again, it is looked at anew
  if (OPENS.has(act.do)) state.accepted.clear()
  EFFECTS[act.do](ix, state, act)
}

const OPENS: ReadonlySet<Act['do']> = new Set<Act['do']>([
  'remove',
  'press-out',
  'leave-out',
  'loosen',
  'take-out',
  'part',
  'drain',
])

const EFFECTS: Record<Act['do'], Effect> = {
  // another unit has come: nothing of the one before counts
  came: (ix, s, act) => {
    const { fig, n } = act
    const before = s.parts
    Object.assign(s, asItCame(ix), { n, came: fig?.came ?? 'mounted' })
    if (s.came === 'elsewhere') cameFromElsewhere(ix, s)
    // somebody else has parted it from what it hangs on
    if (s.came === 'off' || s.came === 'boxes')
      for (const on of ix.interfaces.keys()) EFFECTS.part(ix, s, { ...act, on })
    // what is kept of the one before lies beside it, as good or bad as it was
    for (const id of fig?.kept ?? []) {
      const [part, was] = [s.parts.get(id), before.get(id)]
      if (part && was) Object.assign(part, { at: 'tray', moved: true, condition: was.condition, off: n })
    }
  },
  remove: (ix, s, { on, n }) => removed(ix, s, on, n),
  'press-out': (ix, s, { on, n }) => removed(ix, s, on, n),
  fit: (ix, s, { on }) => fitted(ix, s, on),
  'press-in': (ix, s, { on }) => fitted(ix, s, on),
  renew: (ix, s, { on, n }) => renewed(ix, s, on, n),
  'leave-out': (_, s, { on, fig }) => {
    const part = s.parts.get(on)
    if (part) Object.assign(part, { at: 'left-out', until: fig?.until ?? 'good', moved: true })
  },
  grade: (_, s, { on, fig }) => {
    const part = s.parts.get(on)
    // what is unsafe stays so until another one is in its place
    if (!part || part.condition === 'unsafe') return
    part.condition = fig?.condition ?? 'unknown'
    if (fig?.why === undefined) delete part.why
    else part.why = fig.why
  },
  loosen: (ix, s, { on }) => loosened(ix, s, on, 'loose'),
  'take-out': (ix, s, { on }) => loosened(ix, s, on, 'out'),
  snug: (ix, s, { on }) => tightened(ix, s, on, 'snug'),
  tighten: (ix, s, { on }) => tightened(ix, s, on, 'final'),
  lock: (_, s, { on }) => {
    const group = s.groups.get(on)
    if (group) group.locked = true
  },
  adjust: (_, s, { on, fig }) => {
    s.stacks.set(on, fig?.stack ?? '')
  },
  measure: (ix, s, act) => read(ix, s, act, act.fig?.check === true && act.fig.verdict === 'good'),
  accept: (ix, s, act) => read(ix, s, act, true),
  prove: (ix, s, act) => proved(ix, s, act),
  leak: (ix, s, { on }) => {
    const joint = s.joints.get(on)
    if (!joint) return
    joint.leaks = true
    // what seals it has failed, whatever it looks like
    for (const id of ix.joints.get(on)!.sealedBy) {
      const seal = s.parts.get(id)
      if (seal?.at === 'in' && seal.condition !== 'unsafe')
        Object.assign(seal, { condition: 'condemned', why: 'leaks' })
    }
  },
  drain: (_, s, { on, n }) => {
    const space = s.spaces.get(on)
    if (space) Object.assign(space, { at: 'out', settled: false, emptied: n })
  },
  fill: (_, s, { on }) => {
    const space = s.spaces.get(on)
    if (space) Object.assign(space, { at: 'filled', settled: false })
  },
  settle: (_, s, { on }) => {
    const space = s.spaces.get(on)
    if (space) space.settled = true
  },
  'leave-dry': (_, s, { on }) => {
    const space = s.spaces.get(on)
    if (space) space.at = 'dry'
  },
  part: (ix, s, { on, n }) => {
    if (!s.interfaces.has(on)) return
    s.interfaces.set(on, 'parted')
    for (const [id, g] of ix.groups) if (g.joins.includes(on)) loosened(ix, s, id, 'out')
    for (const [id, j] of ix.joints)
      if (j.row.kind === 'halves' && j.interfaces.includes(on)) opened(ix, s, id)
    if (ix.shifts) forget(s, 'shift', n)
  },
  join: (_, s, { on }) => {
    if (s.interfaces.has(on)) s.interfaces.set(on, 'joined')
  },
  'put-in': (_, s, { on }) => void s.temporary.add(on),
  'take-away': (_, s, { on }) => void s.temporary.delete(on),
  press: (_, s) => {
    s.pressure = true
  },
  'let-out': (_, s) => {
    s.pressure = false
  },
  run: (ix, s, act) => {
    s.knownSince.set('runs', act.n)
    if (!act.fig?.dry) return
    for (const [id, j] of ix.joints)
      if (j.row.provedBy === 'dry-after-run' && jointAt(s, j) === 'shut') proof(s, id, act.n)
  },
  know: (_, s, { on, n }) => {
    s.knownSince.set(on as Topic, n)
  },
  find: (_, s, { on }) => void s.open.add(on),
  account: (_, s, { on }) => void s.open.delete(on),
  waive: (_, s, { on }) => void s.accepted.add(on),
  end: (_, s, { fig, n }) => {
    s.ended = n
    if (fig?.end) s.end = fig.end
  },
}

/** A unit that somebody else worked on comes closed, by itself and empty: without oil, without its propeller. */
function cameFromElsewhere(ix: AssemblyIndex, s: AssemblyState) {
  for (const id of s.interfaces.keys()) s.interfaces.set(id, 'parted')
  for (const [id, g] of ix.groups) if (g.joins.length) s.groups.get(id)!.at = 'out'
  for (const id of ix.propellers) {
    s.groups.get(id)!.at = 'out'
    for (const p of ix.groups.get(id)!.pieces) s.parts.get(p)!.at = 'tray'
    for (const p of ix.groups.get(id)!.holds) s.parts.get(p)!.at = 'tray'
  }
  for (const [id, space] of s.spaces) if (ix.spaces.get(id)!.holds !== 'water') space.at = 'out'
  for (const t of ix.propellers.size ? (['propeller-turns'] as const) : []) forget(s, t, s.n)
  if (ix.shifts) forget(s, 'shift', s.n)
}

function proof(s: AssemblyState, joint: string, n: number) {
  const state = s.joints.get(joint)!
  state.proof = { n, partings: state.partings }
  state.leaks = false
}

/** A reading proves the parts that it was taken on, in the state that they are in. */
function read(ix: AssemblyIndex, s: AssemblyState, { on, n }: Act, counts: boolean) {
  const setting = ix.settings.get(on)
  if (!setting) return
  const state = s.settings.get(on)!
  state.read = n
  if (!counts) return
  state.proof = { n, configuration: configurationOf(s, setting), seatings: state.seatings }
}

const BY_AIR = new Set(['air', 'vacuum'])

/** Tight: every joint that the test sees and that is shut is proved. One half of a unit that shares its oil is not seen by itself. */
function proved(ix: AssemblyIndex, s: AssemblyState, { on, fig, n }: Act) {
  if (fig?.verdict !== 'good') return
  const joined = on === 'joined'
  const shares = [...ix.interfaces.values()].some(
    (i) => i.sharesOil === true && s.interfaces.get(i.id) !== 'parted',
  )
  if (!joined && shares) return
  for (const [id, j] of ix.joints) {
    const { provedBy } = j.row
    const seen = provedBy === undefined || BY_AIR.has(provedBy) || (joined && provedBy === 'joined-air')
    if (seen && jointAt(s, j) === 'shut') proof(s, id, n)
  }
}
