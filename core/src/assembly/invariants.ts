import type { End } from './act.ts'
import type { AssemblyIndex } from './assembly-index.ts'
import { isOnlySeatedAgain, isProved, isTouched, jointAt, type AssemblyState } from './state.ts'

/** Everything that must be so before a unit leaves the shop, in the order in which it is said. */
export const CODES = [
  'unsafe-in',
  'condemned-in',
  'joint-leaks',
  'part-not-in',
  'group-not-tight',
  'group-not-locked',
  'joint-not-shut',
  'joint-not-proved',
  'setting-not-proved',
  'space-empty',
  'space-not-settled',
  'temporary-in',
  'pressure-on',
  'interface-open',
  'not-checked',
  'open-item',
] as const
export type Code = (typeof CODES)[number]

export interface Line {
  code: Code
  /** The row that it is about; `unit` where it is the whole. */
  on: string
  colour: 'red' | 'accepted' | 'not-for-this-end'
}

/** Nobody can accept these: somebody could be hurt, or the drive lost. */
const NEVER: ReadonlySet<Code> = new Set(['unsafe-in', 'pressure-on'])
/** Nobody goes on over such a line, whatever the reason. */
export const isFirm = (code: Code): boolean => NEVER.has(code)

/** What a unit that stays as it is has not to be. */
const NOT_AS_IT_IS: ReadonlySet<Code> = new Set<Code>([
  // it carries a tag at the unit and at the helm: not to be run
  'unsafe-in',
  'part-not-in',
  'group-not-tight',
  'group-not-locked',
  'joint-not-shut',
  'joint-not-proved',
  'joint-leaks',
  'condemned-in',
  'setting-not-proved',
  'space-empty',
  'space-not-settled',
  'interface-open',
  'not-checked',
])
const LEFT_OPEN: ReadonlySet<End | undefined> = new Set<End | undefined>(['as-it-is', 'boxes', 'scrapped'])

/**
 * What is not as it must be before the unit leaves the shop. An empty list opens handover; a line that was accepted by name, or that its end does not ask
 * for, stays to be read.
 */
export function invariants(ix: AssemblyIndex, state: AssemblyState): Line[] {
  const found: [Code, string][] = [
    ...partLines(state),
    ...groupLines(ix, state),
    ...jointLines(ix, state),
    ...settingLines(ix, state),
    ...spaceLines(ix, state),
    ...[...state.temporary].map((t): [Code, string] => ['temporary-in', t]),
    ...(state.pressure ? [['pressure-on', 'unit'] as [Code, string]] : []),
    ...[...state.interfaces].flatMap(([id, at]): [Code, string][] =>
      at === 'parted' ? [['interface-open', id]] : [],
    ),
    ...[...state.unknownSince].flatMap(([topic, n]): [Code, string][] =>
      (state.knownSince.get(topic) ?? -1) < n ? [['not-checked', topic]] : [],
    ),
    ...[...state.open].map((o): [Code, string] => ['open-item', o]),
  ]
  const order = (c: Code) => CODES.indexOf(c)
  return found
    .sort(([a], [b]) => order(a) - order(b))
    .map(([code, on]) => ({
      code,
      on,
      colour:
        LEFT_OPEN.has(state.end) && NOT_AS_IT_IS.has(code)
          ? 'not-for-this-end'
          : state.accepted.has(lineId({ code, on })) && !NEVER.has(code)
            ? 'accepted'
            : 'red',
    }))
}

/** By what a line is accepted. */
export const lineId = ({ code, on }: Pick<Line, 'code' | 'on'>): string => `${code} ${on}`

/** The other way round. */
export function lineOf(id: string): Pick<Line, 'code' | 'on'> {
  const [code = '', ...on] = id.split(' ')
  return { code: code as Code, on: on.join(' ') }
}

/** Handover is open. */
export const mayLeave = (lines: readonly Line[]): boolean => lines.every((l) => l.colour !== 'red')

const partLines = (state: AssemblyState): [Code, string][] =>
  [...state.parts].flatMap(([id, p]): [Code, string][] => {
    if (p.condition === 'unsafe' && p.at === 'in') return [['unsafe-in', id]]
    if (p.condition === 'condemned' && p.at === 'in') return [['condemned-in', id]]
    return p.at === 'tray' || (p.at === 'left-out' && p.until === 'trial') ? [['part-not-in', id]] : []
  })

const groupLines = (ix: AssemblyIndex, state: AssemblyState): [Code, string][] =>
  [...state.groups].flatMap(([id, g]): [Code, string][] => {
    // what holds a part that was left out for good has nothing to hold
    const { holds } = ix.groups.get(id)!
    if (holds.length && holds.every((p) => state.parts.get(p)?.at === 'left-out')) return []
    if (g.at !== 'as-came' && g.at !== 'final') return [['group-not-tight', id]]
    return g.at === 'final' && !g.locked ? [['group-not-locked', id]] : []
  })

const jointLines = (ix: AssemblyIndex, state: AssemblyState): [Code, string][] =>
  [...state.joints].flatMap(([id, j]): [Code, string][] => {
    if (j.leaks) return [['joint-leaks', id]]
    const joint = ix.joints.get(id)!
    if (j.partings === 0 && state.came !== 'elsewhere') return []
    const at = jointAt(state, joint)
    // its parts and its nuts are lines of their own
    if (at === 'dry-fitted') return [['joint-not-shut', id]]
    if (joint.row.provedBy === 'none' || at !== 'shut') return []
    return j.proof?.partings === j.partings ? [] : [['joint-not-proved', id]]
  })

const settingLines = (ix: AssemblyIndex, state: AssemblyState): [Code, string][] =>
  [...ix.settings.values()].flatMap((s): [Code, string][] =>
    isTouched(state, s) && !isProved(state, s) && !isOnlySeatedAgain(state, s)
      ? [['setting-not-proved', s.id]]
      : [],
  )

const spaceLines = (ix: AssemblyIndex, state: AssemblyState): [Code, string][] =>
  [...state.spaces].flatMap(([id, s]): [Code, string][] => {
    if (ix.spaces.get(id)!.holds === 'water') return []
    if (s.at === 'out') return [['space-empty', id]]
    return s.at === 'filled' && !s.settled ? [['space-not-settled', id]] : []
  })
