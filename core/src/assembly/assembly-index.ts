import type { DriveSheet } from '../drives/sheet.ts'
import { perSheet } from '../drives/per-sheet.ts'
import { edgesOf } from '../drives/graph/edges.ts'
import { CASE_SPACE, type Group, type Interface, type Joint, type Space } from '../drives/graph/rows.ts'
import type { PartKind } from '../drives/parts.ts'
import { settingMeasures, type SetMeasure } from '../setting/measures.ts'
import { settingsOf } from '../setting/settings-of-part.ts'

/** A part of the drive, or a loose piece of a group, with what leads to and from it. */
export interface IndexPart {
  id: string
  /** Joints that it is a member of, and settings that it carries. */
  joints: string[]
  settings: string[]
  /** The group that it is a piece of. */
  group?: string
  body: boolean
  kind: PartKind
  useOnce: boolean
  /** Pressed on these, or into them: it goes where they go. */
  on: string[]
  /** Lies loose in these. */
  in: string[]
  /** Parts and groups that are off before it can leave. */
  after: string[]
  /** Interfaces that are parted before. */
  interfaces: string[]
  /** Settings that it carries or sets. */
  sets: string[]
}

export interface IndexGroup {
  row: Group
  pieces: string[]
  holds: string[]
  after: string[]
  interfaces: string[]
  /** Joints and interfaces that it closes. */
  closes: string[]
  joins: string[]
  /** Settings that it preloads. */
  preloads: string[]
}

export interface IndexJoint {
  row: Joint
  between: string[]
  sealedBy: string[]
  closedBy: string[]
  behind: string[]
  interfaces: string[]
}

export interface IndexSetting {
  id: string
  carriers: string[]
  stacks: string[]
  preloadedBy: string[]
  /** Cases that it is set in. */
  bodies: string[]
  /** Of bearings that are loaded against each other; a play or a depth is none. */
  preload: boolean
  /** It is read with the driveshaft free, so not while the unit hangs on the boat. */
  offTheBoat: boolean
  /** It can be read on the closed case. A depth cannot, nor what is read with the gears out of mesh. */
  asItStands: boolean
}

/** What a sheet's graph comes to, worked out once for each version. */
export interface AssemblyIndex {
  parts: ReadonlyMap<string, IndexPart>
  groups: ReadonlyMap<string, IndexGroup>
  joints: ReadonlyMap<string, IndexJoint>
  interfaces: ReadonlyMap<string, Interface>
  spaces: ReadonlyMap<string, Space>
  settings: ReadonlyMap<string, IndexSetting>
  /** Parts that come along with a part: all that lies in it or sits on it, and what lies in those. */
  lots: ReadonlyMap<string, readonly string[]>
  /** There is something to shift. */
  shifts: boolean
  /** Groups that hold a propeller. */
  propellers: ReadonlySet<string>
  /** Parts that something is pressed on or into. */
  hosts: ReadonlySet<string>
  /** Parts that carry the shafts that leave the case. */
  carriers: ReadonlySet<string>
  /** Groups that hold a part. */
  holders: ReadonlyMap<string, readonly string[]>
}

export const assemblyIndex = perSheet((sheet: DriveSheet): AssemblyIndex => {
  const { graph } = sheet
  const joints = new Map(
    (graph.joints ?? []).map((row): [string, IndexJoint] => [
      row.id,
      {
        row,
        between: edgesOf(row.between),
        sealedBy: edgesOf(row.sealedBy),
        closedBy: edgesOf(row.closedBy),
        behind: row.behind ? edgesOf(row.behind) : row.interfaces ? [] : [CASE_SPACE],
        interfaces: edgesOf(row.interfaces),
      },
    ]),
  )
  const settings = settingsIn(sheet)
  const interfaces = new Map((graph.interfaces ?? []).map((i) => [i.id, i] as const))
  const groups = new Map(
    (graph.groups ?? []).map((row): [string, IndexGroup] => [
      row.id,
      {
        row,
        pieces: (row.pieces ?? []).map((p) => p.id),
        holds: edgesOf(row.holds),
        after: edgesOf(row.after),
        interfaces: edgesOf(row.interfaces),
        closes: [...joints].flatMap(([id, j]) => (j.closedBy.includes(row.id) ? [id] : [])),
        joins: [...interfaces].flatMap(([id, i]) => (edgesOf(i.closedBy).includes(row.id) ? [id] : [])),
        preloads: [...settings.values()].flatMap((s) => (s.preloadedBy.includes(row.id) ? [s.id] : [])),
      },
    ]),
  )
  const parts = partsIn(sheet)
  for (const [id, j] of joints)
    for (const m of new Set([...j.between, ...j.sealedBy])) parts.get(m)?.joints.push(id)
  for (const s of settings.values()) for (const c of s.carriers) parts.get(c)?.settings.push(s.id)
  const holders = new Map<string, string[]>()
  for (const [id, g] of groups) for (const p of g.holds) holders.set(p, [...(holders.get(p) ?? []), id])
  return {
    parts,
    groups,
    joints,
    interfaces,
    spaces: new Map((graph.spaces ?? []).map((s) => [s.id, s] as const)),
    settings,
    lots: new Map([...parts.keys()].map((id) => [id, lotOf(parts, id)] as const)),
    holders,
    shifts: graph.unit?.shifts ?? false,
    hosts: new Set([...parts.values()].flatMap((p) => p.on)),
    carriers: new Set(graph.parts.flatMap((p) => (p.role === 'carrier' ? [p.id] : []))),
    propellers: new Set(
      (graph.propellers ?? []).flatMap((p) => edgesOf(p.heldBy).filter((g) => groups.has(g))),
    ),
  }
})

function partsIn(sheet: DriveSheet): Map<string, IndexPart> {
  const { graph } = sheet
  const shown = new Map(sheet.parts.map((p) => [p.id, p] as const))
  const rows = graph.parts.map((p): IndexPart => ({
    id: p.id,
    joints: [],
    settings: [],
    body: p.role === 'body',
    kind: p.kind,
    useOnce: p.kind === 'seal' || p.kind === 'ring',
    on: edgesOf(p.on),
    in: edgesOf(p.in),
    after: edgesOf(p.after),
    interfaces: edgesOf(p.interfaces),
    sets: settingsOf(sheet, shown.get(p.id)!),
  }))
  const pieces = (graph.groups ?? []).flatMap((g) =>
    (g.pieces ?? []).map((p): IndexPart => ({
      id: p.id,
      joints: [],
      settings: [],
      group: g.id,
      body: false,
      kind: p.kind ?? 'nut',
      useOnce: p.useOnce ?? g.useOnce ?? false,
      on: [],
      in: [],
      after: [],
      interfaces: [],
      sets: shown.has(p.id) ? settingsOf(sheet, shown.get(p.id)!) : [],
    })),
  )
  return new Map([...rows, ...pieces].map((p) => [p.id, p] as const))
}

function lotOf(parts: ReadonlyMap<string, IndexPart>, id: string): string[] {
  const found = new Set<string>()
  const add = (host: string) => {
    for (const p of parts.values())
      if (!found.has(p.id) && p.id !== id && (p.on.includes(host) || p.in.includes(host))) {
        found.add(p.id)
        add(p.id)
      }
  }
  add(id)
  return [...found]
}

/** What is set on the drive, with what carries it: the parts at its gears, bearings and stacks, unless the sheet says otherwise. */
function settingsIn(sheet: DriveSheet): Map<string, IndexSetting> {
  return new Map(
    settingMeasures(sheet).map((m): [string, IndexSetting] => {
      const row = sheet.graph.settings?.find((s) => s.id === m.id)
      const derived = sheet.parts.filter((p) => settingsOf(sheet, p).includes(m.id)).map((p) => p.id)
      const { carriedBy, preloadedBy, through } = row ?? {}
      return [
        m.id,
        {
          id: m.id,
          carriers: [...new Set([...(carriedBy ? edgesOf(carriedBy) : derived), ...edgesOf(through)])],
          stacks: stacksOf(sheet, m),
          preloadedBy: edgesOf(preloadedBy),
          bodies: sheet.parts.flatMap((p) => (p.role === 'body' ? [p.id] : [])),
          preload: m.kind === 'rolling-torque',
          asItStands:
            (m.kind === 'backlash' || m.kind === 'end-play') &&
            !(row?.readWhen ?? []).includes('out-of-mesh'),
          offTheBoat: (row?.readWhen ?? []).some((w) => w === 'driveshaft-free' || w === 'driveshaft-up'),
        },
      ]
    }),
  )
}

function stacksOf(sheet: DriveSheet, m: SetMeasure): string[] {
  if ('by' in m && m.by !== undefined) return [m.by]
  const gears =
    m.kind === 'backlash'
      ? sheet.meshes.flatMap((x) => (x.id === m.mesh ? [x.pinion, x.gear] : []))
      : m.kind === 'depth'
        ? [m.gear]
        : []
  return sheet.adjusters.flatMap((a) => (a.moves !== undefined && gears.includes(a.moves) ? [a.id] : []))
}
