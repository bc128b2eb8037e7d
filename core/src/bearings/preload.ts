import { lineFit } from '../numbers/least-squares.ts'
import { InputError, refuse, type FieldProblem } from '../checks/input-error.ts'
import { finite, notNegative } from '../checks/numbers.ts'
import { checkWindow } from '../checks/window.ts'

export interface PreloadInput {
  /** Builds with preload present: stack in mm, rolling torque in Nm as read, seal drag included. */
  trials: { stackMm: number; torqueNm: number }[]
  /** Drag of the seals alone, Nm. */
  sealNm: number
  /** Wanted rolling torque without seal drag, Nm. */
  window: { min: number; max: number }
  /** Slope of the sheet or of the model, Nm per mm of stack; needed with one trial. Its sign says which way the stack works. */
  slopeNmPerMm?: number
}

export interface Preload {
  /** Stack for the middle of the window. */
  stackMm: number
  slopeNmPerMm: number
  /** True when the slope was taken, not measured. */
  guess: boolean
}

/**
 * Stack for a rolling torque in the middle of the window: a straight line through the trials by least squares,
 * target = middle of the window + seal drag. A torque at or below the seal drag is no preload: it says nothing
 * about how far the bearing is from having any, and is refused as a trial.
 * @throws InputError on such a trial, one trial without a slope, equal stacks, or a slope of zero
 */
export function preload(input: PreloadInput): Preload {
  const { trials, window } = input
  if (!Array.isArray(trials) || trials.length === 0)
    throw new InputError('invalid-input', [
      { path: 'trials', message: 'is empty; measure at least one build' },
    ])
  notNegative('sealNm', input.sealNm)
  checkWindow('window', window)
  notNegative('window.min', window.min)
  const problems: FieldProblem[] = []
  trials.forEach((t, i) => {
    finite(`trials[${i}].stackMm`, t.stackMm)
    finite(`trials[${i}].torqueNm`, t.torqueNm)
    if (t.torqueNm <= input.sealNm)
      problems.push({
        path: `trials[${i}].torqueNm`,
        message: `is ${t.torqueNm} Nm, not above the seal drag of ${input.sealNm} Nm: that is end play, and torque says nothing about play; measure the play instead`,
      })
  })
  if (problems.length) throw new InputError('no-preload', problems)
  const target = (window.min + window.max) / 2 + input.sealNm
  const n = trials.length
  const stack = trials.reduce((sum, t) => sum + t.stackMm, 0) / n
  const torque = trials.reduce((sum, t) => sum + t.torqueNm, 0) / n
  const slope = n === 1 ? input.slopeNmPerMm : measuredSlope(trials)
  if (slope === undefined)
    refuse(
      'slopeNmPerMm',
      'is missing; with one trial the slope must come from the sheet, or build a second one',
    )
  if (finite('slopeNmPerMm', slope) === 0)
    refuse('slopeNmPerMm', 'is 0: the stack does not change the torque; look for a part that is not seated')
  return { stackMm: stack + (target - torque) / slope, slopeNmPerMm: slope, guess: n === 1 }
}

function measuredSlope(trials: PreloadInput['trials']): number {
  const line = lineFit(
    trials.map((t) => t.stackMm),
    trials.map((t) => t.torqueNm),
  )
  if (!line || line.xx < 1e-12) refuse('trials', 'all have the same stack; change it to measure the slope')
  return line.slope
}
