import type { Act, Deed } from './act.ts'
import type { AssemblyIndex } from './assembly-index.ts'
import type { AssemblyState } from './state.ts'

const NEEDING: ReadonlySet<Act['do']> = new Set<Act['do']>([
  'remove',
  'press-out',
  'take-out',
  'loosen',
  'snug',
  'tighten',
])
const NOTHING: readonly Deed[] = []

/**
 * What has to have been done before an act, and was not: as deeds, in the order in which they come. A nut is off before what it holds, what covers a thing
 * before the thing, an interface before what lies behind it.
 */
export function missingBefore(
  ix: AssemblyIndex,
  state: AssemblyState,
  act: Pick<Act, 'do' | 'on'>,
): readonly Deed[] {
  if (!NEEDING.has(act.do)) return NOTHING
  const missing: Deed[] = []
  const seen = new Set<string>()
  const groupOff = (id: string) => {
    const key = `group ${id}`
    const group = ix.groups.get(id)
    const at = state.groups.get(id)?.at
    if (!group || at === 'out' || seen.has(key)) return
    seen.add(key)
    for (const i of group.interfaces) partedFirst(i)
    off(group.after)
    if (at !== 'loose') missing.push({ do: 'loosen', on: id })
    missing.push({ do: 'take-out', on: id })
  }
  const partOff = (id: string) => {
    const key = `part ${id}`
    const part = ix.parts.get(id)
    if (!part || part.body || state.parts.get(id)?.at !== 'in' || seen.has(key)) return
    seen.add(key)
    before(id)
    missing.push({ do: 'remove', on: id })
  }
  const off = (ids: readonly string[]) => {
    for (const id of ids)
      if (ix.groups.has(id)) groupOff(id)
      else partOff(id)
  }
  const partedFirst = (id: string) => {
    if (state.interfaces.get(id) === 'parted' || seen.has(`interface ${id}`) || !ix.interfaces.has(id)) return
    seen.add(`interface ${id}`)
    missing.push({ do: 'part', on: id })
  }
  const before = (id: string) => {
    const part = ix.parts.get(id)!
    for (const i of part.interfaces) partedFirst(i)
    off(part.after)
    // what is pressed on something is got at once that is out
    off([...part.on, ...part.in])
    for (const g of ix.holders.get(id) ?? []) groupOff(g)
    if (part.group !== undefined) groupOff(part.group)
  }
  switch (act.do) {
    case 'remove':
    case 'press-out':
      if (ix.parts.has(act.on)) {
        seen.add(`part ${act.on}`)
        before(act.on)
      }
      break
    case 'take-out': {
      const group = ix.groups.get(act.on)
      if (group && state.groups.get(act.on)!.at !== 'loose' && state.groups.get(act.on)!.at !== 'out')
        missing.push({ do: 'loosen', on: act.on })
      break
    }
    case 'loosen': {
      const group = ix.groups.get(act.on)
      if (!group) break
      seen.add(`group ${act.on}`)
      for (const i of group.interfaces) partedFirst(i)
      off(group.after)
      break
    }
    case 'snug':
    case 'tighten':
      for (const p of ix.groups.get(act.on)?.pieces ?? [])
        if (state.parts.get(p)?.at === 'tray') missing.push({ do: 'fit', on: p })
      break
    default:
      break
  }
  return missing
}
