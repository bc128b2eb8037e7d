import { InputError } from '@moray/core/checks/input-error'
import { backlashTransfer } from '@moray/core/gears/backlash'
import { meshGeometry } from '@moray/core/gears/mesh'
import { depth } from '@moray/core/measuring/depth'
import { judge } from '@moray/core/measuring/judge'
import { shimSolveSteps } from '@moray/core/setting/shim-solve'
import { parseReading } from '@moray/core/units/notation'
import { describeClass, type FieldDescription } from '../fields/describe.ts'
import { validate } from '../fields/validate.ts'
import { depthClass, depthClasses, JudgeFields, ParseReadingFields } from './measuring-fields.ts'
import { BacklashTransferInput, MeshGeometryInput } from './mesh-fields.ts'
import { ShimSolveFields } from './shim-fields.ts'

type Class = new () => object

export interface OutputField {
  name: string
  unit?: string
  what: string
}

/** Work in steps, so that a long calculation can be shown, stopped, and take turns with other work. */
export type Steps = Generator<unknown, object>

export interface Calculation {
  name: string
  what: string
  /** All classes that may apply; more than one where the fields depend on a choice. */
  inputs: Class[]
  /** The class for this input. */
  inputClass: (raw: unknown) => Class
  output: OutputField[]
  run: (input: never) => object
  /** Present where the calculation may take long. */
  steps?: (input: never) => Steps
}

function entry(
  name: string,
  what: string,
  input: Class | { choose: (raw: unknown) => Class; classes: Class[] },
  run: (input: never) => object,
  output: [name: string, unit: string, what: string][],
  steps?: (input: never) => Steps,
): Calculation {
  const inputs = typeof input === 'function' ? [input] : input.classes
  return {
    name,
    what,
    inputs,
    inputClass: typeof input === 'function' ? () => input : input.choose,
    output: output.map(([n, unit, w]) => ({ name: n, ...(unit ? { unit } : {}), what: w })),
    run,
    ...(steps ? { steps } : {}),
  }
}

function drain(steps: Steps): object {
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
  }
}

/**
 * Every calculation that runs without the interface: name → input class, core function, described fields.
 * The command line, the HTTP route and the worker read this one list.
 */
export const calculations: Calculation[] = [
  entry('parse-reading', 'Understands bench notation', ParseReadingFields, parseReading, [
    ['value', 'mm, Nm, kPa, C or deg', 'the value in the canonical unit, not rounded'],
    ['unit', '', 'the unit that was used'],
  ]),
  entry(
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
  entry(
    'backlash-transfer',
    'Indicator reading carried to the pitch circle',
    BacklashTransferInput,
    backlashTransfer,
    [
      ['backlashMm', 'mm', 'transverse backlash at the outer pitch circle'],
      ['normalBacklashMm', 'mm', 'square to the flank'],
    ],
  ),
  entry('depth', 'Where a gear stands on its axis', { choose: depthClass, classes: depthClasses }, depth, [
    ['depthMm', 'mm', 'depth (all methods but case-and-gear)'],
    ['shimMm', 'mm', 'shim needed (case-and-gear)'],
  ]),
  entry('judge', 'Readings against a window, with their uncertainty', JudgeFields, judge, [
    ['mean', 'as the readings', 'mean of the readings'],
    ['u', 'as the readings', 'standard uncertainty of the mean'],
    ['U', 'as the readings', 'expanded uncertainty, 2u'],
    ['verdict', '', 'in, out or too-close'],
    ['readingsNeeded', '', 'readings that would decide; null when none do'],
  ]),
  entry(
    'shim-solve',
    'Stacks out of the drawer that bring every quantity into its window',
    ShimSolveFields,
    (input: never) => drain(shimSolveSteps(input)),
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
      ['orderSuggestions', 'mm', 'thicknesses to order, when nothing fits'],
      ['nodes', '', 'boxes that the search looked at'],
    ],
    shimSolveSteps as (input: never) => Steps,
  ),
]

/** @throws InputError `unknown-calculation` naming the ones there are */
export function calculation(name: string): Calculation {
  const found = calculations.find((c) => c.name === name)
  if (!found)
    throw new InputError('unknown-calculation', [
      {
        path: 'name',
        message: `"${name}" is no calculation; there are ${calculations.map((c) => c.name).join(', ')}`,
      },
    ])
  return found
}

/** Checks the input with the calculation's class, then computes. */
export function calculate(name: string, raw: unknown): object {
  const entry = calculation(name)
  return entry.run(checked(entry, raw))
}

/** The same in steps; a short calculation is one step. */
export function* calculateSteps(name: string, raw: unknown): Steps {
  const entry = calculation(name)
  const input = checked(entry, raw)
  return entry.steps ? yield* entry.steps(input) : entry.run(input)
}

function checked(entry: Calculation, raw: unknown): never {
  return validate(entry.inputClass(raw), raw) as never
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
