type Class = new () => object

export interface OutputField {
  name: string
  unit?: string
  what: string
}

/** Work in steps, so that a long calculation can be shown, stopped, and take turns with other work. */
export type Steps = Generator<unknown, object>

export interface Calculation {
  name: string
  what: string
  /** All classes that may apply; more than one where the fields depend on a choice. */
  inputs: Class[]
  /** The class for this input. */
  inputClass: (raw: unknown) => Class
  output: OutputField[]
  run: (input: never) => object
  /** Present where the calculation may take long. */
  steps?: (input: never) => Steps
}

/**
 * One entry of the registry.
 * @param input the class that checks the input, or how to choose among several
 * @param output name, unit and meaning of every field
 */
export function entry(
  name: string,
  what: string,
  input: Class | { choose: (raw: unknown) => Class; classes: Class[] },
  run: (input: never) => object,
  output: [name: string, unit: string, what: string][],
  steps?: (input: never) => Steps,
): Calculation {
  const inputs = typeof input === 'function' ? [input] : input.classes
  return {
    name,
    what,
    inputs,
    inputClass: typeof input === 'function' ? () => input : input.choose,
    output: output.map(([n, unit, w]) => ({ name: n, ...(unit ? { unit } : {}), what: w })),
    run,
    ...(steps ? { steps } : {}),
  }
}
