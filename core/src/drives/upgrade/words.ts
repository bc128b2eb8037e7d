/** A name without case, signs and double spaces. */
const bare = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()

/** Whether two names of an older sheet mean the same thing: they are the same, whatever their case and signs. */
export const sameName = (a: string, b: string): boolean => bare(a) !== '' && bare(a) === bare(b)

/** Whether one of the names is the other with more words behind it: "Ring nut" and "Ring nut and tab washer". */
export function isLonger(a: string, b: string): boolean {
  const [x, y] = [bare(a), bare(b)]
  return x !== '' && y !== '' && (x === y || x.startsWith(`${y} `) || y.startsWith(`${x} `))
}

/** An id that is not taken, and is from now on. */
export function freeId(wanted: string, taken: Set<string>): string {
  let id = wanted
  for (let n = 2; taken.has(id); n++) id = `${wanted.slice(0, 56)}-${n}`
  taken.add(id)
  return id
}
