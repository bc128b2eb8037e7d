import { InputError, refuse } from '../checks/input-error.ts'
import { benchFigure } from './bench-figure.ts'
import { inWords, showBoth } from './format.ts'
import { PLAUSIBLE, POSSIBLE, quantityOf, type PlausibleKind } from './plausible.ts'

/** What was understood, as it is said back. */
export const saidBack = (value: number, kind: PlausibleKind): string =>
  quantityOf(kind) === 'length' ? showBoth(value, 3) : inWords(Number(value.toPrecision(4)), 'Nm')

export interface TypedOptions {
  /** Travel of one turn of the dial that it was read on. */
  dialPerTurnMm?: number | null
  /** The value was questioned and is meant: what is implausible is taken, what is impossible is not. */
  confirmed?: boolean
}

/**
 * A figure that was typed in bench notation: a length in mm, a torque in Nm, with the unit that it was typed in.
 * @param unit of a bare number
 * @throws InputError at `path` when it is not understood, is impossible, or is implausible and not confirmed
 */
export function typedFigure(
  path: string,
  text: string,
  unit: string,
  kind: PlausibleKind,
  options: TypedOptions = {},
): { value: number; unit: string } {
  let figure
  try {
    figure = benchFigure(text, unit, kind, options.dialPerTurnMm)
  } catch (e) {
    if (e instanceof InputError)
      throw new InputError(
        e.code,
        e.fields.map((f) => ({ path, message: f.message })),
      )
    throw e
  }
  const { value, quantity, canonical, standing } = figure
  const what = kind.replace('-', ' ')
  if (standing === 'impossible') {
    const { min, max } = POSSIBLE[kind]
    refuse(
      path,
      `"${text}" is ${saidBack(value, kind)}; ${what} lies between ${min} and ${max} ${canonical}. Check the unit`,
      'impossible',
    )
  }
  if (standing === 'doubtful' && !options.confirmed) {
    const { min, max } = PLAUSIBLE[kind]
    refuse(
      path,
      `"${text}" is ${saidBack(value, kind)}; ${what} is expected between ${min} and ${max} ${canonical}. Check the unit${quantity === 'length' ? ' and the turn counter' : ''}`,
      'implausible',
    )
  }
  return { value, unit: figure.unit }
}
