import { describe, expect, it } from 'vitest'
import { rowPlaces } from '../../src/drives/graph/row-places.ts'
import type { Graph } from '../../src/drives/graph/rows.ts'
import type { SheetBody } from '../../src/drives/own/body.ts'
import { bodyOf } from '../../src/drives/own/body-of.ts'
import { enteredAtBench, isUnknown, withBenchFigures, withEdgeSeen } from '../../src/drives/own/from-bench.ts'
import { confirmed, hanging } from '../../src/drives/own/hanging.ts'
import { rowsAt, withRow } from '../../src/drives/own/rows.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { FAMILIES, type Family } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'

const why = (body: SheetBody) => new Set(hanging(body).map((h) => h.why))
const bare = templateOf('outboard-fnr', 'own', 'Own')

describe('loose ends of a sheet', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('of %s are none: every row is said', (_, sheet) => {
    expect(hanging(bodyOf(sheet)).filter((h) => h.why !== 'no-holder')).toEqual([])
  })
  it.each(Object.keys(FAMILIES) as Family[])(
    'of a bare sheet of %s are what the family implies',
    (family) => {
      const body = templateOf(family, 'own', 'Own')
      expect(why(body).has('assumed')).toBe(true)
      // confirmed row by row, nothing assumed is left
      const all = hanging(body).reduce((b, h) => {
        const row = rowsAt(b, h.list).find((r) => r.id === h.id)
        return row ? withRow(b, h.list, confirmed(h.list, row)) : b
      }, body)
      expect(why(all).has('assumed')).toBe(false)
    },
  )
  it('are a row that nothing leads to, an edge that nobody knows, a joint without a test, a preload without a nut', () => {
    const joint = bare.joints![0]!
    const loose: SheetBody = {
      ...bare,
      parts: [...bare.parts, { id: 'bush', name: 'Bush', kind: 'washer' }],
      joints: [
        ...bare.joints!.slice(1),
        {
          id: joint.id,
          name: joint.name,
          kind: joint.kind,
          behind: { case: 'unknown' },
          closedBy: { 'big-ring': true },
        },
        { ...bare.joints![1]!, id: 'cap', name: 'Cap', provedBy: 'none', interfaces: {} },
      ],
    }
    expect(hanging(loose).filter((h) => h.why !== 'assumed')).toEqual([
      { why: 'alone', list: 'parts', id: 'bush', name: 'Bush' },
      { why: 'unknown', list: 'joints', id: joint.id, name: joint.name, field: 'behind' },
      { why: 'no-test', list: 'joints', id: joint.id, name: joint.name, field: 'provedBy' },
      { why: 'no-test', list: 'joints', id: 'cap', name: 'Cap', field: 'unproved' },
    ])
    const nut = { ...bare, settings: [] }
    expect(hanging(nut).filter((h) => h.why === 'no-holder').length).toBe(
      hanging(bare).filter((h) => h.why === 'no-holder').length +
        (bare.settings ?? []).filter((s) => s.preloadedBy).length,
    )
  })
})

describe('the place of a row', () => {
  const graph: Graph = {
    parts: [
      { id: 'case', name: 'Case', kind: 'housing', role: 'body' },
      { id: 'carrier', name: 'Carrier', kind: 'cup', place: 'end:aft', in: { case: true } },
      { id: 'seal', name: 'Seal', kind: 'seal', on: { carrier: true } },
      { id: 'stray', name: 'Stray', kind: 'key', in: { case: true }, after: { carrier: true } },
      { id: 'gear', name: 'Gear', kind: 'gear', place: 'gear:gone' },
    ],
    groups: [{ id: 'screws', name: 'Screws', holds: { carrier: true } }],
    joints: [{ id: 'joint', name: 'Joint', kind: 'carrier', closedBy: { screws: true } }],
    sealFits: [{ id: 'lip', name: 'Lip', at: 'shaft', seal: 'aft' }],
  }
  const places = new Map(
    rowPlaces(graph, new Set(['end:aft', 'seal:aft'])).map((p) => [`${p.list} ${p.id}`, p]),
  )
  it('is its own, or that of the nearest row along the edges', () => {
    const at = (key: string) => [places.get(key)!.place, places.get(key)!.steps]
    expect(at('parts carrier')).toEqual(['end:aft', 0])
    expect(at('sealFits lip')).toEqual(['seal:aft', 0])
    expect([at('parts seal'), at('groups screws'), at('joints joint')]).toEqual([
      ['end:aft', 1],
      ['end:aft', 1],
      ['end:aft', 2],
    ])
  })
  it('is none where nothing but the case leads to it, or the drawing has no such place', () => {
    for (const key of ['parts case', 'parts stray', 'parts gear'])
      expect(places.get(key)!.place).toBeUndefined()
  })
})

describe('what was entered at the bench', () => {
  const edge = { list: 'joints', row: 'carrier', field: 'behind', to: 'case' } as const
  const unknown: SheetBody = {
    ...bare,
    joints: [{ id: 'carrier', name: 'Carrier', kind: 'carrier', behind: { case: 'unknown' } }],
  }
  const source = { path: '', kind: 'seen', as: 'yes', atBench: true } as const
  it('goes over what is published, and never over what is known there', () => {
    const draft = withEdgeSeen(unknown, edge, true, source)
    expect(isUnknown(draft, edge)).toBe(false)
    expect(withBenchFigures(unknown, draft).joints![0]!.behind).toEqual({ case: true })
    const known = withEdgeSeen(unknown, edge, false, { ...source, as: 'no' })
    expect(withBenchFigures(known, draft).joints![0]!.behind).toBeUndefined()
  })
  it('is listed as what it asks or is called, until it is confirmed', () => {
    expect(enteredAtBench(withEdgeSeen(unknown, edge, true, source))).toEqual([
      { path: 'joints.carrier.behind.case', label: 'Carrier: does the gearcase stand behind it?', as: 'yes' },
    ])
    expect(enteredAtBench(unknown)).toEqual([])
  })
  it('is taken over alone: what else was typed in the draft waits until it is published', () => {
    const typed = { ...withEdgeSeen(unknown, edge, true, source), unit: { ...unknown.unit, weightKg: 90 } }
    expect(withBenchFigures(unknown, typed).unit?.weightKg).toBeUndefined()
    expect(withBenchFigures(unknown, unknown)).toBe(unknown)
  })
})
