/** What is known of a job: answers given at steps, and what the rest of the job says (see job-facts.ts). */
export type FactValue = boolean | number | string
export type Facts = Readonly<Record<string, FactValue>>

/** A question about facts that is answered yes or no. A fact that is not known answers no (but yes under `not`). */
export type Condition =
  | { fact: string; is: FactValue }
  | { fact: string; oneOf: FactValue[] }
  | { fact: string; atLeast: number }
  | { fact: string; atMost: number }
  | { fact: string; sameAs: string }
  | { known: string }
  | { all: Condition[] }
  | { any: Condition[] }
  | { not: Condition }

/** An answer like "not done here" (honest.ts) is kept, and tells nothing. */
export const isKnown = (value: FactValue | undefined): value is FactValue =>
  value !== undefined && !(typeof value === 'string' && value.startsWith('~'))

export function holds(condition: Condition, facts: Facts): boolean {
  if ('all' in condition) return condition.all.every((c) => holds(c, facts))
  if ('any' in condition) return condition.any.some((c) => holds(c, facts))
  if ('not' in condition) return !holds(condition.not, facts)
  if ('known' in condition) return isKnown(facts[condition.known])
  const value = facts[condition.fact]
  if (!isKnown(value)) return false
  if ('is' in condition) return value === condition.is
  if ('oneOf' in condition) return condition.oneOf.includes(value)
  if ('sameAs' in condition) return value === facts[condition.sameAs]
  if ('atLeast' in condition) return typeof value === 'number' && value >= condition.atLeast
  return typeof value === 'number' && value <= condition.atMost
}

/** Every fact that a condition asks for. */
export function factsIn(condition: Condition): string[] {
  if ('all' in condition) return condition.all.flatMap(factsIn)
  if ('any' in condition) return condition.any.flatMap(factsIn)
  if ('not' in condition) return factsIn(condition.not)
  if ('known' in condition) return [condition.known]
  return 'sameAs' in condition ? [condition.fact, condition.sameAs] : [condition.fact]
}
