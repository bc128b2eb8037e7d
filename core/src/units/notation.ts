import { refuse } from '../checks/input-error.ts'
import { finite, positive } from '../checks/numbers.ts'
import { CAN_BE_NEGATIVE, CANONICAL_UNIT, UNIT_SPELLINGS, type Quantity, type UnitScale } from './factors.ts'

export interface ParseReadingInput {
  text: string
  quantity: Quantity
  /** Unit of a bare number; the canonical unit when left out. */
  unit?: string
  /** What one turn of the dial is worth, in mm; needed for `4r 37t`. */
  dialPerTurnMm?: number
}

export interface ParsedReading {
  /** Canonical unit: mm, Nm, kPa, °C, degrees. Not rounded. */
  value: number
  /** The unit the technician used, as spelled. */
  unit: string
}

const SPACE = /[\s\u00a0\u2009\u202f]/
const DIGITS = /[0-9]/

/** Reads from left to right and remembers where it stands, so that a complaint can name the character. */
class Scanner {
  at = 0
  readonly text: string

  constructor(text: string) {
    this.text = text
  }
  skipSpace() {
    while (this.at < this.text.length && SPACE.test(this.text[this.at]!)) this.at++
  }
  peek(): string {
    return this.text[this.at] ?? ''
  }
  done(): boolean {
    this.skipSpace()
    return this.at >= this.text.length
  }
  /** A decimal number with point or comma, without sign; undefined when none stands here. */
  number(): number | undefined {
    this.skipSpace()
    const found = /^(?:\d+(?:[.,]\d*)?|[.,]\d+)/.exec(this.text.slice(this.at))
    if (!found) return undefined
    this.at += found[0].length
    return Number(found[0].replace(',', '.'))
  }
  complain(expected: string): never {
    this.skipSpace()
    const here = this.peek()
    const place = here === '' ? 'it ends too early' : `character ${this.at + 1} "${here}" is not understood`
    refuse('text', `"${this.text}": ${place}; ${expected}`, 'not-understood')
  }
}

const EXAMPLES: Record<Quantity, string> = {
  length: 'write for example 19t, 37h, 0.37 mm, .014in or 2r 35h',
  torque: 'write for example 24Nm, 27ftlb or 145inlb',
  pressure: 'write for example 80kPa, 12psi, 0.8bar or -15inHg',
  temperature: 'write for example 20C or 68F',
  angle: 'write for example 30 or 30deg',
}

/**
 * Understands what a technician would say or scribble: `23t`, `.023"`, `0,42 mm`, `4r 37t`, `2 1/4"`,
 * `27 ft-lb`, `-15inHg`, `68F`. Case and spaces do not matter; a bare number takes `unit`.
 *
 * Grammar: [sign] ( number `r` [number [unit]] | [whole] fraction inch-unit | number [unit] ).
 * A sign belongs in front of everything. Fractions exist in inches only, so `1/8` of any other unit is refused.
 *
 * @returns the value in the canonical unit, unrounded
 * @throws InputError `not-understood` naming the character; nothing is guessed
 */
export function parseReading(input: ParseReadingInput): ParsedReading {
  const { text, quantity } = input
  if (typeof text !== 'string') refuse('text', 'must be text')
  if (text.length > 60) refuse('text', `has ${text.length} characters; a reading has at most 60`)
  if (!Object.hasOwn(UNIT_SPELLINGS, quantity))
    refuse('quantity', `is "${String(quantity)}"; one of ${Object.keys(UNIT_SPELLINGS).join(', ')}`)
  const bareUnit = input.unit ?? CANONICAL_UNIT[quantity]
  const bareScale = scaleOf(quantity, bareUnit)
  if (!bareScale) refuse('unit', `"${bareUnit}" is no unit of ${quantity}`)
  if (input.dialPerTurnMm !== undefined) positive('dialPerTurnMm', input.dialPerTurnMm)

  const scan: Scanner = new Scanner(text)
  if (scan.done()) refuse('text', `is empty; ${EXAMPLES[quantity]}`, 'not-understood')
  const sign = readSign(scan, quantity)
  const number = scan.number()
  if (number === undefined) scan.complain(EXAMPLES[quantity])
  scan.skipSpace()

  if (quantity === 'length' && /r/i.test(scan.peek())) {
    const value = readTurns(scan, number, input.dialPerTurnMm, bareScale, bareUnit)
    return { value: finite('text', sign * value.value), unit: value.unit }
  }
  const fraction = quantity === 'length' ? readFraction(scan, number) : undefined
  const unit = readUnit(scan, quantity)
  if (fraction !== undefined) {
    const spelled = unit ?? bareUnit
    if (scaleOf('length', spelled)?.factor !== 25.4)
      refuse(
        'text',
        `"${text}": a fraction is understood in inches only; write 1/8in or 1/8"`,
        'not-understood',
      )
    return { value: sign * fraction * 25.4, unit: 'in' }
  }
  const scale = unit === undefined ? bareScale : scaleOf(quantity, unit)!
  return { value: finite('text', sign * number * scale.factor + scale.offset), unit: unit ?? bareUnit }
}

/** Normalises a spelling (`ft-lb`, `N·m`, `Lb Ft`) and looks it up. */
function scaleOf(quantity: Quantity, spelling: string): UnitScale | undefined {
  const table = UNIT_SPELLINGS[quantity]
  const key = spelling.toLowerCase().replace(/[\s\u00a0.·*-]/g, '')
  return Object.hasOwn(table, key) ? table[key] : undefined
}

function readSign(scan: Scanner, quantity: Quantity): 1 | -1 {
  scan.skipSpace()
  const c = scan.peek()
  if (c === '+') {
    scan.at++
    return 1
  }
  if (c !== '-' && c !== '\u2212') return 1
  if (!CAN_BE_NEGATIVE[quantity]) scan.complain(`a ${quantity} has no minus sign`)
  scan.at++
  return -1
}

/** `4r 37t`: whole turns of the dial, then the pointer. The `r` has not been read yet. */
function readTurns(
  scan: Scanner,
  turns: number,
  perTurnMm: number | undefined,
  bareScale: UnitScale,
  bareUnit: string,
): ParsedReading {
  if (!Number.isInteger(turns)) scan.complain('turns of the dial are whole; the pointer gives the rest')
  if (perTurnMm === undefined)
    refuse(
      'text',
      `"${scan.text}" counts turns of a dial, but no dial is chosen; choose the gauge or write the sum`,
      'no-dial',
    )
  scan.at++
  if (scan.done()) return { value: turns * perTurnMm, unit: 'r' }
  const pointer = scan.number()
  if (pointer === undefined) scan.complain('after the turns comes the pointer, as in 4r 37t')
  const unit = readUnit(scan, 'length')
  const scale = unit === undefined ? bareScale : scaleOf('length', unit)!
  const rest = pointer * scale.factor
  // A pointer of a full turn or more is a slip: either the turn counter or the unit is wrong.
  if (rest >= perTurnMm * (1 + 1e-12))
    refuse(
      'text',
      `"${scan.text}": the pointer shows ${rest.toFixed(3)} mm, more than one turn of this dial (${perTurnMm} mm); check the turn counter and the unit`,
      'pointer-past-turn',
    )
  return { value: turns * perTurnMm + rest, unit: unit ?? bareUnit }
}

/** `1/8` or `2 1/4`, the first number having been read; undefined when no fraction stands here. */
function readFraction(scan: Scanner, first: number): number | undefined {
  scan.skipSpace()
  if (scan.peek() === '/') {
    scan.at++
    return first / denominator(scan, first)
  }
  if (!DIGITS.test(scan.peek())) return undefined
  const top = scan.number()!
  scan.skipSpace()
  if (scan.peek() !== '/') scan.complain('two numbers in a row only make sense as 2 1/4"')
  if (!Number.isInteger(first)) scan.complain('a fraction follows a whole number, as in 2 1/4"')
  scan.at++
  return first + top / denominator(scan, top)
}

function denominator(scan: Scanner, top: number): number {
  const bottom = scan.number()
  if (bottom === undefined) scan.complain('the number under the fraction line is missing')
  if (!Number.isInteger(top) || !Number.isInteger(bottom) || bottom === 0)
    refuse(
      'text',
      `"${scan.text}": a fraction needs whole numbers, and not 0 below the line`,
      'not-understood',
    )
  return bottom
}

/** Takes the rest of the text as a unit; undefined when nothing is left. */
function readUnit(scan: Scanner, quantity: Quantity): string | undefined {
  if (scan.done()) return undefined
  const rest = scan.text.slice(scan.at).trim()
  const known = rest.replace(/\s+/g, '')
  if (scaleOf(quantity, known)) {
    // "23 -t" is a stray sign, not a hyphenated unit.
    if (!/^[a-zµμ"”°]/i.test(known)) scan.complain(EXAMPLES[quantity])
    return known
  }
  // Point at the first character that no spelling of this quantity allows.
  const spellings = Object.keys(UNIT_SPELLINGS[quantity])
  let matched = ''
  for (const c of rest) {
    if (!spellings.some((s) => s.startsWith((matched + c).toLowerCase()))) break
    matched += c
    scan.at++
  }
  scan.complain(EXAMPLES[quantity])
}
