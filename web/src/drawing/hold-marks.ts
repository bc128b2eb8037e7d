import type { Axis, BacklashMeasure, DriveSheet, Gear } from '@moray/core/drives/sheet'
import { gearProfile, onAxis, type Point } from './section.ts'

/** One sign on the section that says what a hand or a fixture does while backlash is read. Points in mm, as the section is drawn. */
export type HoldMark =
  | { kind: 'held'; at: Point }
  | { kind: 'load'; from: Point; to: Point }
  | { kind: 'rocked'; at: Point; across: Point }
  | { kind: 'dial'; axis: Point; at: Point; radiusMm: number }

/** How long the arrow of a load is, how far inside its end a shaft is rocked, and how wide the arrow of that is. mm */
const LOAD_MM = 26
const INSIDE_MM = 24
const ROCK_MM = 16
/** The indicator stands so far inside the end of the shaft that it is seen, mm. */
const EDGE_MM = 6

/**
 * What is held, what is rocked and where the indicator stands while this backlash is read; and which way the held gear is pushed, where the sheet says
 * that it is loaded onto its own bearing: outward, away from its mesh.
 */
export function holdMarks(sheet: DriveSheet, measure: BacklashMeasure): HoldMark[] {
  const mesh = sheet.meshes.find((m) => m.id === measure.mesh)
  if (!mesh) return []
  const gearOf = (id: string) => sheet.gears.find((g) => g.id === id)!
  const axisOf = (g: Gear) => sheet.axes.find((a) => a.id === g.axis)!
  const rocked = axisOf(gearOf(measure.member === 'pinion' ? mesh.pinion : mesh.gear))
  const other = measure.member === 'pinion' ? ('gear' as const) : ('pinion' as const)
  const held = gearOf(mesh[other])
  const { hubBack, teeth } = gearProfile(mesh.mesh, other, axisOf(held).radiusMm)
  const rim = Math.max(...teeth.map(([, r]) => r))
  const on = onAxis(axisOf(held))
  const along = held.side * hubBack
  const end = farEnd(rocked) - Math.sign(farEnd(rocked)) * EDGE_MM
  const at = end - Math.sign(end) * INSIDE_MM
  const onRocked = onAxis(rocked)
  return [
    { kind: 'held', at: on(along, -rim * 0.8) },
    ...(measure.load === 'outward'
      ? [
          {
            kind: 'load' as const,
            from: on(along, rim * 0.45),
            to: on(along + held.side * LOAD_MM, rim * 0.45),
          },
        ]
      : []),
    { kind: 'rocked', at: onRocked(at, 0), across: onRocked(at, ROCK_MM) },
    {
      kind: 'dial',
      axis: onRocked(end, 0),
      at: onRocked(end, -measure.radiusMm),
      radiusMm: measure.radiusMm,
    },
  ]
}

/** The end of a shaft that is out of the case: the one farther from where the axes cross. */
const farEnd = ({ fromMm, toMm }: Axis): number => (Math.abs(toMm) >= Math.abs(fromMm) ? toMm : fromMm)
