import { InputError, refuse } from '../../checks/input-error.ts'
import { inWords } from '../../units/format.ts'
import type { Window } from '../../checks/window.ts'
import { parseRange } from '../../units/figure-notation.ts'
import { parseReading } from '../../units/notation.ts'
import { CANONICAL_UNIT } from '../../units/factors.ts'
import type { FigureField, FigureShape } from './figure-field.ts'

export interface ReadFigure {
  /** In canonical units; what stands in the body. */
  value: number | string | boolean | string[] | Window
  /** As it was written, with its unit: kept, and shown so. */
  as: string
}

/** Volumes that manuals print, ml. US measures. */
const VOLUMES: Record<string, number> = {
  ml: 1,
  cc: 1,
  cm3: 1,
  l: 1000,
  oz: 29.5735,
  floz: 29.5735,
  pt: 473.176,
  qt: 946.353,
}

/**
 * Understands a figure as a manual prints it, for its place in a sheet.
 * @param unit of a bare number of a quantity
 * @throws InputError at `text`: not understood, not of this kind, or outside of what such a figure can be
 */
export function readFigure(field: Pick<FigureField, 'shape'>, text: string, unit?: string): ReadFigure {
  const { shape } = field
  const typed = text.trim()
  if (typed === '') refuse('text', 'is empty; write the figure, or leave it')
  switch (shape.is) {
    case 'choice': {
      const option = shape.options.find((o) => String(o.value) === typed)
      if (!option)
        refuse('text', `is "${typed.slice(0, 40)}"; one of ${shape.options.map((o) => o.label).join(', ')}`)
      return { value: option.value, as: option.label }
    }
    case 'words': {
      if (typed.length > shape.max) refuse('text', `has ${typed.length} characters; at most ${shape.max}`)
      if (!shape.list) return { value: typed, as: typed }
      const list = typed
        .split(/[,;\n]/)
        .map((t) => t.trim())
        .filter(Boolean)
      if (list.length > 20 || list.some((t) => t.length > 60))
        refuse('text', 'holds too much; at most 20 entries of 60 characters')
      return { value: list, as: list.join(', ') }
    }
    case 'number':
      return readNumber(shape, typed)
    case 'quantity':
      return readQuantity(shape, typed, unit)
  }
}

function readQuantity(
  shape: Extract<FigureShape, { is: 'quantity' }>,
  typed: string,
  unit: string | undefined,
): ReadFigure {
  const { quantity } = shape
  const bare = unit === undefined ? {} : { unit }
  const within = (v: number) => {
    if (v >= shape.min && v <= shape.max) return
    const show = (x: number) =>
      quantity === 'angle' ? `${x}°` : inWords(x, CANONICAL_UNIT[quantity] as 'mm')
    refuse(
      'text',
      `"${typed}" is ${show(v)}; such a figure lies between ${show(shape.min)} and ${show(shape.max)}. Look at the unit`,
      'impossible',
    )
  }
  if (shape.range) {
    const { window, unit: spelled } = parseRange({
      text: typed,
      quantity,
      ...bare,
      single: shape.single ?? false,
    })
    for (const v of [window.min, window.max]) if (v !== undefined) within(v)
    return { value: window, as: withUnit(typed, spelled) }
  }
  const { value, unit: spelled } = parseReading({ text: typed, quantity, ...bare })
  within(value)
  return { value, as: withUnit(typed, spelled) }
}

/** What was typed, with the unit that a bare number took. */
const withUnit = (typed: string, unit: string) => (/[a-z"”°µμ]\s*$/i.test(typed) ? typed : `${typed} ${unit}`)

const NUMBER = /^([+\-\u2212]?(?:\d+(?:[.,]\d*)?|[.,]\d+))\s*([a-z]+(?:\s*[a-z]+)?3?)?$/i
const RATIO = /^([+\-\u2212]?[\d.,]+)\s*(?:\/|:|\bper\b|\bfor\b)\s*([\d.,]+)$/i

function readNumber(shape: Extract<FigureShape, { is: 'number' }>, typed: string): ReadFigure {
  const plain = (s: string) => Number(s.replace(',', '.').replace('\u2212', '-'))
  const ratio = shape.unit === '' && !shape.whole ? RATIO.exec(typed) : null
  const found = NUMBER.exec(typed)
  if (!found && !ratio) refuse('text', `"${typed}" is no number; write it as 12 or 0.5`, 'not-understood')
  let value = ratio ? plain(ratio[1]!) / plain(ratio[2]!) : plain(found![1]!)
  const spelled = (found?.[2] ?? '').toLowerCase().replace(/\s/g, '')
  if (shape.unit === 'ml' && spelled !== '') {
    if (!Object.hasOwn(VOLUMES, spelled))
      refuse('text', `"${found![2]}" is no volume here; write ml, l, oz, pt or qt`, 'not-understood')
    value *= VOLUMES[spelled]!
  } else if (spelled !== '' && spelled !== shape.unit.replace('/', ''))
    refuse(
      'text',
      `"${found![2]}" is not understood here; write a number${shape.unit ? ` of ${shape.unit}` : ''}`,
    )
  if (!Number.isFinite(value)) refuse('text', `"${typed}" is no number that can be used`, 'not-understood')
  if (shape.whole && !Number.isInteger(value)) refuse('text', `"${typed}" is not whole`)
  if (value < shape.min || value > shape.max)
    refuse('text', `is ${value}; such a figure lies between ${shape.min} and ${shape.max}`, 'impossible')
  return { value, as: spelled || shape.unit === '' ? typed : `${typed} ${shape.unit}` }
}

/** What is wrong with a value that stands in a body at this figure; undefined when nothing is. */
export function figureProblem(field: Pick<FigureField, 'shape'>, value: unknown): string | undefined {
  const { shape } = field
  const number = (v: unknown, min: number, max: number) =>
    typeof v === 'number' && v >= min && v <= max ? undefined : `is ${String(v)}; between ${min} and ${max}`
  switch (shape.is) {
    case 'choice':
      return shape.options.some((o) => o.value === value) ? undefined : `is ${String(value)}; no such choice`
    case 'words':
      return typeof value === 'string' || Array.isArray(value) ? undefined : 'must be text'
    case 'number':
      return number(value, shape.min, shape.max)
    case 'quantity': {
      if (!shape.range) return number(value, shape.min, shape.max)
      const { min, max } = (value ?? {}) as Window
      if (min !== undefined && max !== undefined && (shape.single ? min > max : min >= max))
        return `is upside down: smallest ${min}, largest ${max}; swap the two`
      return (
        (min === undefined ? undefined : number(min, shape.min, shape.max)) ??
        (max === undefined ? undefined : number(max, shape.min, shape.max))
      )
    }
  }
}

/** Whether the text of a figure can be read; for a form that says it before it sends. */
export function whyNot(field: Pick<FigureField, 'shape'>, text: string, unit?: string): string | undefined {
  try {
    readFigure(field, text, unit)
    return undefined
  } catch (e) {
    if (e instanceof InputError) return e.fields[0]?.message
    throw e
  }
}
