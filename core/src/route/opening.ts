import { labourOf } from '../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { comesOff } from '../drives/parts.ts'
import { isCarrier } from '../drives/sheet.ts'
import { reach } from './reach.ts'

/** What it takes to get at some stacks and close again for the next reading. */
export interface Opening {
  /** Parts that come off, in order, by id. */
  parts: string[]
  /** By the sheet's hours for opening and closing, in the share of parts that come off; 0 where nothing does. */
  minutes: number
}

/**
 * What opening for these stacks costs: all that stands before their shims comes off and goes on again. The sheet's hours for opening and closing are
 * shared alike among the parts that come off at all; a carrier is turned from outside and opens nothing.
 * @param stacks ids of adjusters
 * @throws InputError where parts of the sheet wait for one another
 */
export function openingFor(sheet: DriveSheet, stacks: readonly string[]): Opening {
  const turned = new Set(sheet.adjusters.filter(isCarrier).map((a) => a.id))
  const places = new Set(stacks.filter((s) => !turned.has(s)).map((s) => `stack:${s}`))
  const loose = sheet.parts.filter(comesOff)
  const targets = loose.filter((p) => p.place !== undefined && places.has(p.place)).map((p) => p.id)
  if (!targets.length) return { parts: [], minutes: 0 }
  const { order } = reach({
    parts: loose.map((p) => ({ id: p.id, after: p.after })),
    targets,
  })
  const { openHours, closeHours } = labourOf(sheet.graph)
  return { parts: order, minutes: (60 * (openHours + closeHours) * order.length) / loose.length }
}
