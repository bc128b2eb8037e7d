import type { Window } from '../../checks/window.ts'
import type { BodyMeasure, SheetBody } from './body.ts'

/**
 * Manuals that measure depth by a block and feelers print the limits of the feeler as often as those of the depth. Where a typed window can only be the
 * feeler's, the window of the depth that it means: the depth is off its nominal by what the feeler is off the nominal clearance.
 * @returns undefined where it is a depth, or what would tell is not typed yet
 */
export function depthMeantByFeeler(m: BodyMeasure): Window | undefined {
  if (m.kind !== 'depth' || m.how?.method !== 'feeler-block' || !m.window) return undefined
  const { nominalClearanceMm, nominalDepthMm } = m.how
  if (typeof nominalClearanceMm !== 'number' || typeof nominalDepthMm !== 'number') return undefined
  const ends = Object.entries(m.window).filter((e): e is [string, number] => typeof e[1] === 'number')
  const isFeeler = (v: number) => Math.abs(v - nominalClearanceMm) < Math.abs(v - nominalDepthMm)
  if (!ends.length || !ends.every(([, v]) => isFeeler(v))) return undefined
  return Object.fromEntries(ends.map(([side, v]) => [side, v - nominalClearanceMm + nominalDepthMm]))
}

/** The same for a figure of the sheet, by its path; undefined for every other figure. */
export function meantByFeeler(body: SheetBody, path: string): Window | undefined {
  const measure = body.measures.find((m) => path === `measures.${m.id}.window`)
  return measure && depthMeantByFeeler(measure)
}
