/** What kind of thing a part is: decides how it is looked at, how it is marked, and whether it may go back in. */
export const PART_KINDS = {
  gear: 'Gear',
  shaft: 'Shaft',
  bearing: 'Rolling bearing',
  needle: 'Caged needle bearing',
  cup: 'Bearing cup or carrier',
  seal: 'Lip seal',
  ring: 'O-ring or gasket',
  shim: 'Shims',
  washer: 'Thrust washer or spacer',
  key: 'Key, pin or spring',
  clip: 'Snap ring, keeper or clip',
  clutch: 'Clutch',
  shift: 'Shift part',
  housing: 'Housing',
  pump: 'Water pump',
  anode: 'Anode',
  nut: 'Nut, bolts or lock',
  hub: 'Thrust hub',
  belt: 'Belt or pulley',
} as const
export type PartKind = keyof typeof PART_KINDS

/** One part (or one lot of equal ones) of a drive, in the order in which it comes off. */
export interface Part {
  id: string
  name: string
  kind: PartKind
  /** Place on the section drawing: `gear:pinion`, `stack:forward` … */
  place?: string
  count: number
  /** Parts that must be off before this one can leave. */
  after: string[]
  /** Parts sold or condemned together carry the same name here. */
  set?: string
  /** Bought as part of this kit. */
  kit?: string
  /** In the shop's currency, left out where nobody has said it; of the set or kit when it belongs to one, and then the same for all of them. */
  price?: number
  /** Days until it arrives when it is not on the shelf. */
  waitDays?: number
  /** Must be inside before the case closes. */
  inside: boolean
  /** Parts that the order of work treats as what they are: the case itself, what closes it, and the key of that. */
  role?: 'body' | 'carrier' | 'carrier-key'
  /** A left-hand thread: loosens clockwise. */
  thread?: 'left'
  /** Causes of the fault table that point at it. */
  pointedAtBy?: string[]
  /** What a seal or ring holds back. @default 'oil' */
  keeps?: 'water'
  /** It can only be got at with the halves apart, or the unit off the boat. */
  apart?: true
}

/** How a part lies in the row: what is marked on it, or which side was up. */
export const ORIENTATIONS: Partial<Record<PartKind, string[]>> = {
  gear: ['teeth up', 'teeth down'],
  bearing: ['letters up', 'letters down', 'cup side up'],
  needle: ['ink: this gear, arrow up', 'ink: this gear, arrow down', 'not marked'],
  cup: ['tapered side up', 'tapered side down', 'letters outward', 'letters inward'],
  seal: ['spring side up', 'spring side down'],
  shaft: ['flat of the spline up', 'marked at the spline'],
  washer: ['worn side up', 'worn side down', 'chamfer up', 'chamfer down'],
  shim: ['bagged with its place'],
  clutch: ['long end forward', 'long end aft'],
  hub: ['taper forward', 'taper aft'],
}

/** Kinds that are new at every opening, however young they are. */
export const ALWAYS_NEW: PartKind[] = ['seal', 'ring']

/** Kinds that end up inside the case unless a sheet says otherwise. */
export const INSIDE: readonly PartKind[] = [
  'gear',
  'shaft',
  'bearing',
  'needle',
  'cup',
  'shim',
  'washer',
  'key',
  'clutch',
]

/** Parts that come off; the body is what they come off of. */
export const comesOff = (p: Part) => p.role !== 'body'

/** Parts that somebody has to look at: what seals is new anyhow, where the shop does it so. */
export function needsGrade(p: Part, sealsAllNew: boolean): boolean {
  return !(sealsAllNew && ALWAYS_NEW.includes(p.kind))
}

/** Parts that still keep a part from coming out. */
export function heldBy(parts: readonly Part[], id: string, off: ReadonlySet<string>): Part[] {
  const part = parts.find((p) => p.id === id)
  return (part?.after ?? []).filter((a) => !off.has(a)).map((a) => parts.find((p) => p.id === a)!)
}

/** All parts that share a set with this one, itself included. */
export function setOf(parts: readonly Part[], id: string): Part[] {
  const part = parts.find((p) => p.id === id)
  if (!part) return []
  return part.set === undefined ? [part] : parts.filter((p) => p.set === part.set)
}
