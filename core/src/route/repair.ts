import type { DriveSheet } from '../drives/sheet.ts'
import { planOf, type Plan } from './plan.ts'

/** A repair after closing: one place opened again. Numbered; what was done before stays. */
export interface Repair {
  number: number
  why: RepairWhy
  /** Parts that are reached again; none where the place of a leak has to be found first. */
  targets: string[]
  /** What was seen, in the technician's words. */
  note: string
}

export const REPAIR_REASONS = {
  leak: 'a leak',
  setting: 'a setting that went wrong',
  noise: 'a noise or a bind',
  other: 'something else',
} as const
export type RepairWhy = keyof typeof REPAIR_REASONS

/** What a repair reaches: its own little plan. */
export const repairPlan = (sheet: DriveSheet, { targets }: Pick<Repair, 'targets'>): Plan =>
  planOf(sheet, { usual: 'own', mode: 'rebuild', targets, mounted: true })

/** A step that a repair had in an older Moray, and what it did; undefined for every other step. */
export function oldRepairStep(step: string): { number: number; act: 'open' | 'renew' | 'close' } | undefined {
  const [, number, act] = /^loop-(\d+)-(open|renew|close)$/.exec(step) ?? []
  return act === undefined ? undefined : { number: Number(number), act: act as 'open' | 'renew' | 'close' }
}
