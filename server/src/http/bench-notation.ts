import { InputError, refuse } from '@moray/core/checks/input-error'
import { benchFigure } from '@moray/core/units/bench-figure'
import { PLAUSIBLE, POSSIBLE, quantityOf, type PlausibleKind } from '@moray/core/units/plausible'
import { inWords, showBoth } from '@moray/core/units/format'
import type { ReadingUnit } from '@moray/contract/requests/setting'

/** What was understood, as it is said back. */
export const saidBack = (value: number, kind: PlausibleKind): string =>
  quantityOf(kind) === 'length' ? showBoth(value, 3) : inWords(Number(value.toPrecision(4)), 'Nm')

/**
 * A figure in bench notation: a length in mm, a torque in Nm. The browser shows what it understood with the same function before it sends.
 * @param options.confirmed the value was questioned and is meant: what is implausible is taken, what is impossible is not
 * @throws InputError at `path` when it is not understood, is impossible, or is implausible and not confirmed
 */
export function readFigure(
  path: string,
  text: string,
  unit: ReadingUnit,
  kind: PlausibleKind,
  options: { dialPerTurnMm?: number | null; confirmed?: boolean } = {},
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
