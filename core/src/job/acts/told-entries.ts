import type { Deed, Verb } from '../../assembly/act.ts'
import type { AssemblyIndex } from '../../assembly/assembly-index.ts'
import type { AssemblyState } from '../../assembly/state.ts'
import type { JobRecord } from '../record.ts'
import { entry, type Entry, type Reading } from './entries.ts'

/** Lines that were accepted, and steps whose work was undone since. */
export const toldEntries = (job: JobRecord, ix: AssemblyIndex): Entry[] =>
  (job.told ?? []).flatMap((t): Entry[] => {
    if (t.kind === 'not-known') return []
    const said = {
      ...entry(`told ${t.id}`, t.at, 5, t.by, 'told' as const),
      entered: t.entered ?? null,
    }
    return t.kind === 'accepted'
      ? [{ ...said, deeds: () => [{ do: 'waive', on: t.subject }] }]
      : [{ ...said, deeds: ({ state, acts }) => undoneBy(ix, state, actsFrom(acts, `closing ${t.subject}`)) }]
  })

const actsFrom = (acts: readonly (Deed & { key: string })[], key: string): Deed[] =>
  acts.filter((a) => a.key === key)

/** What undoes an act. A new part stays new, and what was learned stays known. */
const BACK: Partial<Record<Verb, Verb>> = {
  fit: 'remove',
  'press-in': 'press-out',
  snug: 'loosen',
  tighten: 'loosen',
  fill: 'drain',
  join: 'part',
  press: 'let-out',
  'put-in': 'take-away',
}

/** The acts by which some acts are undone, the last one first, as far as they still stand. */
export function undoneBy(ix: AssemblyIndex, state: AssemblyState, deeds: readonly Deed[]): Deed[] {
  const seen = new Set<string>()
  return deeds.toReversed().flatMap((d): Deed[] => {
    const back = BACK[d.do]
    const key = `${back} ${d.on}`
    if (!back || seen.has(key) || !stands(ix, state, d)) return []
    seen.add(key)
    return [{ do: back, on: d.on }]
  })
}

function stands(ix: AssemblyIndex, state: AssemblyState, { do: verb, on }: Deed): boolean {
  switch (verb) {
    case 'fit':
    case 'press-in':
      return state.parts.get(on)?.at === 'in'
    case 'snug':
    case 'tighten':
      return ['snug', 'final'].includes(state.groups.get(on)?.at ?? '')
    case 'fill':
      return ix.spaces.has(on) && state.spaces.get(on)?.at === 'filled'
    case 'join':
      return state.interfaces.get(on) === 'joined'
    case 'press':
      return state.pressure
    default:
      return state.temporary.has(on)
  }
}

/** What would be undone of a closed step now; nothing where it did nothing that can be, or where that was said already. */
export const undoneOf = (
  {
    work: { ix, state, acts },
    told = [],
  }: { work: { ix: AssemblyIndex } & Reading } & Pick<JobRecord, 'told'>,
  closing: number,
): Deed[] =>
  told.some((t) => t.kind === 'undone' && t.subject === String(closing))
    ? []
    : undoneBy(ix, state, actsFrom(acts, `closing ${closing}`))
