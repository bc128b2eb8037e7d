import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator'
import { apply, isPlausible, Judged, MOST_NUMBER, type Class, type Common } from './field.ts'
import { isObject } from './instantiate.ts'
import { show } from './show.ts'
import { isVisible, textProblem } from './text-rule.ts'

/** The name of a row of a sheet: part of the paths of its figures, so it holds no point. */
const ROW_ID = /^[a-z0-9][a-z0-9-]{0,59}$/i

const isFinite = () =>
  IsNumber(
    { allowNaN: false, allowInfinity: false },
    { message: (a) => `must be a finite number, not ${show(a.value)}` },
  )

/** A finite number within plausible limits. */
export function Num(options: Common & { min?: number; max?: number }): PropertyDecorator {
  const { min = -MOST_NUMBER, max = MOST_NUMBER } = options
  return apply({ type: 'number', min, max }, options, [
    isFinite(),
    Min(min, { message: (a) => `is ${show(a.value)}; it must not be below ${min}` }),
    Max(max, { message: (a) => `is ${show(a.value)}; it must not be above ${max}` }),
  ])
}

/** A whole number. */
export function Whole(options: Common & { min: number; max: number }): PropertyDecorator {
  const { min, max } = options
  const message = (a: { value: unknown }) =>
    `is ${show(a.value)}; a whole number from ${min} to ${max} is needed`
  return apply({ type: 'whole', min, max }, options, [
    IsInt({ message }),
    Min(min, { message }),
    Max(max, { message }),
  ])
}

export function Flag(options: Common): PropertyDecorator {
  return apply({ type: 'flag' }, options, [
    IsBoolean({ message: (a) => `is ${show(a.value)}; true or false is needed` }),
  ])
}

/** Text: trimmed before its length counts unless it is taken `asIs`, and only with characters that can be kept (text-rule.ts). */
export function Text(options: Common & { min?: number; max: number; asIs?: boolean }): PropertyDecorator {
  const { min = 0, max, asIs } = options
  const message = (value: unknown): string | undefined => {
    if (typeof value !== 'string') return `must be text, not ${show(value)}`
    const bad = textProblem(value)
    if (bad) return bad
    if (min > 0 && !isVisible(value)) return 'is empty; write something'
    if (value.length < min) return `is too short; at least ${min} characters`
    return value.length > max ? `has ${value.length} characters; at most ${max} are kept` : undefined
  }
  return apply({ type: 'text', min, max, ...(asIs ? { asIs } : {}) }, options, [
    Judged('isKeepableText', message),
  ])
}

/** The id of a row of a sheet. */
export function RowId(options: Common): PropertyDecorator {
  return apply({ type: 'id', max: 60 }, options, [
    Judged('isRowId', (v) =>
      typeof v === 'string' && ROW_ID.test(v)
        ? undefined
        : `is ${show(v)}; letters, digits and - are needed, at most 60, not beginning with -`,
    ),
  ])
}

/** A day of the calendar, as YYYY-MM-DD. */
export function Day(options: Common): PropertyDecorator {
  return apply({ type: 'text', min: 10, max: 10 }, options, [
    Judged('isDay', (v) => (isDay(v) ? undefined : `is ${show(v)}; a day as 2026-11-25 is needed`)),
  ])
}

function isDay(v: unknown): boolean {
  if (typeof v !== 'string' || !/^(19|20)\d\d-\d\d-\d\d$/.test(v)) return false
  const day = new Date(`${v}T00:00:00Z`)
  return !Number.isNaN(day.getTime()) && day.toISOString().startsWith(v)
}

export function OneOf(options: Common & { values: readonly (string | number)[] }): PropertyDecorator {
  const { values } = options
  return apply({ type: 'choice', values: [...values] }, options, [
    IsIn([...values], { message: (a) => `is ${show(a.value)}; one of ${values.join(', ')}` }),
  ])
}

/** A list of numbers. */
export function Numbers(options: Common & { most: number; least?: number }): PropertyDecorator {
  const { most, least = 0 } = options
  return apply({ type: 'numbers', least, max: most }, options, [
    IsArray({ message: (a) => `must be a list, not ${show(a.value)}` }),
    ArrayMaxSize(most, { message: `holds too many entries; at most ${most}` }),
    ArrayMinSize(least, { message: `holds too few entries; at least ${least}` }),
    Judged('isNumberList', (v) =>
      Array.isArray(v) && v.every(isPlausible)
        ? undefined
        : `must hold finite numbers between ${-MOST_NUMBER} and ${MOST_NUMBER} only`,
    ),
  ])
}

/** A list of short texts. @param options.long characters of one at most; 60 when left out @param options.values the only ones that are taken */
export function Texts(
  options: Common & { most: number; least?: number; long?: number; values?: readonly string[] },
): PropertyDecorator {
  const { most, least = 0, long = 60, values } = options
  return apply(
    { type: 'texts', least, max: most, long, ...(values ? { values: [...values] } : {}) },
    options,
    [
      IsArray({ message: (a) => `must be a list, not ${show(a.value)}` }),
      ArrayMaxSize(most, { message: `holds too many entries; at most ${most}` }),
      ArrayMinSize(least, { message: `holds too few entries; at least ${least}` }),
      Judged('isTextList', (v) =>
        Array.isArray(v)
          ? v.map((x) => shortText(x, long) ?? oneOf(x, values)).find(Boolean)
          : 'must hold texts only',
      ),
    ],
  )
}

const oneOf = (x: unknown, values: readonly string[] | undefined) =>
  !values || values.includes(x as string) ? undefined : `holds ${show(x)}; allowed are ${values.join(', ')}`

/** A nested object of one class. */
export function One(of: () => Class, options: Common): PropertyDecorator {
  return apply({ type: 'object', of }, options, [
    IsPlainObject(),
    ValidateNested({ message: 'must be an object' }),
  ])
}

/** A list of nested objects of one class. */
export function Many(of: () => Class, options: Common & { most: number; least?: number }): PropertyDecorator {
  const { most, least = 0 } = options
  return apply({ type: 'objects', of, least, max: most }, options, [
    IsArray({ message: (a) => `must be a list, not ${show(a.value)}` }),
    ArrayMaxSize(most, { message: `holds too many entries; at most ${most}` }),
    ArrayMinSize(least, { message: `holds too few entries; at least ${least}` }),
    EachPlainObject(),
    ValidateNested({ each: true, message: 'must hold objects' }),
  ])
}

function shortText(x: unknown, long: number): string | undefined {
  if (typeof x !== 'string') return 'must hold texts only'
  if (!isVisible(x) || x.length > long) return `must hold texts of 1 to ${long} characters`
  return textProblem(x)
}

function IsPlainObject(): PropertyDecorator {
  return ValidateBy({
    name: 'isPlainObject',
    validator: { validate: isObject, defaultMessage: (a) => `must be an object, not ${show(a?.value)}` },
  })
}

function EachPlainObject(): PropertyDecorator {
  return ValidateBy({
    name: 'eachPlainObject',
    validator: {
      validate: (v: unknown) => Array.isArray(v) && v.every(isObject),
      defaultMessage: () => 'must hold objects only',
    },
  })
}
