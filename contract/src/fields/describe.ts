type Class = new () => object

/** What a field is, as far as a form or a reader needs to know. */
export interface FieldFacts {
  type:
    | 'number'
    | 'whole'
    | 'flag'
    | 'text'
    | 'choice'
    | 'numbers'
    | 'texts'
    | 'object'
    | 'objects'
    | 'number-table'
    | 'answer-table'
  what?: string
  unit?: string
  optional?: boolean
  default?: unknown
  min?: number
  max?: number
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

/** The fields of a class (inherited ones first), nested classes included. */
export function describeClass(owner: Class): FieldDescription[] {
  const parent = Object.getPrototypeOf(owner) as Class | null
  const inherited = parent && facts.has(parent) ? describeClass(parent) : []
  const own = [...(facts.get(owner) ?? [])].map(([name, { of, ...rest }]) => ({
    name,
    ...rest,
    ...(of ? { fields: describeClass(of()) } : {}),
  }))
  return [...inherited, ...own]
}
