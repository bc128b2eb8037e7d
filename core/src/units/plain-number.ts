const NUMBER = String.raw`[+-]?(?:\d+(?:[.,]\d*)?|[.,]\d+)`

/** A plain number as it is written at the bench, with a point or a comma; undefined when it is anything else. */
export function plainNumber(text: string): number | undefined {
  const trimmed = text.trim()
  return new RegExp(`^${NUMBER}$`).test(trimmed) ? Number(trimmed.replace(',', '.')) : undefined
}

/** Units that may stand behind a count, an amount or a time, with what one of them is worth. Fluid ounce of the US gallon: 29.5735 ml. */
const WORTH: Record<string, Record<string, number>> = {
  ml: { ml: 1, cl: 10, dl: 100, l: 1000, oz: 29.5735, floz: 29.5735 },
  min: { min: 1, minutes: 1, h: 60, hours: 60, s: 1 / 60 },
  turns: { turns: 1, turn: 1, r: 1 },
}

/**
 * A number with or without the unit that is asked for: `30`, `30 min`, `0.5 h`, `20 oz`. Undefined for anything else.
 * @param unit in which the value is returned; '' takes bare numbers only
 */
export function numberIn(text: string, unit: string): number | undefined {
  const match = new RegExp(`^(${NUMBER})\\s*([a-z ]*)$`, 'i').exec(text.trim())
  if (!match) return undefined
  const value = plainNumber(match[1]!)
  const said = match[2]!.replaceAll(' ', '').toLowerCase()
  if (value === undefined || said === '') return value
  const table = WORTH[unit]
  return table && Object.hasOwn(table, said) ? value * table[said]! : undefined
}

/** How a number of a unit may be written, for the one who wrote it otherwise. */
export const numberExample = (unit: string): string =>
  WORTH[unit]
    ? `a number, alone or with ${Object.keys(WORTH[unit]).slice(0, 4).join(', ')}`
    : 'a number without a unit'
