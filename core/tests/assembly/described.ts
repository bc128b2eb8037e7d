import type { Act, Deed } from '../../src/assembly/act.ts'
import type { AssemblyIndex } from '../../src/assembly/assembly-index.ts'
import { fold } from '../../src/assembly/fold.ts'
import { invariants, mayLeave } from '../../src/assembly/invariants.ts'
import { isProved, isTouched, jointAt, type AssemblyState } from '../../src/assembly/state.ts'

export const numbered = (deeds: readonly Deed[]): Act[] =>
  deeds.map((d, i) => ({
    ...d,
    n: i + 1,
    by: 'Ylva',
    entered: '2026-11-02T08:00:00.000Z',
    at: '2026-11-02T08:00:00.000Z',
    sure: 'seen',
    from: 'told',
  }))

/** Everything of a state that can be read off it, by what it is about. */
function described(ix: AssemblyIndex, state: AssemblyState): Map<string, string> {
  const words = (...all: (string | false | undefined)[]) => all.filter(Boolean).join(', ')
  const all = new Map<string, string>()
  for (const [id, p] of state.parts)
    all.set(
      `part ${id}`,
      words(
        p.at,
        p.lot && `with ${p.lot}`,
        p.until && `for ${p.until}`,
        p.instance > 1 && `new ${p.instance}`,
        p.condition !== 'unknown' && p.condition,
        p.why,
        p.moved && 'was off',
      ),
    )
  for (const [id, g] of state.groups)
    all.set(`group ${id}`, words(g.at, !g.locked && 'not locked', g.moves > 0 && `loosened ${g.moves}`))
  for (const [id, j] of state.joints)
    all.set(
      `joint ${id}`,
      words(
        jointAt(state, ix.joints.get(id)!),
        j.leaks && 'leaks',
        j.partings > 0 && `opened ${j.partings}`,
        j.proof && (j.proof.partings === j.partings ? 'proved' : 'proof lapsed'),
      ),
    )
  for (const [id, s] of ix.settings)
    all.set(
      `setting ${id}`,
      words(
        isTouched(state, s) ? 'touched' : 'as came',
        state.settings.get(id)!.proof && (isProved(state, s) ? 'proved' : 'proof lapsed'),
      ),
    )
  for (const [id, s] of state.spaces) all.set(`space ${id}`, words(s.at, !s.settled && 'not settled'))
  for (const [id, at] of state.interfaces) all.set(`interface ${id}`, at)
  for (const [id, stack] of state.stacks) all.set(`stack ${id}`, stack)
  for (const id of state.temporary) all.set(`put in ${id}`, 'there')
  for (const id of state.open) all.set(`open item ${id}`, 'open')
  for (const [topic, n] of state.unknownSince)
    all.set(`topic ${topic}`, (state.knownSince.get(topic) ?? -1) < n ? 'to be looked at' : 'known')
  all.set('unit', words(state.came, state.pressure && 'under pressure', state.end && `ends: ${state.end}`))
  return all
}

/**
 * The acts one after the other: what each took for done before it, what it changed (`~`), and which lines of the list came (`+`) and went (`-`).
 * Lines that the unit's end does not ask for stand in brackets.
 */
export function story(ix: AssemblyIndex, deeds: readonly Deed[]): string {
  const acts = numbered(deeds)
  let was = described(ix, fold(ix, []).state)
  let lines = new Set<string>()
  let free = true
  const told: string[] = []
  for (const [i, act] of acts.entries()) {
    const { state, inferred } = fold(ix, acts.slice(0, i + 1))
    told.push(
      [act.do, act.on, ...Object.entries(act.fig ?? {}).map(([k, v]) => `${k}=${String(v)}`)].join(' '),
    )
    for (const d of inferred) if (d.before === act.n) told.push(`  taken for done: ${d.do} ${d.on}`)
    const is = described(ix, state)
    for (const [key, now] of is) if (was.get(key) !== now) told.push(`  ~ ${key}: ${now}`)
    for (const key of was.keys()) if (!is.has(key)) told.push(`  ~ ${key}: gone`)
    const found = invariants(ix, state)
    const list = new Set(found.map((l) => (l.colour === 'red' ? `${l.code} ${l.on}` : `(${l.code} ${l.on})`)))
    for (const l of list) if (!lines.has(l)) told.push(`  + ${l}`)
    for (const l of lines) if (!list.has(l)) told.push(`  - ${l}`)
    if (mayLeave(found) !== free) told.push(free ? '  must not leave' : '  may leave')
    free = mayLeave(found)
    was = is
    lines = list
  }
  return `${told.join('\n')}\n`
}

/** Everything that the index of a sheet holds, a row a line. */
export function listed(ix: AssemblyIndex): string {
  const line = (kind: string, id: string, of: Record<string, unknown>) =>
    [
      `${kind} ${id}`,
      ...Object.entries(of).flatMap(([name, value]) =>
        value === undefined || value === false || (Array.isArray(value) && !value.length)
          ? []
          : [value === true ? name : `${name}: ${Array.isArray(value) ? value.join(' ') : String(value)}`],
      ),
    ].join('; ')
  return `${[
    `shifts: ${ix.shifts}`,
    ...[...ix.parts].map(([id, { id: _, ...p }]) =>
      line('part', id, { ...p, 'comes with it': ix.lots.get(id), holders: ix.holders.get(id) }),
    ),
    ...[...ix.groups].map(([id, { row: _, ...g }]) => line('group', id, g)),
    ...[...ix.joints].map(([id, { row: _, ...j }]) => line('joint', id, j)),
    ...[...ix.settings].map(([id, { id: _, ...s }]) => line('setting', id, s)),
    ...[...ix.interfaces].map(([id, i]) => line('interface', id, { sharesOil: i.sharesOil })),
    ...[...ix.spaces].map(([id, s]) => line('space', id, { holds: s.holds })),
  ].join('\n')}\n`
}
