import type { Deed } from '../assembly/act.ts'
import { assemblyIndex, type AssemblyIndex } from '../assembly/assembly-index.ts'
import { edgesOf } from '../drives/graph/edges.ts'
import { bigRing } from '../drives/graph/unit-facts.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { settingMeasures } from '../setting/measures.ts'
import { baseOf } from './occurrence.ts'
import type { DriveStepId } from './step-ids.ts'

/**
 * What kind of act a deed is, from the general to the special: `remove` and `remove.seal`, `tighten.ring`, `prove.case`. By these names a step says which
 * acts are its own, and a condition whether a job has such an act at all.
 */
export type ActClass = string

/** The acts that closing a step says were done. */
const CLAIMS: Partial<Record<DriveStepId, readonly ActClass[]>> = {
  'find-place': ['know.place'],
  drain: ['drain'],
  apart: ['remove', 'part', 'loosen.held', 'take-out.held'],
  'parts-in': ['renew.body'],
  press: ['renew.host', 'renew.pressed', 'fit.pressed'],
  seals: ['renew.seal', 'fit.seal'],
  'o-rings': ['renew.ring', 'fit.ring'],
  close: ['fit.inside', 'renew.inside'],
  pump: ['fit.pump', 'renew.pump'],
  tighten: ['fit.outside', 'renew.outside', 'snug', 'tighten.other', 'lock.other'],
  'ring-stand': ['tighten.ring', 'lock.ring'],
  'ring-mounted': ['tighten.ring', 'lock.ring'],
  'unit-ratio': ['know.ratio'],
  join: ['join', 'tighten.joins', 'lock.joins'],
  'shift-check': ['know.shift'],
  'fill-stand': ['fill', 'settle', 'take-out.port', 'tighten.port', 'lock.port'],
  'fill-mounted': ['fill', 'settle', 'take-out.port', 'tighten.port', 'lock.port'],
  'first-run': ['run', 'know.water', 'know.runs'],
  propeller: ['fit.hub', 'renew.hub', 'tighten.propeller', 'lock.propeller', 'know.propeller-turns'],
  anode: ['fit.anode', 'renew.anode'],
  handover: ['end'],
}

/** Acts that a step goes with, and does not do itself: what is looked at, prepared or proved beside them, or done on another page. */
const GOES_WITH: Partial<Record<DriveStepId, readonly ActClass[]>> = {
  'prop-off': ['remove.hub'],
  'open-gear': ['remove.carrier', 'remove.housing', 'remove.cup'],
  'nut-found': ['loosen.preload', 'take-out.preload'],
  locks: ['loosen.held', 'take-out.held'],
  'left-hand': ['loosen.left', 'take-out.left'],
  shims: ['remove.shim'],
  'trial-in': ['set'],
  preload: ['set.rolling-torque'],
  'set-gears': ['set.gears'],
  crush: ['set.crush'],
  pattern: ['set.mesh'],
  accept: ['set'],
  turn: ['set'],
  'trial-out': ['set'],
  inside: ['fit.inside'],
  // the ring is run home with the rest, and gets its torque by itself
  tighten: ['tighten.ring'],
  'turn-closed': ['fit.inside'],
  'check-set': ['check'],
  'leak-case': ['prove.case'],
  'leak-joined': ['prove.joined'],
  'join-gear': ['join'],
  splines: ['join'],
}

/** What no other step of a drive is for, is done where it is tightened: a ring whose torque the sheet does not know has no step of its own. */
const OTHERWISE: readonly ActClass[] = ['ring', 'propeller', 'port', 'joins', 'hub', 'anode'].flatMap((c) => [
  `tighten.${c}`,
  `lock.${c}`,
  `fit.${c}`,
  `renew.${c}`,
])

/** A step that hangs on acts of the work, and not only on what is known or decided. */
export const goesWithActs = ({ id }: { id: string }): boolean =>
  (CLAIMS[id as DriveStepId] ?? GOES_WITH[id as DriveStepId]) !== undefined

/** Classes of acts without which a step does not come up: its own, and those that it goes with. */
export const actsOfStep = (step: string, steps: ReadonlySet<string>): readonly ActClass[] => [
  ...claimsOfStep(step, steps),
  ...(GOES_WITH[baseOf(step) as DriveStepId] ?? []),
]

/**
 * Classes of acts that are done by closing a step of a drive with these steps.
 * @param step a step, or a later occurrence of one
 */
export function claimsOfStep(step: string, steps: ReadonlySet<string>): readonly ActClass[] {
  const base = baseOf(step)
  const own = CLAIMS[base as DriveStepId] ?? []
  if (base !== 'tighten') return own
  const taken = new Set(
    Object.entries(CLAIMS).flatMap(([id, classes]) => (id !== base && steps.has(id) ? classes : [])),
  )
  return [...own, ...OTHERWISE.filter((c) => !taken.has(c))]
}

/** Classes of an act, from the general to the special, by what a drive's own rows make of it. */
export const classesOn = perSheet((sheet: DriveSheet): ((deed: Deed) => readonly ActClass[]) => {
  const ix = assemblyIndex(sheet)
  const of = rolesOf(sheet)
  const more = (deed: Deed): string[] => {
    const { do: verb, on } = deed
    switch (verb) {
      case 'remove':
      case 'fit':
        return [...partClasses(ix, of, on), ...(of.named.has(on) ? [partClass(on)] : [])].map(
          (c) => `${verb}.${c}`,
        )
      case 'renew':
        return partClasses(ix, of, on).map((c) => `${verb}.${c}`)
      case 'loosen':
      case 'take-out':
      case 'snug':
      case 'tighten':
      case 'lock':
        return [...groupClasses(ix, of, on), on].map((c) => `${verb}.${c}`)
      case 'accept':
        return ['set', ...(of.settings.get(on) ?? []).map((c) => `set.${c}`), `set.${on}`]
      case 'measure':
        return ['check', `check.${on}`]
      case 'prove':
      case 'know':
        return [`${verb}.${on}`]
      default:
        return []
    }
  }
  const known = new Map<string, readonly ActClass[]>()
  return (deed) => {
    const key = `${deed.do} ${deed.on}`
    let found = known.get(key)
    if (!found) known.set(key, (found = [deed.do, ...more(deed)]))
    return found
  }
})

/** The class of one part by itself, where a tool or a seal is for it; ids may be called like kinds. */
export const partClass = (id: string): ActClass => `part:${id}`

/** Kinds of parts outside that have steps of their own. */
const OWN_STEP: ReadonlySet<string> = new Set(['seal', 'ring', 'hub', 'anode', 'pump'])

interface Roles {
  ring?: string
  roles: ReadonlyMap<string, string>
  settings: ReadonlyMap<string, readonly string[]>
  inside: ReadonlySet<string>
  /** Parts that something is said of by themselves: what a tool or a seal is for. */
  named: ReadonlySet<string>
}

const rolesOf = perSheet((sheet: DriveSheet): Roles => {
  const ring = bigRing(sheet.graph)
  return {
    ...(ring ? { ring: ring.id } : {}),
    roles: new Map(sheet.parts.flatMap((p) => (p.role ? [[p.id, p.role] as const] : []))),
    settings: new Map(
      settingMeasures(sheet).map((m) => [
        m.id,
        [
          m.kind,
          ...(m.kind === 'rolling-torque' || m.kind === 'crush' ? [] : ['gears']),
          ...(m.kind === 'backlash' || m.kind === 'depth' ? ['mesh'] : []),
        ],
      ]),
    ),
    named: new Set(
      [
        ...(sheet.graph.tools ?? []).map((t) => t.for),
        ...(sheet.graph.sealFits ?? []).map((f) => f.part),
      ].flatMap(edgesOf),
    ),
    inside: new Set(sheet.parts.filter((p) => p.inside || p.role === 'carrier').map((p) => p.id)),
  }
})

function partClasses(ix: AssemblyIndex, { roles, inside }: Roles, id: string): string[] {
  const part = ix.parts.get(id)
  if (!part) return []
  // nut, pin and lock of a propeller go on with it
  if (part.group !== undefined && ix.propellers.has(part.group)) return ['hub']
  const role = roles.get(id)
  return [
    part.kind,
    ...(role && role !== part.kind ? [role] : []),
    ...(part.on.length && part.kind !== 'seal' && part.kind !== 'ring' ? ['pressed'] : []),
    ...(ix.hosts.has(id) ? ['host'] : []),
    ...(inside.has(id) ? ['inside'] : OWN_STEP.has(part.kind) ? [] : ['outside']),
  ]
}

function groupClasses(ix: AssemblyIndex, { ring }: Roles, id: string): string[] {
  const group = ix.groups.get(id)
  if (!group) return []
  const port = group.row.port !== undefined
  const joins = group.joins.length > 0
  const propeller = ix.propellers.has(id)
  const own = [
    ...(id === ring ? ['ring'] : []),
    ...(propeller ? ['propeller'] : []),
    ...(port ? ['port'] : []),
    ...(joins ? ['joins'] : []),
  ]
  return [
    ...own,
    ...(own.length ? [] : ['other']),
    ...(port ? [] : ['held']),
    ...(group.row.hand === 'left' ? ['left'] : []),
    ...(group.row.tightenedBy === 'preload' ? ['preload'] : []),
  ]
}
