import 'reflect-metadata'
import { Type } from 'class-transformer'
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsDefined,
  IsIn,
  IsInt,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Max,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator'
import { remember, type FieldFacts } from './describe.ts'

/**
 * One decorator for each kind of field: it validates, and it remembers what the field is, so that the
 * command line's `describe` and generated forms read the same source as the checks.
 */
interface Common {
  /** What the field is, in the trade's words. */
  what: string
  unit?: string
  optional?: boolean
  /** Shown in descriptions; the core fills it in. */
  default?: unknown
}

type Class = new () => object

const apply = (facts: FieldFacts, common: Common, decorators: PropertyDecorator[]): PropertyDecorator => {
  return (target, property) => {
    const { what, unit, optional = false } = common
    remember(target.constructor as Class, String(property), {
      ...facts,
      what,
      optional,
      ...(unit ? { unit } : {}),
      ...(common.default !== undefined ? { default: common.default } : {}),
    })
    // IsOptional would let null through as well; validate() refuses nulls before it comes to that
    const presence = optional ? [IsOptional()] : [IsDefined({ message: 'is missing' })]
    for (const d of [...presence, ...decorators]) d(target, property)
  }
}

const isFinite = () =>
  IsNumber(
    { allowNaN: false, allowInfinity: false },
    { message: (a) => `must be a finite number, not ${show(a.value)}` },
  )

/** A finite number, with limits where the computation has them. */
export function Num(options: Common & { min?: number; max?: number }): PropertyDecorator {
  const { min, max } = options
  return apply(
    { type: 'number', ...(min !== undefined ? { min } : {}), ...(max !== undefined ? { max } : {}) },
    options,
    [
      isFinite(),
      ...(min !== undefined
        ? [Min(min, { message: (a) => `is ${show(a.value)}; it must not be below ${min}` })]
        : []),
      ...(max !== undefined
        ? [Max(max, { message: (a) => `is ${show(a.value)}; it must not be above ${max}` })]
        : []),
    ],
  )
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

export function Text(options: Common & { min?: number; max: number }): PropertyDecorator {
  const { min = 0, max } = options
  return apply({ type: 'text', max }, options, [
    IsString({ message: (a) => `must be text, not ${show(a.value)}` }),
    Length(min, max, {
      message: (a) =>
        String(a.value ?? '').length < min
          ? min === 1
            ? 'is empty; write something'
            : `is too short; at least ${min} characters`
          : `has ${String(a.value ?? '').length} characters; at most ${max} are kept`,
    }),
  ])
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
  return apply({ type: 'numbers', max: most }, options, [
    IsArray({ message: (a) => `must be a list, not ${show(a.value)}` }),
    ArrayMaxSize(most, { message: `holds too many entries; at most ${most}` }),
    ArrayMinSize(least, { message: `holds too few entries; at least ${least}` }),
    IsNumber(
      { allowNaN: false, allowInfinity: false },
      { each: true, message: 'must hold finite numbers only' },
    ),
  ])
}

/** A list of short texts. */
export function Texts(options: Common & { most: number; least?: number }): PropertyDecorator {
  const { most, least = 0 } = options
  return apply({ type: 'texts', max: most }, options, [
    IsArray({ message: (a) => `must be a list, not ${show(a.value)}` }),
    ArrayMaxSize(most, { message: `holds too many entries; at most ${most}` }),
    ArrayMinSize(least, { message: `holds too few entries; at least ${least}` }),
    IsString({ each: true, message: 'must hold texts only' }),
    Length(1, 60, { each: true, message: 'must hold texts of 1 to 60 characters' }),
  ])
}

/** A nested object of one class. */
export function One(of: () => Class, options: Common): PropertyDecorator {
  return apply({ type: 'object', of }, options, [
    Type(of),
    IsPlainObject(),
    ValidateNested({ message: 'must be an object' }),
  ])
}

/** A list of nested objects of one class. */
export function Many(of: () => Class, options: Common & { most: number; least?: number }): PropertyDecorator {
  const { most, least = 0 } = options
  return apply({ type: 'objects', of, max: most }, options, [
    Type(of),
    IsArray({ message: (a) => `must be a list, not ${show(a.value)}` }),
    ArrayMaxSize(most, { message: `holds too many entries; at most ${most}` }),
    ArrayMinSize(least, { message: `holds too few entries; at least ${least}` }),
    EachPlainObject(),
    ValidateNested({ each: true, message: 'must hold objects' }),
  ])
}

/** A table from ids to numbers. */
export function NumberTable(options: Common): PropertyDecorator {
  return apply({ type: 'number-table' }, options, [
    ValidateBy({
      name: 'isNumberTable',
      validator: {
        validate: (v: unknown) =>
          isObject(v) && Object.values(v).every((n) => typeof n === 'number' && Number.isFinite(n)),
        defaultMessage: () => 'must be a table of finite numbers by id',
      },
    }),
  ])
}

/** A table from facts to answers: yes or no, a number, or text (a number may come as text in bench notation). */
export function AnswerTable(options: Common): PropertyDecorator {
  const most = 100
  return apply({ type: 'answer-table' }, options, [
    ValidateBy({
      name: 'isAnswerTable',
      validator: {
        validate: (v: unknown) =>
          isObject(v) &&
          Object.keys(v).length <= most &&
          Object.values(v).every(
            (x) =>
              typeof x === 'boolean' ||
              (typeof x === 'number' && Number.isFinite(x)) ||
              (typeof x === 'string' && x.length <= 600),
          ),
        defaultMessage: () => `must be a table of at most ${most} answers: yes or no, numbers, short texts`,
      },
    }),
  ])
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

function isObject(v: unknown): v is Record<string, unknown> {
  return typeof v === 'object' && v !== null && !Array.isArray(v)
}

/** A value as it may stand in a message: short, and in quotes when it is text. */
export function show(value: unknown): string {
  if (value === undefined) return 'missing'
  if (typeof value === 'number') return String(value)
  const text = JSON.stringify(value) ?? String(value)
  return text.length > 40 ? `${text.slice(0, 37)}…` : text
}
