import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { ENDS, VERBS, type Act, type Deed, type Verb } from '../../src/assembly/act.ts'
import { assemblyIndex, type AssemblyIndex } from '../../src/assembly/assembly-index.ts'
import { applyEffect } from '../../src/assembly/effects.ts'
import { fold } from '../../src/assembly/fold.ts'
import { invariants } from '../../src/assembly/invariants.ts'
import { missingBefore } from '../../src/assembly/needs.ts'
import { asItCame, type AssemblyState } from '../../src/assembly/state.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { times } from '../long.ts'

const act = (deed: Deed, n: number): Act => ({
  ...deed,
  n,
  by: '',
  entered: '',
  at: '',
  sure: 'seen',
  from: 'told',
})

/** Any deed on any row of a sheet that it can be done to, or on one that the sheet has not. */
function anyDeed(ix: AssemblyIndex): fc.Arbitrary<Deed> {
  const rows: Record<string, string[]> = {
    part: [...ix.parts.keys()],
    group: [...ix.groups.keys()],
    joint: [...ix.joints.keys()],
    setting: [...ix.settings.keys()],
    space: [...ix.spaces.keys()],
    interface: [...ix.interfaces.keys()],
    stack: ['pinion', 'forward'],
    test: ['case', 'joined'],
    topic: ['shift', 'water', 'ratio'],
    thing: ['chip', 'blank'],
    line: [...[...ix.parts.keys()].map((id) => `part-not-in ${id}`), 'unsafe-in housing'],
    unit: ['unit'],
  }
  return fc.constantFrom(...(Object.keys(VERBS) as Verb[])).chain((verb) => {
    const on = rows[VERBS[verb]]!
    return fc.record({
      do: fc.constant(verb),
      on: fc.constantFrom(...(on.length ? on : ['nothing']), 'nothing'),
      fig: fc.record(
        {
          condition: fc.constantFrom('good', 'condemned', 'unsafe'),
          until: fc.constantFrom('trial', 'good'),
          verdict: fc.constantFrom('good', 'bad'),
          check: fc.boolean(),
          dry: fc.boolean(),
          end: fc.constantFrom(...ENDS),
          stack: fc.constantFrom('0.800', '0.850'),
        },
        { requiredKeys: [] },
      ) as fc.Arbitrary<NonNullable<Deed['fig']>>,
    })
  })
}
const histories = fc.constantFrom(...demoSheets).chain((sheet) => {
  const ix = assemblyIndex(sheet)
  return fc.record({ ix: fc.constant(ix), deeds: fc.array(anyDeed(ix), { maxLength: 40 }) })
})
const numbered = (deeds: readonly Deed[]) => deeds.map((d, i) => act(d, i + 1))

/** All of a state, to be compared. */
const whole = (s: AssemblyState): unknown =>
  JSON.parse(
    JSON.stringify(s, (_, v: unknown) =>
      v instanceof Map ? [...v].sort() : v instanceof Set ? [...v].sort() : v,
    ),
  )

describe('whatever was done, in whatever order', () => {
  it('has a state, and lines that name rows that are there', () => {
    fc.assert(
      fc.property(histories, ({ ix, deeds }) => {
        const { state } = fold(ix, numbered(deeds))
        for (const l of invariants(ix, state)) {
          expect(l.on).not.toBe('')
          if (l.code === 'part-not-in') expect(ix.parts.has(l.on)).toBe(true)
          if (l.code === 'group-not-tight') expect(ix.groups.has(l.on)).toBe(true)
        }
      }),
      { numRuns: times(150, 3000) },
    )
  })
  it('a lot moves as one: what lies in a part that leaves leaves with it, and comes back with it', () => {
    fc.assert(
      fc.property(histories, fc.nat(), ({ ix, deeds }, pick) => {
        const { state } = fold(ix, numbered(deeds))
        const hosts = [...ix.lots].filter(([id, lot]) => lot.length && state.parts.get(id)!.at === 'in')
        if (!hosts.length) return
        const [host, lot] = hosts[pick % hosts.length]!
        const inside = lot.filter((m) => state.parts.get(m)!.at === 'in')
        applyEffect(ix, state, act({ do: 'remove', on: host }, 100))
        for (const m of inside) expect(state.parts.get(m)!.at).toBe('tray')
        applyEffect(ix, state, act({ do: 'fit', on: host }, 101))
        for (const m of [host, ...inside]) expect(state.parts.get(m)!.at).toBe('in')
      }),
      { numRuns: times(150, 3000) },
    )
  })
  it('what is opened is no longer proved, and only what its edges name is touched', () => {
    fc.assert(
      fc.property(histories, fc.nat(), ({ ix, deeds }, pick) => {
        const { state } = fold(ix, numbered(deeds))
        const part = [...ix.parts.keys()][pick % ix.parts.size]!
        const before = structuredClone(state)
        applyEffect(ix, state, act({ do: 'remove', on: part }, 100))
        const lot = new Set([part, ...ix.lots.get(part)!])
        for (const [id, p] of state.parts) if (!lot.has(id)) expect(p).toEqual(before.parts.get(id))
        for (const [id, g] of state.groups) expect(g).toEqual(before.groups.get(id))
        for (const [id, j] of state.joints) {
          const { between, sealedBy } = ix.joints.get(id)!
          const named = [...between, ...sealedBy].some((m) => lot.has(m))
          if (!named) expect(j).toEqual(before.joints.get(id))
          else if (j.partings > before.joints.get(id)!.partings)
            expect(j.proof?.partings).not.toBe(j.partings)
        }
        for (const [id, s] of state.settings)
          if (!ix.settings.get(id)!.carriers.some((c) => lot.has(c)))
            expect(s).toEqual(before.settings.get(id))
      }),
      { numRuns: times(150, 3000) },
    )
  })
  it('what is drained is out, what is fitted is in or in its host, what is tight was not loose', () => {
    fc.assert(
      fc.property(histories, ({ ix, deeds }) => {
        const { state } = fold(ix, numbered(deeds))
        let n = 100
        for (const id of ix.spaces.keys()) {
          applyEffect(ix, state, act({ do: 'drain', on: id }, n++))
          expect(state.spaces.get(id)!.at).toBe('out')
        }
        for (const id of ix.parts.keys()) {
          applyEffect(ix, state, act({ do: 'fit', on: id }, n++))
          const { at, lot } = state.parts.get(id)!
          expect(at === 'in' || (at === 'tray' && state.parts.get(lot!)!.at === 'tray')).toBe(true)
        }
        for (const id of ix.groups.keys()) {
          applyEffect(ix, state, act({ do: 'tighten', on: id }, n++))
          expect(state.groups.get(id)!.at).toBe('final')
        }
      }),
      { numRuns: times(100, 2000) },
    )
  })
  it('of two acts on groups that meet nowhere the order does not count', () => {
    fc.assert(
      fc.property(
        histories,
        fc.nat(),
        fc.nat(),
        fc.constantFrom<Verb>('loosen', 'take-out', 'tighten', 'lock'),
        ({ ix, deeds }, i, k, verb) => {
          const groups = [...ix.groups.keys()]
          const [a, b] = [groups[i % groups.length]!, groups[k % groups.length]!]
          const meets = (x: string, y: string) => {
            const [g, h] = [ix.groups.get(x)!, ix.groups.get(y)!]
            return (
              x === y ||
              g.closes.some((j) => h.closes.includes(j)) ||
              g.preloads.some((s) => h.preloads.includes(s))
            )
          }
          if (meets(a, b)) return
          const start = numbered(deeds)
          const both = [a, b].map((on) => ({ do: verb, on }))
          const state = (order: Deed[]) => {
            const s = fold(ix, start).state
            for (const d of order) applyEffect(ix, s, act(d, 100))
            return whole(s)
          }
          expect(state(both)).toEqual(state([...both].reverse()))
        },
      ),
      { numRuns: times(150, 3000) },
    )
  })
  it('after what is missing before an act was done, nothing is missing any more', () => {
    fc.assert(
      fc.property(histories, ({ ix, deeds }) => {
        const state = asItCame(ix)
        let n = 1
        for (const deed of deeds) {
          for (const before of missingBefore(ix, state, deed)) applyEffect(ix, state, act(before, n++))
          if (['remove', 'loosen', 'take-out'].includes(deed.do))
            expect(missingBefore(ix, state, deed), `${deed.do} ${deed.on}`).toEqual([])
          applyEffect(ix, state, act(deed, n++))
        }
      }),
      { numRuns: times(150, 3000) },
    )
  })
})
