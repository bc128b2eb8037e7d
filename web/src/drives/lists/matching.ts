/** A row that can be picked. */
export interface Option {
  id: string
  label: string
}

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** How well a name fits: every word that was typed begins one of its words. The first word counts most, then a short name. */
function fit(query: readonly string[], label: string): number {
  const words = wordsOf(label)
  if (!query.every((q) => words.some((w) => w.startsWith(q)))) {
    // letters out of the middle of a word are better than nothing
    return query.every((q) => words.join(' ').includes(q)) ? 1 : 0
  }
  return 2 + (words[0]!.startsWith(query[0]!) ? 2 : 0) + 1 / (1 + words.length)
}

/** The rows whose names fit a few letters, the best first. */
export function matching(text: string, options: readonly Option[]): Option[] {
  const query = wordsOf(text)
  if (!query.length) return [...options]
  return options
    .map((o) => ({ o, n: fit(query, o.label) }))
    .filter(({ n }) => n > 0)
    .sort((a, b) => b.n - a.n)
    .map(({ o }) => o)
}

/** The only row that a name can mean: the one that is called so, or the only one that fits. */
export function theOne(text: string, options: readonly Option[]): Option | undefined {
  const same = options.filter((o) => wordsOf(o.label).join(' ') === wordsOf(text).join(' '))
  if (same.length === 1) return same[0]
  const fitting = options.filter((o) => fit(wordsOf(text), o.label) >= 2)
  return fitting.length === 1 ? fitting[0] : undefined
}
