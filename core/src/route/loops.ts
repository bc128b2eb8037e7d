import type { DriveStepId, LoopStepId, StepId } from './step-ids.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { neededIf, pick, say, seen, text } from './make.ts'
import { planOf } from './plan.ts'
import type { Route, Step } from './route.ts'

/** A repair after closing: one place opened again, renewed, closed, and proved again. Numbered; what was done before stays. */
export interface RepairLoop {
  number: number
  why: LoopWhy
  /** Parts that are reached again. */
  targets: string[]
  /** What was seen, in the technician's words. */
  note: string
}

export const LOOP_REASONS = {
  leak: 'a leak',
  setting: 'a setting that went wrong',
  noise: 'a noise or a bind',
  other: 'something else',
} as const
export type LoopWhy = keyof typeof LOOP_REASONS

export const loopStep = (number: number, act: 'open' | 'renew' | 'close'): LoopStepId =>
  `loop-${number}-${act}`

/** Which loop a step belongs to, and what it does in it; undefined for every other step. */
export function loopOf(step: string): { number: number; act: 'open' | 'renew' | 'close' } | undefined {
  const [, number, act] = /^loop-(\d+)-(open|renew|close)$/.exec(step) ?? []
  return act === undefined ? undefined : { number: Number(number), act: act as 'open' | 'renew' | 'close' }
}

/** Steps that a loop proves again, and those that set again what it disturbs; each as far as it was done. */
export function undoneBy(sheet: DriveSheet, loop: Pick<RepairLoop, 'targets'>): DriveStepId[] {
  const proofs: DriveStepId[] = [
    'turn-closed',
    'leak-case',
    'leak-joined',
    'first-run',
    'check-set',
    'handover',
  ]
  const sets = loopPlan(sheet, loop).disturbed.length > 0
  return sets ? ['trial-in', 'pattern', 'turn', 'trial-out', ...proofs] : proofs
}

/** What a loop reaches: its own little plan. */
export const loopPlan = (sheet: DriveSheet, { targets }: Pick<RepairLoop, 'targets'>) =>
  planOf(sheet, { usual: 'own', mode: 'rebuild', targets, mounted: true })

/**
 * The route with the repair loops of a job in it: each three steps, in the stage of the tests, and what is proved waits for the last of them.
 */
export function withLoops(route: Route, sheet: DriveSheet, loops: readonly RepairLoop[]): Route {
  if (!loops.length) return route
  const steps = loops.flatMap((l) => loopSteps(sheet, l, route))
  const closes = loops.map((l) => loopStep(l.number, 'close'))
  const at = route.steps.findIndex((s) => s.stage === 'tight')
  const before = at < 0 ? route.steps.length : at
  const proofs: DriveStepId[] = [
    'turn-closed',
    'leak-case',
    'leak-joined',
    'join',
    'first-run',
    'handover',
    'check-set',
  ]
  const proves = new Set<string>(proofs)
  const base = route.steps.map((s) => (proves.has(s.id) ? { ...s, needs: [...s.needs, ...closes] } : s))
  return { ...route, steps: [...base.slice(0, before), ...steps, ...base.slice(before)] }
}

function loopSteps(sheet: DriveSheet, loop: RepairLoop, route: Route): Step[] {
  const { number, why, note } = loop
  const plan = loopPlan(sheet, loop)
  const sets = plan.disturbed.length > 0
  const stage = route.stages.some((s) => s.id === 'tight') ? 'tight' : route.stages.at(-1)!.id
  const step = (id: StepId, needs: StepId[], rest: Pick<Step, 'what' | 'why'> & Partial<Step>): Step => ({
    id,
    stage,
    needs,
    gates: [],
    asks: [],
    tools: [],
    consumables: [],
    ...rest,
  })
  const open = loopStep(number, 'open')
  const renew = loopStep(number, 'renew')
  const close = loopStep(number, 'close')
  const place = plan.off.at(-1)?.place
  return [
    step(open, [], {
      what: `Repair ${number}: open it again for ${LOOP_REASONS[why]}`,
      why: `Seen: ${note}`,
      ...(place ? { place } : {}),
      ...(sets ? { bares: true } : {}),
      caution: 'Pressure out and oil drained before anything is loosened.',
      instruct: [
        say(`Comes off, in this order: ${plan.off.map((p) => p.name).join(', ')}.`),
        ...(sets
          ? [
              say(
                'This disturbs what sets the gears: it is built for measuring, set and read again afterwards.',
              ),
            ]
          : [say('Nothing that sets the gears comes off.')]),
      ],
      asks: [
        pick(`${open}.cause`, 'The cause', {
          found: 'found at that place',
          elsewhere: 'not there: it is somewhere else',
          unclear: 'not to be seen; renewed all the same',
        }),
      ],
    }),
    step(renew, [open], {
      what: `Repair ${number}: renew what leaked or went wrong`,
      why: 'What was disturbed on the way is new as well.',
      instruct: plan.renew.length ? [say(`New: ${plan.renew.map((r) => r.name).join(', ')}.`)] : [],
      asks: [text(`${renew}.what`, 'What was renewed or mended')],
    }),
    step(close, [renew, ...neededIf(sets, 'trial-out')], {
      what: `Repair ${number}: close it again`,
      why: 'Then the proof is repeated; the old ones stay in the record.',
      holdPoint: true,
      asks: [seen(close, 'the place before it closed')],
    }),
  ]
}
