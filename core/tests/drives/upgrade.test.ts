import {
  captives,
  caseTest,
  hiddenOnes,
  joinedTest,
  joinedTo,
  labourOf,
  leftHanded,
  lubricantOf,
  propellerHeld,
  ringLock,
  thrustHubOf,
  wayOf,
} from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { figureAt } from '../../src/drives/own/body.ts'
import { bodyOf } from '../../src/drives/own/body-of.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { ofVariant } from '../../src/drives/own/variants.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { Body3 } from '../../src/drives/upgrade/body-3.ts'
import { movedPath, movesOf } from '../../src/drives/upgrade/paths.ts'
import { asBody, upgraded, type StoredSheet } from '../../src/drives/upgrade/upgrade.ts'
import { checkBody } from '../../src/route/check-body.ts'
import { planOf } from '../../src/route/plan.ts'
import { routeOf } from '../../src/route/route-of.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { derivedMeasures } from '../../src/setting/measures.ts'
import { asSheetView, planInShort, stored3 } from './format-3.ts'

const plain = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T
const cases = stored3.map((s) => [s.id, s] as const)

/** In what two views differ, a line for each place. */
function differing(path: string, a: unknown, b: unknown): string[] {
  if (JSON.stringify(a) === JSON.stringify(b)) return []
  const rows = (v: unknown): v is { id: string }[] =>
    Array.isArray(v) && v.every((x) => typeof x === 'object' && x !== null && 'id' in x)
  if (rows(a) && rows(b)) {
    const ids = [...new Set([...a, ...b].map((x) => x.id))]
    const found = ids.flatMap((id) =>
      differing(
        `${path}.${id}`,
        a.find((x) => x.id === id),
        b.find((x) => x.id === id),
      ),
    )
    const common = (x: { id: string }[], y: { id: string }[]) =>
      x.map((r) => r.id).filter((id) => y.some((r) => r.id === id))
    return common(a, b).join() === common(b, a).join() ? found : [...found, `${path} in another order`]
  }
  const isPlain = (v: unknown): v is Record<string, unknown> =>
    typeof v === 'object' && v !== null && !Array.isArray(v)
  if (isPlain(a) && isPlain(b))
    return [...new Set([...Object.keys(a), ...Object.keys(b)])].flatMap((k) =>
      differing(`${path}.${k}`, a[k], b[k]),
    )
  if (Array.isArray(a) && Array.isArray(b) && [...a].sort().join() === [...b].sort().join()) return []
  return [`${path}: ${JSON.stringify(a) ?? 'nothing'} → ${JSON.stringify(b) ?? 'nothing'}`]
}

/** Everything in which the sheet reads otherwise than before, and why. Whatever fits none of these is a loss. */
const CAUSES: Record<string, RegExp> = {
  'a nut stands right before what it holds': /^parts in another order$/,
  'the place of a left-hand nut stands at its own piece':
    /^parts\.[a-z-]+\.place: nothing → "(seal|bearing):/,
  'a left-hand thread that was typed at the bench is said in the row':
    /^parts\.[a-z-]+\.thread: nothing → "left"$/,
  'a group says which joint it closes': /^fasteners\.[a-z-]+\.closes: nothing → "/,
  'a nut that was only a part is a group': /^fasteners\.[a-z-]+: nothing → \{"id":"[a-z-]+","name":"/,
  'a group that had the id of a part has one of its own':
    /^fasteners\.(coupling|input-carrier|belt-cover|rear-cap)(-2)?: /,
  'screws of ports are looked at after the run': /^further\.closures\.(drain|vent)\.tested: true → false$/,
  'a propeller is said with the torque of its nut': /^further\.propellers\.[a-z-]+\.torqueNm: nothing → \{/,
  'what the bench knew of propeller and anodes is a row': /^further\.(propellers|anodes): nothing → \[/,
}

const viewOf = ({ parts, fasteners, further, oilCapacityMl }: DriveSheet) =>
  plain({ parts, fasteners, further, oilCapacityMl })

describe.each(cases)('%s, stored in format 3', (_, { body, view }) => {
  const sheet = filled(upgraded(body))
  const now = viewOf(sheet)
  const changed = (['parts', 'fasteners', 'further', 'oilCapacityMl'] as const).flatMap((list) =>
    differing(
      list,
      view[list] ?? (list === 'parts' || list === 'fasteners' ? [] : list === 'further' ? {} : undefined),
      now[list] ?? (list === 'fasteners' ? [] : list === 'further' ? {} : undefined),
    ),
  )
  it('reads as before, but for what is explained', () => {
    const unexplained = changed.filter((line) => !Object.values(CAUSES).some((cause) => cause.test(line)))
    expect(unexplained).toEqual([])
  })
  it('has the same plans, steps, settings and test as before', () => {
    const before: DriveSheet = { ...sheet, ...asSheetView(view) }
    const plans = (s: DriveSheet) => usualScopes(s).map((scope) => planInShort(planOf(s, scope)))
    expect(plans(sheet)).toEqual(plans(before))
    const steps = (s: DriveSheet) => routeOf(s).steps.map((x) => [x.id, x.asks.map((a) => a.fact), x.wants])
    expect(steps(sheet)).toEqual(steps(before))
    expect(derivedMeasures(sheet)).toEqual(derivedMeasures(before))
  })
  it('says of the unit what its single facts said', () => {
    const { graph } = sheet
    const { bench } = view
    const or = <T>(v: T | undefined) => v ?? null
    expect(caseTest(graph)).toEqual(bench.leak)
    expect(joinedTest(graph)).toEqual(bench.joins?.oilJoint ?? null)
    expect(or(joinedTo(graph)?.to)).toEqual(bench.joins?.to ?? null)
    expect(or(ringLock(graph))).toEqual(bench.lockTabs)
    expect(or(propellerHeld(graph))).toEqual(bench.propeller)
    expect(or(hiddenOnes(graph))).toEqual(bench.hidden)
    expect(or(captives(graph)[0]?.name)).toEqual(bench.captive)
    expect(or(leftHanded(graph)[0]?.name)).toEqual(bench.leftHand?.what ?? null)
    expect([lubricantOf(graph), labourOf(graph)]).toEqual([bench.lubricant, bench.labour])
    expect(or(thrustHubOf(graph))).toEqual(bench.thrustHub)
    expect(['race-letters', 'oil-feed', 'water-tube', 'shift-rod'].map((id) => or(wayOf(graph, id)))).toEqual(
      [bench.raceLetters, bench.oilFeed, bench.waterTube, bench.shiftRod],
    )
  })
  it('hangs together, and is the same when it is brought up again', () => {
    const up = plain(upgraded(body))
    expect(checkBody(up).wrong).toEqual([])
    expect(asBody(up)).toBe(up)
    expect(plain(upgraded(plain(body)))).toEqual(up)
  })
  it('has each figure at the place to which its path moves', () => {
    const up = upgraded(body)
    const moves = movesOf(up)
    for (const path of pathsIn(body)) {
      const old = figureAt(body as never, path)
      if (old !== undefined) expect(figureAt(up, movedPath(path, moves)), path).toEqual(old)
    }
  })
})

/** Paths of figures as a sheet of format 3 named them in its sources. */
const pathsIn = (body: Body3): string[] => [
  'oilCapacityMl',
  ...['workKpa', 'maxKpa', 'holdMin', 'allowedMlPerMin', 'allowedDrop.kpa', 'volumeMl', 'ports'].map(
    (k) => `bench.leak.${k}`,
  ),
  ...['torqueNm', 'tabs', 'what'].map((k) => `bench.lockTabs.${k}`),
  ...['torqueNm', 'tabs'].map((k) => `bench.propeller.${k}`),
  ...['openGear', 'weightKg', 'captive', 'drainPlug', 'raceLetters', 'oilFeed', 'waterTube', 'thrustHub'].map(
    (k) => `bench.${k}`,
  ),
  'bench.noTest',
  'bench.sealSprings',
  'bench.leftHand.what',
  'bench.hidden.count',
  'bench.hidden.where',
  ...(body.fasteners ?? []).map((f) => `fasteners.${f.id}.torqueNm`),
  ...body.parts.map((p) => `parts.${p.id}.price`),
  ...body.measures.map((m) => `measures.${m.id}.window`),
]

it('each cause is met by some sheet', () => {
  const all = stored3.flatMap(({ body, view }) => {
    const now = viewOf(filled(upgraded(body)))
    return [
      ...differing('parts', view.parts, now.parts),
      ...differing('fasteners', view.fasteners ?? [], now.fasteners ?? []),
      ...differing('further', view.further ?? {}, now.further ?? {}),
    ]
  })
  for (const [why, cause] of Object.entries(CAUSES))
    expect(
      all.some((line) => cause.test(line)),
      why,
    ).toBe(true)
})

describe('a variant of a sheet of format 3', () => {
  const { body } = stored3.find((s) => s.body.variants?.length)!
  it.each(body.variants!.map((v) => [v.id, v] as const))('%s is the sheet that it was', (_, v) => {
    const up = upgraded(body)
    const alone = upgraded(ofVariant(body as never, v) as unknown as Body3)
    const through = ofVariant(
      up,
      up.variants!.find((x) => x.id === v.id)!,
    )
    expect(viewOf(filled(through))).toEqual(viewOf(filled(alone)))
    expect(filled(through).measures).toEqual(filled(alone).measures)
  })
})

/** A stored sheet as the first Moray wrote it: a gear train with its windows, and nothing of parts or bench. */
function first(sheet: DriveSheet) {
  const {
    graph: _g,
    parts: _p,
    fasteners: _f,
    service: _s,
    further: _u,
    variants: _v,
    oilCapacityMl: _o,
    ...rest
  } = plain(sheet)
  return rest
}
/** As the second wrote it: bench facts with ports as a count, no joined test, roles of parts by their ids. */
function second({ id, view }: (typeof stored3)[number]) {
  const sheet = demoSheets.find((s) => s.id === id)!
  const { leak, joins, lockTabs, telltale: _t, ...bench } = plain(view.bench)
  return {
    ...first(sheet),
    parts: view.parts.map(({ role: _r, pointedAtBy: _a, ...p }) => p),
    ratio: sheet.ratio && { ...sheet.ratio, stamps: sheet.ratio.stamps.map(({ own: _o, ...s }) => s) },
    bench: {
      ...bench,
      leak: leak && (({ ports, ...l }) => ({ ...l, blocks: ports.length }))(leak),
      joins: joins && (({ oilJoint: _j, ...j }) => j)(joins),
      lockTabs: lockTabs && (({ reachedMounted: _m, ...l }) => l)(lockTabs),
    },
  }
}

describe('sheets of the forms before there was a format', () => {
  const was = stored3.filter((s) => demoSheets.some((d) => d.id === s.id && d.version > 4))
  it.each(was.map((s) => [s.id, s] as const))(
    '%s of the first is read, checked, and invents no limit',
    (id) => {
      const sheet = demoSheets.find((s) => s.id === id)!
      const body = asBody(first(sheet) as unknown as StoredSheet)
      expect(checkBody(body).wrong).toEqual([])
      const now = filled(body)
      expect(now.parts).toEqual([])
      expect(caseTest(now.graph)).toBeNull()
      expect([ringLock(now.graph), propellerHeld(now.graph)]).toEqual([undefined, undefined])
      expect(leftHanded(now.graph)).toEqual([])
      expect(now.measures).toEqual(sheet.measures)
      // it is asked for instead
      expect(routeOf(now).steps.find((s) => s.id === 'leak-case')!.wants).toContain('tests.case.workKpa')
    },
  )
  it.each(was.map((s) => [s.id, s] as const))('%s of the second keeps what it said', (_, stored) => {
    const { view } = stored
    const now = filled(asBody(second(stored) as unknown as StoredSheet))
    const roles = (parts: readonly { id: string; role?: string }[]) =>
      parts.map((p) => `${p.id} ${p.role ?? ''}`).sort()
    expect(roles(now.parts)).toEqual(roles(view.parts))
    if (view.bench.leak)
      expect(caseTest(now.graph)).toMatchObject({
        workKpa: view.bench.leak.workKpa,
        ports: view.bench.leak.ports.map((_, i) => `Port ${i + 1}`),
      })
    else expect(caseTest(now.graph)).toBeNull()
    expect(now.graph.unit?.telltale ?? false).toBe(view.bench.waterTube !== null)
    expect(joinedTest(now.graph)).toBeNull()
    expect(routeOf(now).steps.length).toBeGreaterThan(20)
  })
  it('of the present format are taken as they are', () => {
    const body = plain(templateOf('belt-lower', 'own', 'Own'))
    expect(asBody(body)).toBe(body)
    for (const s of demoSheets) expect(plain(bodyOf(filled(bodyOf(s))))).toEqual(plain(bodyOf(s)))
  })
})
