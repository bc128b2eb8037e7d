import { InputError } from '@moray/core/checks/input-error'
import { backlashTransfer } from '@moray/core/gears/backlash'
import { meshGeometry } from '@moray/core/gears/mesh'
import { depth } from '@moray/core/measuring/depth'
import { judge } from '@moray/core/measuring/judge'
import { shimSolveSteps } from '@moray/core/setting/shim-solve'
import { parseReading } from '@moray/core/units/notation'
import { benchCalculations } from './bench-calculations.ts'
import { judgingCalculations } from './judging-calculations.ts'
import { ownSheetCalculations } from './own-sheet-calculations.ts'
import { calculationOf, type Calculation, type OutputField, type Turns } from './calculation.ts'
import { describeClass, type FieldDescription } from '../fields/describe.ts'
import { depthClass, depthClasses, JudgeFields, ParseReadingFields } from './measuring-fields.ts'
import { BacklashTransferInput, MeshGeometryInput } from './mesh-fields.ts'
import { shimSolveInput, ShimSolveFields } from './shim-fields.ts'

/**
 * Every calculation that runs without the interface: name → input class, core function, described fields.
 * The command line, the HTTP route and the worker read this one list.
 */
export const calculations: Calculation[] = [
  calculationOf('parse-reading', 'Understands bench notation', ParseReadingFields, parseReading, [
    ['value', 'mm, Nm, kPa, C or deg', 'the value in the canonical unit, not rounded'],
    ['unit', '', 'the unit that was used'],
  ]),
  calculationOf(
    'mesh-geometry',
    'Pitch cones of a bevel pair, and how backlash answers to axial travel',
    MeshGeometryInput,
    (input: MeshGeometryInput) => meshGeometry(input.mesh),
    [
      ['pinionPitchAngleDeg', 'deg', 'pitch cone angle of the pinion'],
      ['gearPitchAngleDeg', 'deg', 'pitch cone angle of the gear'],
      ['outerConeDistanceMm', 'mm', 'apex to the heel'],
      ['meanConeDistanceMm', 'mm', 'apex to mid face'],
      ['innerConeDistanceMm', 'mm', 'apex to the toe'],
      ['pinionPitchRadiusMm', 'mm', 'outer pitch radius of the pinion'],
      ['gearPitchRadiusMm', 'mm', 'outer pitch radius of the gear'],
      ['backlashPerPinionMm', 'mm/mm', 'backlash at the outer pitch circle per mm of the pinion outward'],
      ['backlashPerGearMm', 'mm/mm', 'the same for the gear'],
      ['normalFactor', '', 'normal over transverse backlash'],
    ],
  ),
  calculationOf(
    'backlash-transfer',
    'Indicator reading carried to the pitch circle',
    BacklashTransferInput,
    backlashTransfer,
    [
      ['backlashMm', 'mm', 'transverse backlash at the outer pitch circle'],
      ['normalBacklashMm', 'mm', 'square to the flank'],
    ],
  ),
  calculationOf(
    'depth',
    'Where a gear stands on its axis',
    { choose: depthClass, classes: depthClasses },
    depth,
    [
      ['depthMm', 'mm', 'depth (all methods but case-and-gear)'],
      ['shimMm', 'mm', 'shim needed (case-and-gear)'],
    ],
  ),
  calculationOf('judge', 'Readings against a window, with their uncertainty', JudgeFields, judge, [
    ['mean', 'as the readings', 'mean of the readings'],
    ['u', 'as the readings', 'standard uncertainty of the mean'],
    ['U', 'as the readings', 'expanded uncertainty, 2u'],
    ['verdict', '', 'inside, outside or too close to call'],
    ['readingsNeeded', '', 'readings in all that would decide it'],
    ['temperatureMm', 'mm', 'what was taken off for the temperature'],
  ]),
  calculationOf(
    'shim-solve',
    'Stacks out of the drawer that bring every quantity into its window',
    ShimSolveFields,
    { turns: (input: ShimSolveFields) => shimSolveSteps(shimSolveInput(input)) },
    [
      ['status', '', 'fit or no-fit'],
      ['provedOptimal', '', 'true: no better plan exists in this drawer'],
      ['bestProbability', '', 'highest probability of landing in all windows that any plan has'],
      ['plans', 'mm', 'stacks, predictions, probability and pieces of the best plans'],
      [
        'shortfall',
        'as the quantities',
        'how far the closest plan stays outside each window, when nothing fits',
      ],
      ['orderSuggestions', 'mm', 'thicknesses to order, when nothing fits or too little has a chance'],
      ['nodes', '', 'boxes that the search looked at'],
    ],
  ),
  ...benchCalculations,
  ...judgingCalculations,
  ...ownSheetCalculations,
]

/** @throws InputError `unknown-calculation` naming the ones there are */
export function calculation(name: string): Calculation {
  const found = calculations.find((c) => c.name === name)
  if (!found)
    throw new InputError('unknown-calculation', [
      {
        path: 'name',
        message: `"${name.slice(0, 40)}" is no calculation; there are ${calculations.map((c) => c.name).join(', ')}`,
      },
    ])
  return found
}

/** Checks the input with the calculation's class, then computes. */
export function calculate(name: string, raw: unknown): object {
  const turns = calculateInTurns(name, raw)
  for (;;) {
    const turn = turns.next()
    if (turn.done) return turn.value
  }
}

/** The same in turns. */
export function calculateInTurns(name: string, raw: unknown): Turns {
  return calculation(name).turns(raw)
}

export interface CalculationDescription {
  name: string
  what: string
  /** One list of fields for each way of asking. */
  input: FieldDescription[][]
  output: OutputField[]
}

export function describeCalculation(name: string): CalculationDescription {
  const { what, inputs, output } = calculation(name)
  return { name, what, input: inputs.map(describeClass), output }
}
