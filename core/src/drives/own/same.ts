/** The same, whatever the order of the names. */
export function same(a: unknown, b: unknown): boolean {
  if (a === b) return true
  if (typeof a !== 'object' || typeof b !== 'object' || a === null || b === null) return false
  if (Array.isArray(a) || Array.isArray(b))
    return Array.isArray(a) && Array.isArray(b) && a.length === b.length && a.every((v, i) => same(v, b[i]))
  const [x, y] = [Object.entries(a), Object.entries(b)]
  return (
    x.length === y.length &&
    x.every(([k, v]) => Object.hasOwn(b, k) && same(v, (b as Record<string, unknown>)[k]))
  )
}
