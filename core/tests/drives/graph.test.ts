import { describe, expect, it } from 'vitest'
import {
  caseTest,
  drainScrew,
  joinedTest,
  joinedTo,
  leftHanded,
  lubricantOf,
  propellerHeld,
  ringLock,
} from '../../src/drives/graph/unit-facts.ts'
import { checkGraph, inTheAir } from '../../src/drives/graph/check-graph.ts'
import { fastenersOf, partsOf } from '../../src/drives/graph/old-view.ts'
import type { Graph } from '../../src/drives/graph/rows.ts'

/** A small drive: a nut with its washer holds a propeller, four screws hold a cap with its ring, a seal is pressed into the cap. */
const small = (): Graph => ({
  parts: [
    { id: 'propeller', name: 'Propeller', kind: 'hub' },
    { id: 'cap', name: 'Cap', kind: 'cup', role: 'carrier', after: { propeller: true } },
    { id: 'ring', name: 'Ring', kind: 'ring', in: { cap: true } },
    { id: 'seal', name: 'Seal', kind: 'seal', on: { cap: true }, runsOn: { shaft: true } },
    { id: 'shaft', name: 'Shaft', kind: 'shaft', after: { cap: true } },
    { id: 'case', name: 'Case', kind: 'housing', role: 'body' },
  ],
  groups: [
    {
      id: 'nut',
      name: 'Propeller nut',
      count: 1,
      hand: 'left',
      lock: 'tab-washer',
      tabs: 2,
      torqueNm: { min: 40, max: 50 },
      pieces: [{ id: 'lock', name: 'Nut and tab washer' }],
      holds: { propeller: true },
    },
    { id: 'screws', name: 'Cap screws', count: 4, holds: { cap: true }, after: { nut: true } },
    { id: 'drain', name: 'Drain screw', count: 1, port: 'drain', plug: 'magnetic' },
  ],
  joints: [
    {
      id: 'cap',
      name: 'Cap to case',
      kind: 'cover',
      between: { cap: true, case: true },
      sealedBy: { ring: true },
      closedBy: { screws: true },
      behind: { case: true },
      provedBy: 'air',
    },
  ],
  spaces: [{ id: 'case', name: 'Case', holds: 'oil', fillMl: 300 }],
  propellers: [{ id: 'only', name: 'Propeller', held: 'tab-washer', heldBy: { nut: true } }],
})
const settings = { ids: new Set(['depth', 'bearing:top']), preloads: [] }
const wrong = (change: (g: Graph) => void) => {
  const graph = small()
  change(graph)
  return checkGraph(graph, settings).wrong.map((w) => `${w.path}: ${w.message}`)
}

describe('a graph', () => {
  it('that hangs together has nothing wrong and nothing doubtful', () => {
    expect(checkGraph(small(), settings)).toEqual({ wrong: [], doubtful: [] })
    expect(inTheAir(small()).map((r) => r.id)).toEqual(['drain'])
  })
  it.each<[string, (g: Graph) => void, RegExp]>([
    [
      'an edge that leads nowhere',
      (g) => (g.joints![0]!.closedBy = { bolts: true }),
      /^joints\[0\]\.closedBy: "bolts" does not exist; known are nut, screws, drain/,
    ],
    [
      'an edge into another kind of row',
      (g) => (g.parts[2]!.in = { nut: true }),
      /^parts\[2\]\.in: "nut" does not exist/,
    ],
    ['an id that is used twice', (g) => (g.parts[2]!.id = 'seal'), /^parts\[3\]\.id: "seal" is used twice/],
    [
      'a piece with the id of a part',
      (g) => (g.groups![0]!.pieces![0]!.id = 'ring'),
      /^groups\[0\]\.pieces\[0\]\.id: "ring" is used twice/,
    ],
    [
      'a group with the id of a part',
      (g) => {
        g.groups![1]!.id = 'ring'
        g.joints![0]!.closedBy = {}
      },
      /^groups\[1\]\.id: "ring" is the id of a part as well/,
    ],
    [
      'parts that wait for one another',
      (g) => (g.parts[0]!.after = { shaft: true }),
      /waits for .* waits for .*: none of them could come off/,
    ],
    [
      'a group that waits for what it holds',
      (g) => (g.groups![1]!.after = { seal: true }),
      /none of them could come off/,
    ],
    [
      'a nut as a part',
      (g) => g.parts.push({ id: 'n', name: 'Nut', kind: 'nut' }),
      /^parts\[6\]\.kind: Nut: /,
    ],
    ['no fastener in a group', (g) => (g.groups![1]!.count = 0), /^groups\[1\]\.count/],
    ['a torque upside down', (g) => (g.groups![1]!.torqueNm = { min: 9, max: 8 }), /upside down/],
    ['stages that fall', (g) => (g.groups![1]!.stages = [0.8, 0.5]), /^groups\[1\]\.stages/],
    ['tabs without a tab washer', (g) => (g.groups![0]!.lock = 'castle-pin'), /^groups\[0\]\.tabs/],
    [
      'what is set nowhere',
      (g) => (g.settings = [{ id: 'bearing:none' }]),
      /^settings\[0\]\.id: "bearing:none" is nothing that is set/,
    ],
  ])('with %s is refused by place and name', (_, change, why) => {
    expect(wrong(change).join('\n')).toMatch(why)
  })
  it.each<[string, (g: Graph) => void, RegExp]>([
    [
      'a joint that nothing closes',
      (g) => delete g.joints![0]!.closedBy,
      /Cap to case: nothing says what closes it/,
    ],
    [
      'a space that cannot be drained',
      (g) => delete g.groups![2]!.port,
      /Case: it holds oil, and no screw is the drain/,
    ],
    [
      'a joint that is not proved, and nobody says why',
      (g) => (g.joints![0]!.provedBy = 'none'),
      /nothing says why not/,
    ],
  ])('with %s is taken, and it is said', (_, change, why) => {
    const graph = small()
    change(graph)
    const found = checkGraph(graph, settings)
    expect(found.wrong).toEqual([])
    expect(found.doubtful.map((d) => d.message).join()).toMatch(why)
  })
  it('names a preload that no nut holds', () => {
    const preloads = [{ id: 'bearing:top', label: 'Top pair' }]
    const open = checkGraph(small(), { ...settings, preloads }).doubtful
    expect(open).toMatchObject([{ message: 'Top pair: nothing says which nut holds its preload' }])
    const held = { ...small(), settings: [{ id: 'bearing:top', preloadedBy: { nut: 'assumed' as const } }] }
    expect(checkGraph(held, { ...settings, preloads }).doubtful).toEqual([])
  })
})

describe('the lists that plan and route read', () => {
  it('have the pieces of a group right before what it holds, each after what covers it', () => {
    const after = Object.fromEntries(partsOf(small()).map((p) => [p.id, p.after]))
    expect(Object.keys(after)).toEqual(['lock', 'propeller', 'cap', 'ring', 'seal', 'shaft', 'case'])
    // the screws have no loose piece: what waits for them waits for what they wait for
    expect(after).toMatchObject({
      lock: [],
      propeller: ['lock'],
      cap: ['propeller', 'lock'],
      ring: ['cap'],
      seal: ['cap'],
    })
    expect(partsOf(small())[0]).toMatchObject({ kind: 'nut', thread: 'left' })
  })
  it('say every left-hand nut there is', () => {
    const graph = small()
    graph.groups![1]!.hand = 'left'
    expect(fastenersOf(graph).filter((f) => f.hand === 'left')).toHaveLength(2)
    expect(leftHanded(graph)).toHaveLength(2)
  })
  it('take an edge that is not known for none', () => {
    const graph = small()
    graph.parts[1]!.after = { propeller: 'unknown' }
    graph.groups![1]!.holds = { cap: 'unknown' }
    expect(partsOf(graph).find((p) => p.id === 'cap')!.after).toEqual([])
  })
  it('give the facts of one nut, one propeller, one drain', () => {
    const graph = small()
    expect(propellerHeld(graph)).toEqual({
      kind: 'tabs',
      tabs: 2,
      threads: 1,
      torqueNm: { min: 40, max: 50 },
      afterRun: true,
    })
    expect([ringLock(graph), joinedTo(graph)]).toEqual([undefined, undefined])
    expect([caseTest(graph), joinedTest(graph)]).toEqual([null, null])
    expect([drainScrew(graph)?.plug, lubricantOf(graph)]).toEqual(['magnetic', 'oil'])
  })
})
