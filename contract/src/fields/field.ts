import 'reflect-metadata'
import { IsDefined, IsOptional, ValidateBy } from 'class-validator'
import { remember, type FieldFacts } from './describe.ts'

/**
 * One decorator for each kind of field: it validates, and it remembers what the field is, so that the
 * command line's `describe` and generated forms read the same source as the checks.
 */
export interface Common {
  /** What the field is, in the trade's words. */
  what: string
  unit?: string
  optional?: boolean
  /** Shown in descriptions; the core fills it in. */
  default?: unknown
}

export type Class = new () => object

export const apply = (
  facts: FieldFacts,
  common: Common,
  decorators: PropertyDecorator[],
): PropertyDecorator => {
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

/** A check that says itself what is wrong. */
export function Judged(name: string, message: (value: unknown) => string | undefined): PropertyDecorator {
  return ValidateBy({
    name,
    validator: {
      validate: (v: unknown) => message(v) === undefined,
      defaultMessage: (a) => message(a?.value) ?? '',
    },
  })
}

/** What no length, torque, pressure or price of this trade exceeds; fields with a narrower range say so. */
export const MOST_NUMBER = 1e6
export const isPlausible = (n: unknown) => typeof n === 'number' && Math.abs(n) <= MOST_NUMBER
