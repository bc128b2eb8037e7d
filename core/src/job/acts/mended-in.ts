import type { Deed, Topic } from '../../assembly/act.ts'
import type { Line } from '../../assembly/invariants.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import type { Route, Step } from '../../route/route.ts'
import { actsOfStep, classesOn } from '../../route/step-acts.ts'
import { stepsOf } from './claims.ts'

/** Acts of which one puts a line right; none where only a repair does, or a word. */
function mendedBy({ code, on }: Line): Deed[] {
  switch (code) {
    case 'unsafe-in':
    case 'condemned-in':
      return [{ do: 'remove', on }]
    case 'part-not-in':
    case 'joint-not-shut':
      return [{ do: 'fit', on }]
    case 'group-not-tight':
      return [{ do: 'tighten', on }]
    case 'group-not-locked':
      return [{ do: 'lock', on }]
    case 'joint-not-proved':
      return [
        { do: 'prove', on: 'case' },
        { do: 'prove', on: 'joined' },
        { do: 'run', on: 'unit' },
      ]
    case 'setting-not-proved':
      return [
        { do: 'accept', on },
        { do: 'measure', on },
      ]
    case 'space-empty':
      return [{ do: 'fill', on }]
    case 'space-not-settled':
      return [{ do: 'settle', on }]
    case 'interface-open':
      return [{ do: 'join', on }]
    case 'not-checked':
      return [{ do: 'know', on: on as Topic }]
    default:
      return []
  }
}

/** The step of a route in which a line is put right, the last time that it comes up; undefined where no step does it. */
export function mendedIn(route: Route, sheet: DriveSheet, line: Line): Step | undefined {
  const classes = classesOn(sheet)
  const steps = stepsOf(sheet)
  for (const deed of mendedBy(line)) {
    const of = new Set(classes(deed))
    const found = route.steps.findLast((s) => actsOfStep(s.id, steps).some((c) => of.has(c)))
    if (found) return found
  }
  return undefined
}
