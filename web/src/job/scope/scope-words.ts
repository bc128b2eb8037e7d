import type { DriveSheet } from '@moray/core/drives/sheet'
import { settingMeasures } from '@moray/core/setting/measures'
import type { Plan, Renewed } from '@moray/core/route/plan'

/** Why a part is new. */
export const RENEWED: Record<Renewed['why'], string> = {
  wanted: 'what the job is for',
  disturbed: 'disturbed on the way',
  opening: 'reached: everything that seals is new',
  once: 'serves only once',
  pressed: 'pressed on what is scrapped; pressed off and graded good, it stays',
  holds: 'holds a clutch that is new, or is sold with it',
  set: 'sold together with it',
  condemned: 'condemned',
  school: 'the way of this shop',
}

/** Settings by name: measures by their label, bearings by theirs. */
export function settingNames(sheet: DriveSheet, ids: readonly string[]): string[] {
  return ids.map((id) =>
    id.startsWith('bearing:')
      ? (sheet.bearings.find((b) => `bearing:${b.id}` === id)?.label ?? id)
      : (settingMeasures(sheet).find((m) => m.id === id)?.label ?? id),
  )
}

/** What has to be proved, in words. */
export function proofWords({ prove, scope }: Plan): string {
  if (!prove.length) return 'No joint that holds oil is opened: nothing to prove tight.'
  if (scope.mode === 'test') return 'Tight or not is what the job is for.'
  return prove.includes('joined')
    ? 'The case by itself, then both halves joined, before any filling.'
    : 'The case, before any filling.'
}

/** What each place of the drawing comes to: wanted, new, or only off. */
export function placeMarks(plan: Plan, targets: readonly string[]): Record<string, PlaceMark> {
  const marks: Record<string, PlaceMark> = {}
  const isNew = new Set(plan.renew.map((r) => r.part))
  for (const p of plan.off) {
    if (!p.place) continue
    const mark: PlaceMark = targets.includes(p.id) ? 'wanted' : isNew.has(p.id) ? 'new' : 'off'
    const before = marks[p.place]
    if (!before || RANK[mark] > RANK[before]) marks[p.place] = mark
  }
  return marks
}
export type PlaceMark = 'off' | 'new' | 'wanted'
const RANK: Record<PlaceMark, number> = { off: 0, new: 1, wanted: 2 }
