import { refuse } from '../checks/input-error.ts'
import type { Window } from '../checks/window.ts'
import type { Quantity } from './factors.ts'
import { parseReading } from './notation.ts'

export interface ParsedRange {
  window: Window
  /** The unit that was written, as spelled; the one of bare numbers where none was. */
  unit: string
}

const FROM_TO = /^(.+?)\s*(?:\bto\b|–|—|…|\.\.+|(?<=[\w"”)\s])-(?=\s*[.\d]))\s*(.+)$/i
/** `.015/.022in`: a stroke between two decimal fractions; between whole numbers it is a fraction of an inch. */
const STROKE = /^(\d*[.,]\d+)\s*\/\s*(\d*[.,]\d+.*)$/
const PLUS_MINUS = /^(.+?)\s*(?:±|\+\/-|\+-)\s*(.+)$/
const AT_MOST = /^(?:max(?:imum)?\.?|up to|at most|not above|≤|<=?)\s*(.+)$/i
const AT_LEAST = /^(?:min(?:imum)?\.?|from|at least|not below|≥|>=?)\s*(.+)$/i
const NUMBER_ONLY = /^[+\-\u2212]?\s*(?:\d+(?:[.,]\d*)?|[.,]\d+)$/

/**
 * A range as manuals print it: `1.2 to 1.5 ftlb`, `.015-.022in`, `0,38 – 0,56 mm`, `0.40 ± 0.05`, `max 0.3 mm`, `at least 5 Nm`. A bare number in it
 * takes the unit of the other one, or `unit`.
 * @param single one figure is meant as it stands, and is both limits: torques of screws are printed so
 * @returns limits in the canonical unit, unrounded
 * @throws InputError naming what is not understood; `upside-down` when the first is not below the second; `one-value` for a single number
 */
export function parseRange({
  text,
  quantity,
  unit,
  single = false,
}: {
  text: string
  quantity: Quantity
  unit?: string
  single?: boolean
}): ParsedRange {
  const trimmed = text.trim()
  const read = (part: string, bare: string | undefined) =>
    parseReading({ text: part, quantity, ...(bare === undefined ? {} : { unit: bare }) })
  const one = (pattern: RegExp, side: 'min' | 'max'): ParsedRange | undefined => {
    const found = pattern.exec(trimmed)
    // "from 3 to 5" is a range, not a lower limit
    if (!found || FROM_TO.test(found[1]!)) return undefined
    const { value, unit: spelled } = read(found[1]!, unit)
    return { window: { [side]: value }, unit: spelled }
  }
  const limited = one(AT_MOST, 'max') ?? one(AT_LEAST, 'min')
  if (limited) return limited
  const around = PLUS_MINUS.exec(trimmed)
  if (around) {
    const [middle, half] = inOneUnit(around[1]!, around[2]!, read, unit)
    if (!(half.value > 0))
      refuse('text', `"${trimmed}": what is given after ± must be above 0`, 'upside-down')
    return {
      window: { min: middle.value - half.value, max: middle.value + half.value },
      unit: middle.unit,
    }
  }
  const span = STROKE.exec(trimmed) ?? FROM_TO.exec(trimmed.replace(/^from\s+/i, ''))
  if (!span) {
    const { value, unit: spelled } = read(trimmed, unit)
    if (single) return { window: { min: value, max: value }, unit: spelled }
    refuse(
      'text',
      `"${trimmed}" is one figure; a range has two: 0.38 to 0.56, or max 0.56, or 0.47 ± 0.09`,
      'one-value',
    )
  }
  const [low, high] = inOneUnit(span[1]!, span[2]!, read, unit)
  if (!(low.value < high.value))
    refuse('text', `"${trimmed}" is upside down: the smaller figure comes first`, 'upside-down')
  return { window: { min: low.value, max: high.value }, unit: high.unit }
}

type Read = (part: string, bare: string | undefined) => { value: number; unit: string }

/** Two figures of which one may be bare: it is in the unit of the other. */
function inOneUnit(first: string, second: string, read: Read, unit: string | undefined) {
  const bare = (s: string) => NUMBER_ONLY.test(s.trim())
  if (bare(first) && !bare(second)) {
    const b = read(second, unit)
    return [read(first, spelledUnit(b.unit, unit)), b] as const
  }
  const a = read(first, unit)
  return [a, read(second, bare(second) ? spelledUnit(a.unit, unit) : unit)] as const
}

/** A unit that a bare number may take; turns of a dial are none. */
const spelledUnit = (spelled: string, unit: string | undefined) => (spelled === 'r' ? unit : spelled)
