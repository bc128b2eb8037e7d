/**
 * Everything that has to be off before the targets are, themselves included: the closure over `after`.
 * @param parts ids that `after` names and that are not among them are followed no further
 * @param off what is off already: neither taken nor followed
 */
export function afterClosure(
  parts: readonly { id: string; after: readonly string[] }[],
  targets: readonly string[],
  off: ReadonlySet<string> = new Set(),
): Set<string> {
  const afterOf = new Map(parts.map((p) => [p.id, p.after]))
  const found = new Set<string>()
  const open = [...targets]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (off.has(id) || found.has(id)) continue
    found.add(id)
    open.push(...(afterOf.get(id) ?? []))
  }
  return found
}
