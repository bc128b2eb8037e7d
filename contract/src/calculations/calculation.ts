import { InputError } from '@moray/core/checks/input-error'
import { validate } from '../fields/validate.ts'

type Class<T extends object> = new () => T

export interface OutputField {
  name: string
  unit?: string
  what: string
}

/** Work in turns, so that a long calculation can be shown, stopped, and share its thread. */
export type Turns<Result extends object = object> = Generator<unknown, Result>

export interface Calculation {
  name: string
  what: string
  /** All classes that may apply; more than one where the fields depend on a choice. */
  inputs: Class<object>[]
  output: OutputField[]
  /** May take seconds; it shares no thread with those that take none. */
  long: boolean
  /** Checks the input, then computes in turns; a short calculation is one turn. @throws InputError */
  turns: (raw: unknown) => Turns
}

type KeyOf<T> = T extends unknown ? Extract<keyof T, string> : never

/**
 * One entry of the registry: the class that checks the input, the core function that takes what the class holds, and name, unit
 * and meaning of every field of its result. The types of all three are held against each other.
 * @param input the class, or how to choose among several by the raw input
 */
export function calculationOf<Input extends object, Result extends object>(
  name: string,
  what: string,
  input: Class<Input> | { choose: (raw: unknown) => Class<Input>; classes: Class<Input>[] },
  run: ((input: Input) => Result) | { turns: (input: Input) => Turns<Result> },
  output: [name: KeyOf<Result>, unit: string, what: string][],
): Calculation {
  const inputs = typeof input === 'function' ? [input] : input.classes
  const classFor = (raw: unknown) => (typeof input === 'function' ? input : input.choose(raw))
  return {
    name,
    what,
    inputs,
    long: typeof run !== 'function',
    output: output.map(([n, unit, w]) => ({ name: n, ...(unit ? { unit } : {}), what: w })),
    *turns(raw) {
      const checked = validate(classFor(raw), raw)
      const result = typeof run === 'function' ? run(checked) : yield* run.turns(checked)
      return mustBeFinite(result)
    },
  }
}

/**
 * Refuses a result with a figure that is none: JSON would make null of it, and nobody would know why.
 * @throws InputError `out-of-range`
 */
function mustBeFinite<T extends object>(result: T): T {
  const path = nonFinite(result, '')
  if (path === undefined) return result
  throw new InputError('out-of-range', [
    {
      path: '',
      message: `${path} cannot be computed from these figures: they lie outside what is possible. Check their units and sizes`,
    },
  ])
}

function nonFinite(value: unknown, path: string): string | undefined {
  if (typeof value === 'number') return Number.isFinite(value) ? undefined : path
  if (ArrayBuffer.isView(value)) return undefined
  if (typeof value !== 'object' || value === null) return undefined
  for (const [key, v] of Object.entries(value)) {
    const bad = nonFinite(v, path ? `${path}.${key}` : key)
    if (bad !== undefined) return bad
  }
  return undefined
}
