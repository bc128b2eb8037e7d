import type { Condition, End, Figures, Topic } from './act.ts'
import type { AssemblyIndex, IndexJoint, IndexSetting } from './assembly-index.ts'

/** Where a part is. In the tray it may lie within its lot: then it goes in with it. */
export interface PartState {
  at: 'in' | 'tray' | 'left-out'
  lot?: string
  /** Left out for a trial, or for good. */
  until?: 'trial' | 'good'
  /** Counts from the one that came. */
  instance: number
  condition: Condition
  /** Why it is condemned or unsafe, as a code. */
  why?: string
  /** It has been off. */
  moved: boolean
  /** Number of the act by which it last came off by itself, and of the one that put a new one in its place. */
  off?: number
  renewed?: number
}

export interface GroupState {
  at: 'as-came' | 'loose' | 'out' | 'snug' | 'final'
  locked: boolean
  /** How often it was loosened. */
  moves: number
}

export interface JointState {
  /** How often it was opened or slackened. */
  partings: number
  /** It is known to leak. */
  leaks: boolean
  /** The test that last proved it, and how often it had been opened then. */
  proof?: { n: number; partings: number }
}

export interface SettingState {
  /** How often a contact between two of its carriers was parted. */
  seatings: number
  /** Number of the act by which a part that carries or sets it last came off by itself: it is set anew, and not only read again. */
  disturbed?: number
  /** Number of the act by which it was last read. */
  read?: number
  proof?: { n: number; configuration: string; seatings: number }
}

export interface SpaceState {
  at: 'as-came' | 'out' | 'filled' | 'dry'
  settled: boolean
  /** Number of the act by which it was last emptied. */
  emptied?: number
}

/** What a unit is in, after some acts. Filled by the fold, and read by everybody else. */
export interface AssemblyState {
  parts: Map<string, PartState>
  groups: Map<string, GroupState>
  joints: Map<string, JointState>
  settings: Map<string, SettingState>
  spaces: Map<string, SpaceState>
  interfaces: Map<string, 'as-came' | 'parted' | 'joined'>
  stacks: Map<string, string>
  /** Blanks, wedges, trial parts: put in, and not taken away yet. */
  temporary: Set<string>
  /** Metal, or something dropped: found or missing, and not accounted for. */
  open: Set<string>
  pressure: boolean
  /** Lines of the list that were accepted by name since something was last opened, as `code id`. */
  accepted: Set<string>
  came: NonNullable<Figures['came']>
  /** Number of the act that made a topic unknown, and of the one that made it known. */
  unknownSince: Map<Topic, number>
  knownSince: Map<Topic, number>
  end?: End
  /** Number of the act that ended it. */
  ended?: number
  /** Number of the newest act. */
  n: number
}

/** A unit as it comes, of which nothing is known yet. */
export function asItCame(ix: AssemblyIndex): AssemblyState {
  const each = <T>(of: ReadonlyMap<string, unknown>, state: () => T) =>
    new Map([...of.keys()].map((id) => [id, state()] as const))
  return {
    parts: each(ix.parts, (): PartState => ({ at: 'in', instance: 1, condition: 'unknown', moved: false })),
    groups: each(ix.groups, (): GroupState => ({ at: 'as-came', locked: true, moves: 0 })),
    joints: each(ix.joints, (): JointState => ({ partings: 0, leaks: false })),
    settings: each(ix.settings, (): SettingState => ({ seatings: 0 })),
    spaces: each(ix.spaces, (): SpaceState => ({ at: 'as-came', settled: true })),
    interfaces: each(ix.interfaces, () => 'as-came' as const),
    stacks: new Map(),
    temporary: new Set(),
    open: new Set(),
    pressure: false,
    accepted: new Set(),
    came: 'mounted',
    unknownSince: new Map(),
    knownSince: new Map(),
    n: 0,
  }
}

/** How a joint stands, by its parts and by what closes it. */
export function jointAt(
  state: AssemblyState,
  { between, sealedBy, closedBy }: IndexJoint,
): 'shut' | 'dry-fitted' | 'slackened' | 'open' {
  const at = (id: string) => state.parts.get(id)?.at ?? 'in'
  if (between.some((id) => at(id) !== 'in') || sealedBy.some((id) => at(id) === 'tray')) return 'open'
  const group = (id: string) => state.groups.get(id)?.at ?? 'as-came'
  if (closedBy.some((id) => group(id) === 'out') && !between.length) return 'open'
  if (closedBy.some((id) => group(id) === 'loose' || group(id) === 'out')) return 'slackened'
  return sealedBy.some((id) => at(id) === 'left-out') ? 'dry-fitted' : 'shut'
}

/**
 * What a reading of a setting proves: the very parts that carry it, its stacks, and its preloading nut since it last moved. Another piece, another shim, a
 * turn of the nut, and it is another configuration.
 */
export function configurationOf(state: AssemblyState, setting: IndexSetting): string {
  // in another case everything is set anew
  const cases = setting.bodies.flatMap((id) => {
    const instance = state.parts.get(id)?.instance ?? 1
    return instance > 1 ? [`${id}#${instance}`] : []
  })
  const parts = setting.carriers.map((id) => `${id}#${state.parts.get(id)?.instance ?? 1}`)
  const stacks = setting.stacks.map((id) => `${id}=${state.stacks.get(id) ?? 'as found'}`)
  const nuts = setting.preloadedBy.map((id) => `${id}~${state.groups.get(id)?.moves ?? 0}`)
  return [...cases, ...parts, ...stacks, ...nuts].join(' ')
}

/** The configuration of a unit that nobody has touched. */
export const foundConfiguration = (setting: IndexSetting): string =>
  [
    ...setting.carriers.map((id) => `${id}#1`),
    ...setting.stacks.map((id) => `${id}=as found`),
    ...setting.preloadedBy.map((id) => `${id}~0`),
  ].join(' ')

/** Something of a setting was parted, renewed, adjusted or loosened. */
export const isTouched = (state: AssemblyState, setting: IndexSetting): boolean =>
  state.settings.get(setting.id)!.seatings > 0 ||
  configurationOf(state, setting) !== foundConfiguration(setting)

/**
 * The same parts were only seated again, and nobody can read it as it stands: on the closed case, or while the unit hangs on the boat. That they are seated
 * and tightened is then the proof.
 */
export const isOnlySeatedAgain = (state: AssemblyState, setting: IndexSetting): boolean => {
  const { proof, disturbed = -1 } = state.settings.get(setting.id)!
  return (
    (!setting.asItStands || (setting.offTheBoat && state.came === 'mounted' && !isParted(state))) &&
    disturbed <= (proof?.n ?? -1) &&
    configurationOf(state, setting) === (proof?.configuration ?? foundConfiguration(setting))
  )
}

const isParted = (state: AssemblyState) => [...state.interfaces.values()].includes('parted')

/** It is proved as it stands now. */
export function isProved(state: AssemblyState, setting: IndexSetting): boolean {
  const { proof, seatings } = state.settings.get(setting.id)!
  return (
    proof !== undefined &&
    proof.seatings === seatings &&
    proof.configuration === configurationOf(state, setting)
  )
}
