import type { JobDetail, TrayPart } from '@moray/contract/replies'
import { comesOff, heldBy, type Part } from '@moray/core/drives/parts'

export interface StillIn {
  part: Part
  /** Parts that must be off before it can come out. */
  held: Part[]
}

/** Parts that are still in the case, those that can come out first. */
export function stillIn(job: JobDetail): StillIn[] {
  const off = new Set(job.work.tray.flatMap((t) => t.part ?? []))
  return job.sheet.parts
    .filter((p) => comesOff(p) && !off.has(p.id))
    .map((part) => ({ part, held: heldBy(job.sheet.parts, part.id, off) }))
    .sort((a, b) => Number(a.held.length > 0) - Number(b.held.length > 0))
}

/** The part that a scanned code or a typed name means: its id, its whole name, or the only one that begins so. */
export function partMeant(parts: readonly Part[], text: string): Part | undefined {
  const wanted = text.trim().toLowerCase()
  if (!wanted) return undefined
  const exact = parts.find((p) => p.id === wanted || p.name.toLowerCase() === wanted)
  if (exact) return exact
  const near = parts.filter((p) => p.name.toLowerCase().includes(wanted))
  return near.length === 1 ? near[0] : undefined
}

/** Built back in the order in which it came off, from the end. */
export const buildBack = (tray: readonly TrayPart[]): TrayPart[] => [...tray].reverse()

export const lies = (t: TrayPart) => !t.fitted && t.leftOut === null

/** Parts that lie on the bench and belong inside: shouted once the case is to be closed. */
export function leftOnBench(job: JobDetail): TrayPart[] {
  const inside = new Set(job.sheet.parts.filter((p) => p.inside).map((p) => p.id))
  return job.work.tray.filter((t) => lies(t) && (t.part === null || inside.has(t.part)))
}
