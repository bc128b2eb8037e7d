import { edgesOf } from '../../drives/graph/edges.ts'
import type { Group } from '../../drives/graph/rows.ts'
import { bigRing } from '../../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import type { Condition } from '../facts.ts'
import type { Window } from '../../checks/window.ts'
import { plainDigits, showOther, smallerUnit } from '../../units/format.ts'
import type { TorqueUnit } from '../../units/torque-unit.ts'
import { number, pick, say } from '../make.ts'
import type { Ask, Figure, Instruct } from '../route.ts'
import { does } from './rebuild.ts'

/** A torque window in both unit systems: `190 to 230 Nm (140.1 to 169.6 ft-lb)`. */
function windowIn({ min = 0, max }: Window, printed?: TorqueUnit): string {
  // both ends in one unit: that of the manual, or what the larger one is read best in
  const unit = printed === 'Nm' || printed === undefined ? smallerUnit(max ?? min) : printed
  const other = (v: number) => showOther(v, 'Nm', unit)
  return max === undefined
    ? `from ${plainDigits(min)} Nm (${other(min)})`
    : `${plainDigits(min)} to ${plainDigits(max)} Nm (${other(min).replace(/ .*/, '')} to ${other(max)})`
}

/** What the wrench has to be set to, and what arrives. */
export const wrenchFigures = (at: string): Figure[] => [
  { label: 'Set the wrench from', fact: `${at}.set-from`, unit: 'Nm' },
  { label: 'to', fact: `${at}.set-to`, unit: 'Nm' },
  { label: 'At the fastener then', fact: `${at}.applied`, unit: 'Nm' },
]

/** A torque that may have gone through an adapter. */
export function torqueAsks(at: string, what: string, window: Window, printed?: TorqueUnit): Ask[] {
  const range = windowIn(window, printed)
  return [
    pick(`${at}.adapter`, 'Through an adapter', {
      none: 'none',
      square: 'square to the wrench',
      straight: 'straight out',
    }),
    number(`${at}.wrench`, 'Straight adapter: length L, from the drive to the grip', 'mm', {
      quantity: 'length',
      max: 3000,
      optional: true,
    }),
    number(`${at}.offset`, 'Straight adapter: length E, from the drive to the fastener', 'mm', {
      quantity: 'length',
      max: 500,
      optional: true,
    }),
    {
      ...number(`${at}.setting`, `${what}: wrench set to (${range} at the fastener)`, 'Nm', {
        quantity: 'torque',
        max: 2000,
      }),
      must: { fact: `${at}.torque-in`, is: true },
      wrong: `What arrives at the fastener is outside ${range}. A straight adapter lengthens the arm: set the wrench lower, to what is shown above.`,
      slip: 'adapter-plain',
    },
  ]
}

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
