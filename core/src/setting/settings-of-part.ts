import type { Part } from '../drives/parts.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { Adjuster, DriveSheet } from '../drives/sheet.ts'
import { derivedMeasures } from './measures.ts'

/**
 * Settings that a part carries or sets: a gear its own measures; a stack those of the gear it moves, or the bearing that it sets; a
 * bearing its preload and the gear that it locates; what covers a loose stack, that stack's; a washer or spacer what the part before it sets.
 */
export const settingsOf = (sheet: DriveSheet, part: Part): string[] => settingsByPart(sheet)(part)

const settingsByPart = perSheet((sheet) => {
  const known = new Map<Part, string[]>()
  return (part: Part) => {
    let kept = known.get(part)
    if (!kept) known.set(part, (kept = findSettings(sheet, part)))
    return kept
  }
})

function findSettings(sheet: DriveSheet, part: Part): string[] {
  const own = placeSettings(sheet, part.place)
  const stacksUnder = sheet.parts.filter(
    (p) => p.kind === 'shim' && p.after.includes(part.id) && (part.kind === 'housing' || part.kind === 'cup'),
  )
  const carried = stacksUnder.flatMap((p) => placeSettings(sheet, p.place))
  const beside =
    part.kind === 'washer' && part.place === undefined
      ? [
          ...part.after.flatMap((a) => placeSettings(sheet, sheet.parts.find((p) => p.id === a)?.place)),
          ...sheet.measures.filter((m) => m.kind === 'end-play').map((m) => m.id),
        ]
      : []
  return [...new Set([...own, ...carried, ...beside])]
}

function placeSettings(sheet: DriveSheet, place: string | undefined): string[] {
  const [kind, id] = place?.split(':') ?? []
  if (kind === 'gear') return measuresOfGear(sheet, id!)
  if (kind === 'stack') {
    const a = sheet.adjusters.find((x) => x.id === id)
    return a ? adjusterSettings(sheet, a) : []
  }
  if (kind !== 'bearing') return []
  const b = sheet.bearings.find((x) => x.id === id)
  if (!b || b.kind === 'needle') return []
  const onAxis = sheet.gears.filter((g) => g.axis === b.axis)
  const near = onAxis.filter((g) => g.side === Math.sign(b.atMm))
  return [
    ...(b.setting ? [`bearing:${b.id}`] : []),
    ...(near.length ? near : onAxis).flatMap((g) => measuresOfGear(sheet, g.id)),
    ...sheet.measures.filter((m) => m.kind === 'end-play' && m.axis === b.axis).map((m) => m.id),
  ]
}

function adjusterSettings(sheet: DriveSheet, a: Adjuster): string[] {
  return [
    ...derivedMeasures(sheet).flatMap((m) => (m.by === a.id ? [m.id] : [])),
    ...(a.moves ? measuresOfGear(sheet, a.moves) : []),
    // a stack that moves no gear and sets no bearing sets the end play of its shaft
    ...(a.moves || a.setBy === 'preload'
      ? []
      : sheet.measures.filter((m) => m.kind === 'end-play' && m.axis === a.axis).map((m) => m.id)),
  ]
}

function measuresOfGear(sheet: DriveSheet, gear: string): string[] {
  const meshes = new Set(sheet.meshes.filter((m) => m.pinion === gear || m.gear === gear).map((m) => m.id))
  return sheet.measures
    .filter((m) => (m.kind === 'depth' ? m.gear === gear : m.kind === 'backlash' && meshes.has(m.mesh)))
    .map((m) => m.id)
}
