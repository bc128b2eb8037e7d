import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { filled } from '@moray/core/drives/own/fill'
import { lapsedEdges, ofVariant } from '@moray/core/drives/own/variants'
import type { Patch, PatchValue } from '@moray/core/drives/own/variant'
import { demoSheets } from '@moray/core/drives/sheets/index'
import type { Body3 } from '@moray/core/drives/upgrade/body-3'
import { upgraded } from '@moray/core/drives/upgrade/upgrade'
import { GRAPH_LISTS } from '@moray/core/drives/graph/rows'
import { lostEdges } from '@moray/core/drives/graph/edge-fields'
import { routeOf } from '@moray/core/route/route-of'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stored3 } from '../../core/tests/drives/format-3.ts'
import { times } from '../../core/tests/long.ts'
import { validate } from '../src/fields/validate.ts'
import { bodyProblems } from '../src/sheet/body-problems.ts'
import { raised } from '../src/sheet/raised.ts'
import { SheetFile } from '../src/sheet/sheet-file.ts'

const plain = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T

/** Every text and number of a value, where it stands. */
function leaves(v: unknown, at = ''): { at: string; value: string | number }[] {
  if (typeof v === 'string' || typeof v === 'number') return [{ at, value: v }]
  if (typeof v !== 'object' || v === null) return []
  return Object.entries(v).flatMap(([k, x]) => [
    ...(Array.isArray(v) ? [] : [{ at: `${at}.${k}`, value: k }]),
    ...leaves(x, `${at}.${k}`),
  ])
}

/** Sheets of format 3 as somebody may have left them: some rows, some figures, some words. */
const own3: fc.Arbitrary<Body3> = fc.constantFrom(...stored3).chain(({ body }) => {
  const some = <T>(rows: readonly T[] | undefined) => fc.subarray([...(rows ?? [])])
  const bench = Object.entries(body.bench)
  const further = Object.entries(body.further ?? {})
  return fc
    .record({
      fasteners: some(body.fasteners),
      bench: fc.subarray(bench).map((e) => Object.fromEntries(e)),
      further: fc.subarray(further).map((e) => Object.fromEntries(e)),
      gone: fc.subarray(
        body.parts.map((p) => p.id),
        { maxLength: 6 },
      ),
      oil: fc.boolean(),
      words: fc.constantFrom(undefined, 'Top cover', 'nobody knows', 'Carrier ring nut'),
    })
    .map(({ fasteners, bench: facts, further: said, gone, oil, words }) => {
      const { oilCapacityMl, sources: _s, variants: _v, ...rest } = plain(body)
      return {
        ...rest,
        parts: rest.parts
          .filter((p) => !gone.includes(p.id))
          .map((p) => (p.after ? { ...p, after: p.after.filter((a) => !gone.includes(a)) } : p)),
        fasteners: fasteners.map((f, i) =>
          i === 0 && words ? { ...f, closes: words, captiveUntil: words } : f,
        ),
        bench: facts,
        further: said,
        ...(oil && oilCapacityMl !== undefined ? { oilCapacityMl } : {}),
      } as Body3
    })
})

/** Names of fields and kinds that an older sheet had and this one says otherwise. */
const SAID_OTHERWISE = new Set(['tabs', 'pin', 'nut', 'left'])

describe('sheets of format 3, whatever is in them', () => {
  it('come up whole: no word and no figure of them is lost, no figure is invented, and they come in as they went out', () => {
    fc.assert(
      fc.property(own3, (body) => {
        const up = plain(upgraded(body))
        expect(plain(validate(SheetFile, up))).toEqual(up)
        const now = new Set(leaves(up).map((l) => l.value))
        // ids of groups that were gone already are kept as words
        const said = [...now].filter((v) => typeof v === 'string').join(' ')
        const names = new Set([...(body.further?.closures ?? []).map((c) => c.name.toLowerCase())])
        for (const { at, value } of leaves({
          parts: body.parts,
          fasteners: body.fasteners,
          bench: body.bench,
          further: body.further,
          oil: body.oilCapacityMl,
        })) {
          const isName = at.endsWith(`.${value}`)
          if (
            isName ||
            SAID_OTHERWISE.has(String(value)) ||
            /^\.(fasteners|further\.closures)\.\d+\.id$/.test(at)
          )
            continue
          // what a group closes, by the name of a joint, is an edge to it
          if (at.endsWith('.closes') && names.has(String(value).toLowerCase())) continue
          // said twice with different figures: the list of fasteners counts
          if (/^\.bench\.(lockTabs|propeller|hidden|pinchScrews|leftHand)\./.test(at)) continue
          expect(now.has(value) || said.includes(String(value)), `${at} ${value}`).toBe(true)
        }
        const before = new Set(leaves(body).map((l) => l.value))
        for (const { at, value } of leaves(up))
          if (
            typeof value === 'number' &&
            !['.format', '.upgraded.from'].includes(at) &&
            !at.endsWith('.count')
          )
            expect(before.has(value), `invented: ${at} ${value}`).toBe(true)
        // through a file and back
        expect(raised(plain(body))).toEqual(up)
        expect(plain(raised(up))).toEqual(up)
      }),
      { numRuns: times(150, 1500) },
    )
  })
})

/** Something to stand in a patch: what fits now and then, and what never does. */
const value: fc.Arbitrary<PatchValue> = fc.oneof(
  fc.constant(null),
  fc.constant(true),
  fc.constantFrom('assumed', 'unknown', 'tab-washer', 'left', 'neutral', '', 'a name'),
  fc.double({ min: -5, max: 400, noNaN: true }),
  fc.constantFrom<PatchValue>(
    {},
    [],
    { carrier: true },
    { min: 1, max: 2 },
    { carrier: null, nowhere: true },
  ),
)
const patches = fc.constantFrom(...demoSheets).chain((sheet) => {
  const body = plain(bodyOf(sheet))
  const paths = GRAPH_LISTS.flatMap((list) =>
    ((body[list] ?? []) as { id: string }[]).flatMap((row) => [
      [list, row.id],
      ...Object.keys(row).map((k) => [list, row.id, k]),
    ]),
  )
  const one = fc.tuple(
    fc.constantFrom(...paths, ['unit'], ['groups'], ['joints', 'new'], ['parts', 'new']),
    value,
  )
  return fc.record({
    body: fc.constant(body),
    patch: fc.array(one, { minLength: 1, maxLength: 4 }).map((all) => {
      const patch: Patch = {}
      for (const [path, v] of all)
        path.reduce<Patch>((at, name, i) => {
          if (i === path.length - 1) at[name] = v
          else if (typeof at[name] !== 'object' || at[name] === null || Array.isArray(at[name])) at[name] = {}
          return (at[name] ?? {}) as Patch
        }, patch)
      return patch
    }),
  })
})

describe('a patch of a variant, whatever is in it', () => {
  it('is refused with a place, or makes a sheet on which a job can be opened', () => {
    let taken = 0
    fc.assert(
      fc.property(patches, ({ body, patch }) => {
        const variant = { id: 'x', label: 'X', patch }
        const with1 = { ...body, variants: [variant] } as SheetBody
        const wrong = bodyProblems(with1)
        for (const w of wrong) expect(w.path).not.toBe('')
        if (wrong.length) return
        taken++
        const of = ofVariant(with1, variant)
        expect(lostEdges(of)).toEqual([])
        expect(routeOf(filled(of)).steps.length).toBeGreaterThan(5)
      }),
      { numRuns: times(600, 3000) },
    )
    expect(taken, 'some of them are taken').toBeGreaterThan(30)
  })
  it('that strikes out a row lets the edges to it lapse, and lists them', () => {
    const body = plain(bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!))
    const variant = { id: 'bare', label: 'without a key', patch: { parts: { 'carrier-ring': null } } }
    expect(lapsedEdges(body, variant).map((e) => `${e.list} ${e.row} ${e.field}`)).toContain(
      'joints carrier sealedBy',
    )
    const of = ofVariant(body, variant)
    expect(figureAt(of, 'joints.carrier.sealedBy')).toBeUndefined()
    expect(bodyProblems({ ...body, variants: [variant] })).toEqual([])
  })
  it('patches one edge, and leaves the others of its row', () => {
    const body = plain(bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!))
    const [one, ...rest] = Object.keys(body.interfaces![0]!.closedBy!)
    const of = ofVariant(body, {
      id: 'x',
      label: 'X',
      patch: { interfaces: { mount: { closedBy: { [one!]: null } } } },
    })
    expect(Object.keys(of.interfaces![0]!.closedBy!)).toEqual(rest)
  })
})
