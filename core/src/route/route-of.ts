import type { DriveSheet } from '../drives/sheet.ts'
import { checkRoute } from './check-route.ts'
import { OUTSIDE_FACTS } from './job-facts.ts'
import type { Route, Step } from './route.ts'
import { closeSteps } from './stages/close.ts'
import { finishSteps } from './stages/finish.ts'
import { inspectSteps } from './stages/inspect.ts'
import { joinSteps } from './stages/join.ts'
import { receiveSteps } from './stages/receive.ts'
import { sealSteps } from './stages/seal.ts'
import { settingSteps } from './stages/set.ts'
import { teardownSteps } from './stages/teardown.ts'

export const STAGES = [
  { id: 'receive', label: 'Receive' },
  { id: 'teardown', label: 'Take apart' },
  { id: 'inspect', label: 'Inspect' },
  { id: 'parts', label: 'Parts' },
  { id: 'seal', label: 'Press and seal' },
  { id: 'set', label: 'Set' },
  { id: 'close', label: 'Close' },
  { id: 'tight', label: 'Tight' },
  { id: 'join', label: 'Put back' },
  { id: 'finish', label: 'Finish' },
]

const known = new WeakMap<DriveSheet, Route>()

/**
 * The route of a drive from receiving to handover: the stages in order, each with the steps that this drive has. Built from
 * the sheet's own facts, so that a family is data; checked when it is built.
 * @throws InputError `bad-route` when it does not hang together
 */
export function routeOf(sheet: DriveSheet): Route {
  const before = known.get(sheet)
  if (before) return before
  const stages = [
    receiveSteps,
    teardownSteps,
    inspectSteps,
    sealSteps,
    settingSteps,
    closeSteps,
    joinSteps,
    finishSteps,
  ]
  const steps: Step[] = []
  for (const make of stages) steps.push(...make(sheet, steps.at(-1)?.id ?? ''))
  const route: Route = { family: sheet.family, stages: STAGES, steps: steps.map(tidy) }
  checkRoute(route, OUTSIDE_FACTS)
  known.set(sheet, route)
  return route
}

/** Leaves out what a drive does not have. */
function tidy(step: Step): Step {
  return Object.fromEntries(Object.entries(step).filter(([, v]) => v !== undefined)) as unknown as Step
}
