/** A value as it may stand in a message: short, in quotes when it is text, and never walked into. */
export function show(value: unknown): string {
  if (value === undefined) return 'missing'
  if (value === null) return 'null'
  if (Array.isArray(value)) return `a list of ${value.length}`
  if (typeof value === 'object') return 'an object'
  if (typeof value !== 'string') return String(value)
  const text = JSON.stringify(value.length > 60 ? value.slice(0, 60) : value)
  return text.length > 40 ? `${text.slice(0, 37)}…` : text
}
