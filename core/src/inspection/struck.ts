import { shaftOnAxis } from '../drives/on-axis.ts'
import type { Part } from '../drives/parts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import type { FactValue } from '../route/facts.ts'
import { deriveFacts } from '../route/job-facts.ts'
import { inWords } from '../units/format.ts'

/** What a blow has done to one part. */
export interface Struck {
  part: Part
  /** As a code of the acts. */
  why: 'bent' | 'cracked'
  /** What was read or seen, in words. */
  reason: string
}

/**
 * What the answers of the strike step say of the drive: shafts whose runout is past a limit, and a cracked case. Neither goes back on a boat.
 * @returns the parts, and the axes of bent shafts that no part of the sheet stands for
 */
export function struckBy(
  sheet: DriveSheet,
  answers: Readonly<Record<string, FactValue>>,
): { parts: Struck[]; axes: string[] } {
  const facts = deriveFacts(sheet, answers)
  const parts: Struck[] = []
  const axes: string[] = []
  for (const { id } of sheet.axes) {
    if (facts[`strike.${id}.verdict`] !== 'bent') continue
    const part = shaftOnAxis(sheet, id)
    if (part) parts.push({ part, why: 'bent', reason: bentAt(sheet, id, facts) })
    else axes.push(id)
  }
  const body = sheet.parts.find((p) => p.role === 'body')
  if (answers['strike.case'] === 'cracked' && body)
    parts.push({ part: body, why: 'cracked', reason: 'cracked by the blow' })
  return { parts, axes }
}

/** The zones that are past their limit, with what was read there. */
function bentAt(sheet: DriveSheet, axis: string, facts: Readonly<Record<string, FactValue>>): string {
  const past = sheet.runoutLimits.flatMap((l, i) => {
    const read = facts[`strike.${axis}.z${i}`]
    return typeof read === 'number' && read > l.tirMm
      ? [`${inWords(read, 'mm')} at ${l.zone.toLowerCase()}, limit ${inWords(l.tirMm, 'mm')}`]
      : []
  })
  return `bent: ${past.join('; ') || 'past its limit'}`
}
