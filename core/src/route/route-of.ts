import { perSheet } from '../drives/per-sheet.ts'
import { checkRoute } from './check-route.ts'
import { OUTSIDE_FACTS } from './job-facts.ts'
import { cautionsOf } from './cautions.ts'
import type { Instruct, Route, Step } from './route.ts'
import { closeSteps } from './stages/close.ts'
import { finishSteps } from './stages/finish.ts'
import { inspectSteps } from './stages/inspect.ts'
import { joinSteps } from './stages/join.ts'
import type { DriveStepId } from './step-ids.ts'
import { STAGES } from './stage-names.ts'
import { receiveSteps } from './stages/receive.ts'
import { pressSteps } from './stages/press.ts'
import { sealSteps } from './stages/seal.ts'
import { settingSteps } from './stages/set.ts'
import { teardownSteps } from './stages/teardown.ts'

const STAGE_MAKERS = [
  receiveSteps,
  teardownSteps,
  inspectSteps,
  pressSteps,
  settingSteps,
  sealSteps,
  closeSteps,
  joinSteps,
  finishSteps,
]

/** Steps that only some drives have: nothing waits for them where they are not. Any other need that leads nowhere is a fault. */
const NOT_ON_EVERY_DRIVE: ReadonlySet<string> = new Set<DriveStepId>([
  'identify',
  'ratio',
  'find-place',
  'leak-found',
  'leak-found-joined',
  'open-gear',
  'nut-found',
  'prop-off',
  'left-hand',
  'shims',
  'cages',
  'preload',
  'crush',
  'pattern',
  'pump',
  'ring-stand',
  'check-set',
  'unit-ratio',
  'unit-overall',
  'leak-case',
  'join-gear',
  'ring-mounted',
  'shift-check',
  'leak-joined',
  'propeller',
  'anode',
  'fill-mounted',
])

/**
 * The route of a drive from receiving to handover: the stages in order, each with the steps that this drive has. Built from
 * the sheet's own facts, so that a family is data; checked when it is built.
 * @throws InputError `bad-route` when it does not hang together
 */
export const routeOf = perSheet((sheet): Route => {
  const all = STAGE_MAKERS.flatMap((make) => make(sheet)).map(tidy)
  const here = new Set(all.map((s) => s.id))
  const steps = all.map((s) => ({
    ...s,
    needs: [...new Set(s.needs)].filter((n) => here.has(n) || !NOT_ON_EVERY_DRIVE.has(n)),
    ...ifAny(cautionsOf(sheet, s.id)),
  }))
  const route: Route = { family: sheet.family, stages: STAGES, steps }
  checkRoute(route, OUTSIDE_FACTS)
  return route
})

const ifAny = (cautions: Instruct[]) => (cautions.length ? { cautions } : {})

/** Leaves out what a drive does not have. */
function tidy(step: Step): Step {
  return Object.fromEntries(Object.entries(step).filter(([, v]) => v !== undefined)) as unknown as Step
}
