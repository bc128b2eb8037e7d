import type { ShimSolveInput } from './shim-problem.ts'

/** What the finished units of a sheet have taught about the next one. */
export interface Experience {
  /** Units behind it. */
  units: number
  /** Stacks that the values are quoted at, mm: the mean of what was built. */
  at: Record<string, number>
  /** Spread of what was built between units, mm: standard deviation. */
  spread: Record<string, number>
  /** What the next unit will read with those stacks: mean, and standard deviation with all that is not known of it. mm. */
  measures: Record<string, { mean: number; sd: number; units: number }>
  /** How backlash answers, as units have shown it; relative standard deviation for a unit not seen yet. */
  sensitivity: Record<string, Record<string, { mean: number; relU: number; trials: number }>>
}

/** A question to the solver whose sensitivities are those that units of the sheet have shown. */
export function withExperience(input: ShimSolveInput, experience: Experience | undefined): ShimSolveInput {
  if (!experience) return input
  return {
    ...input,
    quantities: input.quantities.map((q) => {
      const shown = experience.sensitivity[q.id] ?? {}
      const entry = <T>(of: (s: string) => T) =>
        Object.fromEntries(Object.keys(q.sensitivity).map((s) => [s, of(s)]))
      return {
        ...q,
        sensitivity: entry((s) => shown[s]?.mean ?? q.sensitivity[s]!),
        relUByStack: entry((s) => shown[s]?.relU ?? q.relUByStack?.[s] ?? q.relU ?? 0),
      }
    }),
  }
}
