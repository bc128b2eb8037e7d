export type Class = new () => object

/** What a field is, as far as a form or a reader needs to know. */
export interface FieldFacts {
  type:
    | 'number'
    | 'whole'
    | 'flag'
    | 'text'
    | 'id'
    | 'choice'
    | 'numbers'
    | 'texts'
    | 'object'
    | 'objects'
    | 'number-table'
    | 'answer-table'
    | 'patch'
    | 'edges'
  what?: string
  unit?: string
  optional?: boolean
  default?: unknown
  /** Smallest value of a number, least length of a text. */
  min?: number
  /** Largest value of a number, greatest length of a text, list or table. */
  max?: number
  /** Least length of a list. */
  least?: number
  /** Greatest length of one text of a list. */
  long?: number
  /** A text whose blank beginning counts: it is kept as it came, and not trimmed. */
  asIs?: boolean
  values?: (string | number)[]
  of?: () => Class
}

export interface FieldDescription extends Omit<FieldFacts, 'of'> {
  name: string
  fields?: FieldDescription[]
}

const facts = new Map<Class, Map<string, FieldFacts>>()

/** Called by the field decorators. */
export function remember(owner: Class, property: string, field: FieldFacts) {
  const own = facts.get(owner) ?? new Map<string, FieldFacts>()
  own.set(property, field)
  facts.set(owner, own)
}

/** The fields of a class by name, inherited ones first. */
export function factsOfClass(owner: Class): Map<string, FieldFacts> {
  const cached = whole.get(owner)
  if (cached) return cached
  const parent = Object.getPrototypeOf(owner) as Class | null
  const inherited = parent && (facts.has(parent) || whole.has(parent)) ? factsOfClass(parent) : []
  const all = new Map([...inherited, ...(facts.get(owner) ?? [])])
  whole.set(owner, all)
  return all
}
const whole = new WeakMap<Class, Map<string, FieldFacts>>()

/** The fields of a class (inherited ones first), nested classes included. */
export function describeClass(owner: Class): FieldDescription[] {
  return [...factsOfClass(owner)].map(([name, { of, ...rest }]) => ({
    name,
    ...rest,
    ...(of ? { fields: describeClass(of()) } : {}),
  }))
}
