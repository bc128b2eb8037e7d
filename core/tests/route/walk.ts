import type { DriveSheet } from '../../src/drives/sheet.ts'
import { completeStep, type Answers } from '../../src/route/complete.ts'
import type { Facts } from '../../src/route/facts.ts'
import { deriveFacts } from '../../src/route/job-facts.ts'
import { withLists } from '../../src/route/lists.ts'
import { planOf, type PlanWays } from '../../src/route/plan.ts'
import { plannedFacts } from './planned-facts.ts'
import { progressOf } from '../../src/route/progress.ts'
import { routeOf } from '../../src/route/route-of.ts'
import type { ApprovalChoice } from '../../src/job/record.ts'
import { schools } from '../../src/route/schools.ts'
import { fullScope, type Scope } from '../../src/route/scope.ts'
import { carefulAnswers } from '../../src/simulation/careful-hand.ts'
import { virtualCase } from '../../src/simulation/virtual-case.ts'
import { random } from '../refused.ts'

/** What the other pages of a job say once everything there is done. */
export const ELSEWHERE: Facts = {
  ...Object.fromEntries(schools.map((s) => [`school.${s.id}`, s.usual])),
  'job.water': 'salt',
  'setting.stacks-known': true,
  'setting.accepted': true,
  'setting.all-in': true,
  'setting.stack.cover': 0.5,
  'setting.stack.top': 0.5,
  'row.missing': 0,
  'row.inside-left': 0,
  'row.propeller-on': 0,
  'row.left': 0,
  'grades.open': 0,
  'faults.seen': 2,
  'waited.seals': 3,
  'open-items.left': 0,
  'orders.count': 2,
}

/** What a job of this scope knows, before its first step. */
export function startOf(
  sheet: DriveSheet,
  scope: Scope = fullScope(sheet),
  ways: PlanWays = {},
  choice: ApprovalChoice = ['look', 'strike'].includes(scope.mode) ? 'stop' : 'rebuild',
): Facts {
  const decides = ['look', 'strike', 'rebuild'].includes(scope.mode)
  return {
    ...ELSEWHERE,
    ...plannedFacts(sheet, planOf(sheet, scope, ways), choice),
    ...(decides ? { 'estimate.choice': choice } : {}),
  }
}

export const routeAt = (sheet: DriveSheet, facts: Facts) =>
  withLists(routeOf(sheet), facts, { orders: ['Seal kit', 'Pinion'] })

export interface Walked {
  facts: Facts
  done: Set<string>
  order: string[]
  /** Answers given; what was set on a wrench is counted apart. */
  answers: number
}

/** Walks a route with a careful hand; `meddle` may spoil the answers of a step before they go in. */
export function walk(
  sheet: DriveSheet,
  start: Facts = startOf(sheet),
  meddle: (step: string, answers: Answers, facts: Facts, done: ReadonlySet<string>) => void = () => {},
  seed = 11,
): Walked {
  const r = random(seed)
  const hand = { gearcase: virtualCase(sheet, r), random: r }
  const derive = (f: Facts) => deriveFacts(sheet, f)
  const done = new Set<string>()
  const order: string[] = []
  let facts = derive(start)
  let answers = 0
  for (;;) {
    const route = routeAt(sheet, facts)
    const { due } = progressOf(route, facts, done)
    if (!due) return { facts, done, order, answers }
    const given = carefulAnswers(hand, due.step, facts)
    meddle(due.step.id, given, facts, done)
    const closed = completeStep(route, facts, done, due.step.id, given, { derive })
    if (closed.attempt.length) throw new Error(`${due.step.id}: ${closed.attempt.join(' ')}`)
    facts = derive({ ...facts, ...closed.answers })
    answers += Object.keys(given).filter((fact) => !fact.startsWith('torque.')).length
    done.add(due.step.id)
    order.push(due.step.id)
  }
}
