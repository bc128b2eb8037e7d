import { edgesOf } from '../../drives/graph/edges.ts'
import type { Group } from '../../drives/graph/rows.ts'
import { bigRing } from '../../drives/graph/bench-facts-of.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import type { Condition } from '../facts.ts'
import { number, say } from '../make.ts'
import type { Ask, Instruct } from '../route.ts'
import { windowIn } from './close.ts'
import { does } from './rebuild.ts'

/** Where a group is tightened: with the rest of its case, where two cases are joined, or once the oil is in. */
type Place = 'case' | 'joins' | 'ports'

/** Groups of a drive by the step that tightens them; the big ring and propeller nuts have steps of their own. */
function groupsAt({ graph }: DriveSheet, place: Place): Group[] {
  const ring = bigRing(graph)?.id
  const propellers = new Set((graph.propellers ?? []).flatMap((p) => edgesOf(p.heldBy)))
  const joins = new Set((graph.interfaces ?? []).flatMap((i) => edgesOf(i.closedBy)))
  return (graph.groups ?? []).filter((g) => {
    if (g.id === ring || propellers.has(g.id)) return false
    return place === (g.port ? 'ports' : joins.has(g.id) ? 'joins' : 'case')
  })
}

/** One entry for each group that this job tightens and whose torque the sheet gives. */
export const groupTorques = (sheet: DriveSheet, place: Place): Ask[] =>
  groupsAt(sheet, place).flatMap((g): Ask[] => {
    const { torqueNm: window } = g
    if (!window) return []
    const fact = `torque.${g.id}`
    const range = windowIn(window, g.torqueUnit)
    const must: Condition[] = [
      ...(window.min === undefined ? [] : [{ fact, atLeast: window.min }]),
      ...(window.max === undefined ? [] : [{ fact, atMost: window.max }]),
    ]
    return [
      {
        ...number(fact, `${g.name}: tightened to (${range})`, 'Nm', {
          quantity: 'torque',
          max: 2000,
          when: does(`tighten.${g.id}`),
        }),
        must: { all: must },
        wrong: `Outside ${range}, which the sheet gives for this place. Slacken it and tighten it again.`,
      },
    ]
  })

/** Groups without a figure are tightened by feel, and that is said. */
export const byFeel = (sheet: DriveSheet, place: Place): Instruct[] =>
  groupsAt(sheet, place).flatMap((g) =>
    g.torqueNm || g.assumed
      ? []
      : [say(`${g.name}: the sheet has no torque; by feel, evenly.`, undefined, does(`tighten.${g.id}`))],
  )
