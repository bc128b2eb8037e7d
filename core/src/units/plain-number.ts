/** A plain number as it is written at the bench, with a point or a comma; undefined when it is anything else. */
export function plainNumber(text: string): number | undefined {
  const trimmed = text.trim()
  return /^[+-]?(\d+([.,]\d*)?|[.,]\d+)$/.test(trimmed) ? Number(trimmed.replace(',', '.')) : undefined
}
