import { lubricantOf } from '../drives/graph/unit-facts.ts'
import { sealsOnAxis } from '../drives/on-axis.ts'
import { afterClosure } from './after-closure.ts'
import { refuse } from '../checks/input-error.ts'
import type { Part } from '../drives/parts.ts'
import { lowerFirst } from '../units/words.ts'
import type { Figures } from '../assembly/act.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { DriveSheet } from '../drives/sheet.ts'

/**
 * What kind of a job it is. `rebuild`: parts are reached and renewed. `look`: taken apart to be judged. `strike`: judged after a blow with as
 * little apart as that needs. `pump`: the water pump only. `service`: what is due every year. `refit`: it was worked on elsewhere and goes back
 * on. `unit`: a whole unit that was bought. `test`: nothing but the pressure test.
 */
export const SCOPE_MODES = ['rebuild', 'look', 'strike', 'pump', 'service', 'refit', 'unit', 'test'] as const
export type ScopeMode = (typeof SCOPE_MODES)[number]

/** Modes in which the unit was worked on elsewhere: it comes closed, by itself, and empty. */
export const CAME_ELSEWHERE: readonly ScopeMode[] = ['refit', 'unit']

/** What is opened begins with what the owner complains about; a yearly service, a test, and a unit from elsewhere say by themselves what they are for. */
export const needsComplaint = (mode: ScopeMode | undefined): boolean =>
  mode !== 'service' && mode !== 'test' && mode !== 'refit' && mode !== 'unit'

/** Something is taken apart in it: what that comes to is read before it is begun. */
export const isPlanned = (mode: ScopeMode | undefined): boolean => needsComplaint(mode) || mode === 'service'

/** What a job is to reach or renew. */
export interface Scope {
  /** The usual scope it was chosen as; `own` where places were picked by hand. */
  usual: string
  mode: ScopeMode
  /** Ids of the parts that are wanted, for whatever reason. */
  targets: string[]
  /** The unit stays on the boat. */
  mounted: boolean
  /** How it came; as the scope has it where nobody said so. */
  came?: Came
  /** Ids of the parts that lay beside it when it came, each after what covers it. */
  lying?: string[]
}

/** The same as the act by which it came has it. */
export const cameAs = ({ mode, mounted, came }: Scope): NonNullable<Figures['came']> => {
  if (CAME_ELSEWHERE.includes(mode)) return 'elsewhere'
  if (came !== undefined && came !== 'boat') return came === 'boxes' ? 'boxes' : 'off'
  return mounted ? 'mounted' : 'whole'
}

/**
 * What can still be had of a unit as it was: all of it, or not, because something that closes or sets it lay beside it when it came. What lies outside of it
 * takes nothing away.
 */
export function isWhole(sheet: DriveSheet, { lying = [] }: Scope): boolean {
  if (!lying.length) return true
  const beside = new Set(lying)
  return sheet.parts.every(
    (p) =>
      !beside.has(p.id) ||
      p.kind === 'hub' ||
      p.kind === 'anode' ||
      (p.kind === 'nut' && !p.inside && isOnHub(sheet, p)),
  )
}

const isOnHub = (sheet: DriveSheet, part: Part): boolean =>
  sheet.parts.some((p) => p.kind === 'hub' && p.after.includes(part.id))

/** How a unit comes: on its boat, off it and whole, opened by somebody, in boxes. */
export const CAME = {
  boat: 'whole, as it hangs',
  off: 'whole, taken off already',
  opened: 'opened by somebody: some of it lies beside it',
  boxes: 'in boxes',
} as const
export type Came = keyof typeof CAME

export interface UsualScope extends Scope {
  label: string
  /** What it is for, in a line. */
  about: string
}

const isSeal = (p: Part) => p.kind === 'seal' || p.kind === 'ring'
const bodyOf = (sheet: DriveSheet) => new Set(sheet.parts.filter((p) => p.role === 'body').map((p) => p.id))
const ids = (parts: readonly Part[]) => parts.map((p) => p.id)

/** Seals of the shift shaft: those that come out after a part that shifts. */
function shiftSeals(sheet: DriveSheet): Part[] {
  const shifts = new Set(ids(sheet.parts.filter((p) => p.kind === 'shift')))
  return sheet.parts.filter((p) => isSeal(p) && p.after.some((a) => shifts.has(a)))
}

/**
 * The scopes that a technician knows by name, as far as this drive has what they are about. A full rebuild is always there and comes first.
 */
export const usualScopes = perSheet((sheet): UsualScope[] => {
  const body = bodyOf(sheet)
  const all = ids(sheet.parts.filter((p) => !body.has(p.id)))
  const of = (kind: Part['kind']) => ids(sheet.parts.filter((p) => p.kind === kind))
  const scope = (
    usual: string,
    mode: ScopeMode,
    targets: string[],
    label: string,
    about: string,
  ): UsualScope => ({ usual, mode, targets, mounted: staysMounted(sheet, mode, targets), label, about })
  const gearSet = sheet.parts.filter((p) => p.place?.startsWith('gear:'))
  const found: (UsualScope | false)[] = [
    scope('full', 'rebuild', all, 'Full rebuild', 'Everything out, looked at, set and sealed again.'),
    ...sheet.axes.map((a) => {
      const seals = ids(sealsOnAxis(sheet, a.id))
      return (
        seals.length > 0 &&
        scope(
          `seals:${a.id}`,
          'rebuild',
          seals,
          `Seals of the ${lowerFirst(a.label)}`,
          'Lips on this shaft, and the rings that are disturbed on the way.',
        )
      )
    }),
    shiftSeals(sheet).length > 0 &&
      scope(
        'shift-seal',
        'rebuild',
        ids(shiftSeals(sheet)),
        'Shift shaft seal',
        'Rod out, seal and ring new.',
      ),
    of('clutch').length > 0 &&
      scope('clutch', 'rebuild', of('clutch'), 'Clutch', 'Dog or cone, with what mates it judged beside it.'),
    gearSet.length > 0 &&
      scope(
        'gear-set',
        'rebuild',
        ids(gearSet),
        'Gear set',
        'New gears: set and proved as in a full rebuild.',
      ),
    of('pump').length > 0 &&
      scope('pump', 'pump', of('pump'), 'Water pump', 'Impeller and housing; the oil stays in.'),
    scope(
      'strike',
      'strike',
      [...of('hub'), ...propellerLocks(sheet)],
      'Strike assessment',
      'What took the blow, measured before anybody pays for more.',
    ),
    scope('look', 'look', all, 'Teardown to look', 'Apart and graded, then the owner decides.'),
    scope('refit', 'refit', [], 'Refit', 'Worked on elsewhere: proved, joined, filled, run.'),
    scope(
      'unit',
      'unit',
      [],
      'Unit bought in',
      'A whole unit from elsewhere: counted and proved before it is fitted.',
    ),
    scope('test', 'test', [], 'Pressure test only', 'Tight or not, and where it comes out.'),
    scope(
      'service',
      'service',
      [...of('hub'), ...propellerLocks(sheet), ...of('anode')],
      'Yearly service',
      lubricantOf(sheet.graph) === 'oil' ? 'Oil, anodes, splines, screws.' : 'Grease, anodes, splines.',
    ),
  ]
  return found.filter((s): s is UsualScope => !!s)
})

/** What has to be off before a hub leaves. */
function propellerLocks(sheet: DriveSheet): string[] {
  const hubs = sheet.parts.filter((p) => p.kind === 'hub')
  return [...new Set(hubs.flatMap((h) => h.after))].filter((id) => !hubs.some((h) => h.id === id))
}

/** Where nothing has to come apart above it, the unit can stay on the boat. */
function staysMounted(sheet: DriveSheet, mode: ScopeMode, targets: string[]): boolean {
  if (mode === 'refit' || mode === 'unit' || mode === 'look') return false
  if (mode === 'test' || mode === 'service' || mode === 'strike') return true
  const off = afterClosure(sheet.parts, targets)
  return sheet.parts.some((p) => p.apart) && !sheet.parts.some((p) => p.apart && off.has(p.id))
}

/** @throws InputError where parts between the halves are wanted of a unit that stays on the boat */
export function mustBeReached(sheet: DriveSheet, targets: readonly string[]): void {
  const off = afterClosure(sheet.parts, targets)
  const between = sheet.parts.filter((p) => p.apart && off.has(p.id))
  if (between.length)
    refuse(
      'mounted',
      `cannot be: ${lowerFirst(between[0]!.name)} sits between the halves; the unit comes off the boat`,
    )
}

/** A job that nobody has given a scope: everything. */
export const fullScope = (sheet: DriveSheet): UsualScope => usualScopes(sheet)[0]!

/** A usual scope by its id. @throws InputError `invalid-input` where this drive has none of that name */
export function usualScope(sheet: DriveSheet, usual: string): UsualScope {
  const all = usualScopes(sheet)
  return (
    all.find((s) => s.usual === usual) ??
    refuse('usual', `"${usual}" is no scope of this drive; ${all.map((s) => s.usual).join(', ')}, or "own"`)
  )
}

/**
 * A scope out of places that were picked by hand. Unknown parts, and a scope that reaches nothing, are refused by name.
 * @throws InputError
 */
export function ownScope(sheet: DriveSheet, targets: readonly string[], mounted?: boolean): Scope {
  const body = bodyOf(sheet)
  const known = new Set(ids(sheet.parts))
  if (!targets.length) refuse('targets', 'reaches nothing yet: pick at least one part, or a usual scope')
  targets.forEach((t, i) => {
    if (!known.has(t)) refuse(`targets[${i}]`, `"${t}" is no part of this drive in this variant`)
    if (body.has(t)) refuse(`targets[${i}]`, 'is the case itself: it is what the others come out of')
  })
  if (mounted) mustBeReached(sheet, targets)
  return {
    usual: 'own',
    mode: 'rebuild',
    targets: [...new Set(targets)],
    mounted: mounted ?? staysMounted(sheet, 'rebuild', [...targets]),
  }
}
