import 'reflect-metadata'
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
  Max,
  Min,
  ValidateBy,
  ValidateNested,
} from 'class-validator'
import { remember, type FieldFacts } from './describe.ts'
import { isObject, MOST_IN_TABLE } from './instantiate.ts'
import { show } from './show.ts'
import { isVisible, textProblem } from './text-rule.ts'

/** The name of a row of a sheet: part of the paths of its figures, so it holds no point. */
const ROW_ID = /^[a-z0-9][a-z0-9-]{0,59}$/i

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

/** What no length, torque, pressure or price of this trade exceeds; fields with a narrower range say so. */
const MOST_NUMBER = 1e6

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

/** A merge patch: an object of values and objects, null where something is taken away. Bounded in depth and size. */
export function MergePatch(options: Common): PropertyDecorator {
  return apply({ type: 'patch', max: MOST_IN_PATCH }, options, [
    Judged('isPatch', (v) => {
      if (!isObject(v)) return `must be an object, not ${show(v)}`
      let count = 0
      const problem = (x: unknown, depth: number): string | undefined => {
        if (++count > MOST_IN_PATCH) return `holds more than ${MOST_IN_PATCH} values`
        if (depth > DEEPEST_PATCH) return `is nested deeper than ${DEEPEST_PATCH}`
        if (x === null || typeof x === 'boolean' || isPlausible(x)) return undefined
        if (typeof x === 'string')
          return (
            textProblem(x) ??
            (x.length > 400 ? `holds a text of ${x.length} characters; at most 400` : undefined)
          )
        if (typeof x === 'number') return `holds ${show(x)}`
        for (const [name, inner] of Object.entries(x as object)) {
          const bad =
            name in Object.prototype ? `holds the name "${name}", which nothing can have` : textProblem(name)
          if (bad) return bad
          const deeper = problem(inner, depth + 1)
          if (deeper) return deeper
        }
        return undefined
      }
      return problem(v, 0)
    }),
  ])
}
const MOST_IN_PATCH = 2000
const DEEPEST_PATCH = 8

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

/** A check that says itself what is wrong. */
function Judged(name: string, message: (value: unknown) => string | undefined): PropertyDecorator {
  return ValidateBy({
    name,
    validator: {
      validate: (v: unknown) => message(v) === undefined,
      defaultMessage: (a) => message(a?.value) ?? '',
    },
  })
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

/** A table from ids to numbers. */
export function NumberTable(options: Common): PropertyDecorator {
  return apply({ type: 'number-table', max: MOST_IN_TABLE }, options, [
    Judged('isNumberTable', (v) =>
      isObject(v) && Object.values(v).every(isPlausible)
        ? undefined
        : `must be a table of finite numbers by id, between ${-MOST_NUMBER} and ${MOST_NUMBER}`,
    ),
  ])
}

/** Edges to other rows by their ids: said, assumed, or asked about and not known. */
export function EdgeMap(options: Common): PropertyDecorator {
  const most = 60
  return apply({ type: 'edges', max: most }, options, [
    Judged('isEdgeMap', (v) => {
      if (!isObject(v)) return `must be a table of ids, not ${show(v)}`
      for (const [id, sure] of Object.entries(v)) {
        if (!EDGE_ID.test(id)) return `names "${id.slice(0, 60)}", which is no id`
        if (sure !== true && sure !== 'assumed' && sure !== 'unknown')
          return `holds ${show(sure)} for "${id}"; one of true, "assumed", "unknown"`
      }
      return undefined
    }),
  ])
}
/** Rows have plain ids; what is set may be named by its kind and its id. */
const EDGE_ID = /^[A-Za-z0-9][A-Za-z0-9:-]{0,79}$/

/** A table from facts to answers: yes or no, a number, or text (a number may come as text in bench notation). */
export function AnswerTable(options: Common): PropertyDecorator {
  const most = 100
  return apply({ type: 'answer-table', max: most }, options, [
    Judged('isAnswerTable', (v) => {
      if (!isObject(v)) return `must be a table of answers, not ${show(v)}`
      for (const [fact, x] of Object.entries(v)) {
        const bad = answerProblem(x)
        if (bad) return `"${fact}" ${bad}`
      }
      return undefined
    }),
  ])
}

const isPlausible = (n: unknown) => typeof n === 'number' && Math.abs(n) <= MOST_NUMBER

function answerProblem(x: unknown): string | undefined {
  if (typeof x === 'boolean') return undefined
  if (typeof x === 'number')
    return isPlausible(x) ? undefined : `is ${x}; between ${-MOST_NUMBER} and ${MOST_NUMBER} is possible`
  if (typeof x !== 'string') return `must be yes or no, a number or text, not ${show(x)}`
  return textProblem(x) ?? (x.length > 600 ? `has ${x.length} characters; at most 600 are kept` : undefined)
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
