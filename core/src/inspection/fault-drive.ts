import { caseTest, drainScrew, joinedTest, lubricantOf, propellerHeld } from '../drives/graph/unit-facts.ts'
import { FRICTION, INPUT_JOINT } from '../drives/families.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import type { Trait } from './fault-table.ts'

/** What a drive has, as far as a fault can lie in it: read off its rows. */
export function traitsOf(sheet: DriveSheet): Trait[] {
  const { graph, family } = sheet
  const has = (kind: string) => sheet.parts.some((p) => p.kind === kind)
  const is: Record<Trait, boolean> = {
    propeller: !!propellerHeld(graph) || (graph.propellers?.length ?? 0) > 0,
    shift: graph.unit?.shifts === true,
    'dog-clutch': has('clutch') && !FRICTION.has(family),
    'friction-clutch': has('clutch') && FRICTION.has(family),
    driveshaft: sheet.axes.some((a) => a.line === 'vertical'),
    carrier: sheet.parts.some((p) => p.role === 'carrier'),
    oil: lubricantOf(graph) === 'oil',
    'drain-screw': drainScrew(graph) !== undefined,
    gears: sheet.meshes.length > 0,
    preload: sheet.bearings.some((b) => b.setting !== undefined),
    'input-joint': INPUT_JOINT.has(family),
    pump: has('pump'),
    telltale: graph.unit?.telltale === true,
    belt: (sheet.belts?.length ?? 0) > 0,
    test: caseTest(graph) !== null || joinedTest(graph) !== null,
  }
  return (Object.keys(is) as Trait[]).filter((t) => is[t])
}
