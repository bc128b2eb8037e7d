import { afterClosure } from './after-closure.ts'
import { InputError, refuse, type FieldProblem } from '../checks/input-error.ts'

export interface ReachPart {
  id: string
  /** Parts that must be off before this one can leave. */
  after: string[]
  /** Settings that it carries or sets. */
  sets?: string[]
}

export interface Reach {
  /** All that comes off, each after what it waits for; ties in the list's order. */
  order: string[]
  /** Settings that are disturbed by it, sorted. */
  disturbed: string[]
}

/**
 * What has to come off to get at some parts, and which settings that disturbs: the closure of `after` over the parts.
 * @throws InputError by name on an empty list, ids used twice, unknown ids, and parts that wait for one another
 */
export function reach({
  parts,
  targets,
}: {
  parts: readonly ReachPart[]
  targets: readonly string[]
}): Reach {
  if (!parts.length) refuse('parts', 'is empty; name the parts of the drive')
  if (!targets.length) refuse('targets', 'is empty; name what is to be reached')
  const byId = new Map<string, ReachPart>()
  const problems: FieldProblem[] = []
  parts.forEach((p, i) => {
    if (byId.has(p.id)) problems.push({ path: `parts[${i}].id`, message: `"${p.id}" is used twice` })
    byId.set(p.id, p)
  })
  const known = (path: string, id: string) => {
    if (!byId.has(id)) problems.push({ path, message: `"${id}" is no part of the list` })
  }
  parts.forEach((p, i) => p.after.forEach((a, k) => known(`parts[${i}].after[${k}]`, a)))
  targets.forEach((t, i) => known(`targets[${i}]`, t))
  if (problems.length) throw new InputError('invalid-input', problems)
  const circle = findCircle(parts)
  if (circle) refuse('parts', `wait for one another: ${circle.join(' after ')}`, 'cycle')

  const wanted = afterClosure(parts, targets)
  const order: string[] = []
  const off = new Set<string>()
  while (order.length < wanted.size) {
    const next = parts.find((p) => wanted.has(p.id) && !off.has(p.id) && p.after.every((a) => off.has(a)))!
    off.add(next.id)
    order.push(next.id)
  }
  const disturbed = new Set(order.flatMap((id) => byId.get(id)!.sets ?? []))
  return { order, disturbed: [...disturbed].sort() }
}

/** Parts that wait for one another, from one back to itself; undefined when the list can come apart. */
function findCircle(parts: readonly ReachPart[]): string[] | undefined {
  const left = new Map(parts.map((p) => [p.id, p.after.filter((a) => a !== '')]))
  for (let more = true; more;) {
    more = false
    for (const [id, after] of left)
      if (!after.some((a) => left.has(a))) {
        left.delete(id)
        more = true
      }
  }
  const [start] = left.keys()
  if (start === undefined) return undefined
  const walked: string[] = [start]
  for (;;) {
    const next = left.get(walked.at(-1)!)!.find((a) => left.has(a))!
    const before = walked.indexOf(next)
    if (before >= 0) return [...walked.slice(before), next]
    walked.push(next)
  }
}
