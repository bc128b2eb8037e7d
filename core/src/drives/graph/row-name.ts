/** What a row of a sheet is called, in whichever list it stands; undefined where it has no name. */
export function rowName(row: unknown): string | undefined {
  const { label, name, what, text, act, place } = (row ?? {}) as Record<string, unknown>
  return [label, name, what, text, act, place].find((v) => typeof v === 'string') as string | undefined
}
