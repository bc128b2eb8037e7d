import type { Topic } from '../../assembly/act.ts'
import type { Goal } from '../../assembly/goal.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import type { Approval } from '../record.ts'
import { goalOfScope, since } from '../../route/goal.ts'
import type { Plan } from '../../route/plan.ts'
import { repairPlan, type Repair } from '../../route/repair.ts'

/** What a job is to come to, by its plan. */
export const goalOf = (sheet: DriveSheet, plan: Plan): Goal =>
  goalOfScope(sheet, plan.scope, {
    off: plan.off.map((p) => p.id),
    renew: plan.renew.map((r) => r.part),
    sets: plan.disturbed,
    drains: plan.drains,
  })

/** The same once the owner has decided, on a drive in which something unsafe was found or not. Another unit is looked over, proved and fitted as it is; what is stopped stays as it lies. */
export function afterWord(
  goal: Goal,
  { sheet, plan }: { sheet: DriveSheet; plan: Plan },
  { choice, ends, isSafe, n }: Pick<Approval, 'choice' | 'ends'> & { isSafe: boolean; n: number },
): Goal {
  if (choice === 'rebuild') return goal
  // after a strike only the propeller is off: it goes back on, unless the drive may not run any more
  if (choice === 'stop')
    return plan.scope.mode === 'strike' && isSafe && (ends ?? 'boat') === 'boat'
      ? goal
      : { ...goal, closes: false, mends: false, end: ends && ends !== 'boat' ? ends : 'as-it-is' }
  const know: Topic[] = ['runs', ...(sheet.meshes.length ? (['ratio'] as const) : [])]
  return {
    off: new Map(),
    renew: new Map(),
    set: new Map(),
    apart: false,
    empties: false,
    know: since(know, n),
    closes: true,
    mends: true,
    end: 'boat',
    endsAfter: n,
  }
}

/** The same with a place that is opened again, or one that has to be found first: counted from here, whatever was done before. */
export function withRepair(goal: Goal, sheet: DriveSheet, repair: Repair, n: number): Goal {
  // nothing is opened before the place is known; what is found there is mended
  if (!repair.targets.length)
    return { ...goal, know: new Map([...goal.know, ['place', n]]), mends: true, closes: true, endsAfter: n }
  const plan = repairPlan(sheet, repair)
  const more = <T>(before: ReadonlyMap<T, number>, of: readonly T[]) => new Map([...before, ...since(of, n)])
  return {
    ...goal,
    off: more(
      goal.off,
      plan.off.map((p) => p.id),
    ),
    renew: more(
      goal.renew,
      plan.renew.map((r) => r.part),
    ),
    know: more(goal.know, goal.know.has('runs') ? (['runs'] as const) : []),
    endsAfter: n,
  }
}
