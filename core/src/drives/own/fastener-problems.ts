import type { FieldProblem } from '../../checks/input-error.ts'
import type { Fastener } from '../fasteners.ts'

/** What is wrong with one group of fasteners. */
export function fastenerProblems(f: Fastener, at: string): FieldProblem[] {
  const problems: FieldProblem[] = []
  const say = (field: string, message: string) => problems.push({ path: `${at}.${field}`, message })
  if (!(Number.isInteger(f.count) && f.count >= 1))
    say('count', `is ${f.count}; a group has at least one fastener`)
  const { min, max } = f.torqueNm ?? {}
  if (min !== undefined && max !== undefined && min > max)
    say('torqueNm', `is upside down: smallest ${min} Nm, largest ${max} Nm; swap the two`)
  if (f.stages?.some((s, i) => !(s > 0 && s < 1) || s <= (f.stages![i - 1] ?? 0)))
    say('stages', 'rise from one to the next, each a part of the last torque: 0.5 is half')
  if (f.tabs !== undefined && f.lock !== 'tab-washer') say('tabs', 'belong to a tab washer')
  return problems
}
