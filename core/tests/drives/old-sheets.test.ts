import { describe, expect, it } from 'vitest'
import { asBody, asSheet } from '../../src/drives/old-sheets.ts'
import { bodyOf, type SheetBody } from '../../src/drives/own/body.ts'
import { checkBody } from '../../src/route/check-body.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { routeOf } from '../../src/route/route-of.ts'

const plain = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T
/** Drives that the demo had already then: they have had more versions since. */
const was = demoSheets.filter((s) => s.version > 3)

/** A stored sheet as the first Moray wrote it: a gear train with its windows, and nothing of parts or bench. */
function first(sheet: DriveSheet) {
  const {
    parts: _p,
    bench: _b,
    fasteners: _f,
    service: _s,
    further: _u,
    variants: _v,
    ...rest
  } = plain(sheet)
  return rest
}
/** As the second wrote it: bench facts with ports as a count, no joined test, roles of parts by their ids. */
function second(sheet: DriveSheet) {
  const { fasteners: _f, service: _s, further: _u, variants: _v, ...rest } = plain(sheet)
  const { leak, joins, lockTabs, telltale: _t, ...bench } = rest.bench
  const counted = leak && (({ ports, ...l }) => ({ ...l, blocks: ports.length }))(leak)
  return {
    ...rest,
    parts: rest.parts.map(({ role: _r, pointedAtBy: _a, ...p }) => p),
    ratio: rest.ratio && { ...rest.ratio, stamps: rest.ratio.stamps.map(({ own: _o, ...s }) => s) },
    bench: {
      ...bench,
      leak: counted,
      joins: joins && (({ oilJoint: _j, ...j }) => j)(joins),
      lockTabs: lockTabs && (({ reachedMounted: _m, ...l }) => l)(lockTabs),
    },
  }
}

describe('sheets that an older Moray stored', () => {
  it.each(was.map((s) => [s.id, s] as const))(
    '%s of the first form is read, checked, and invents no limit',
    (_, sheet) => {
      const body = asBody(first(sheet) as never)
      expect(checkBody(body).wrong).toEqual([])
      const now = filled(body)
      expect(now.parts).toEqual([])
      expect(now.bench).toMatchObject({ leak: null, lockTabs: null, propeller: null, leftHand: null })
      expect(now.measures).toEqual(sheet.measures)
      // it is asked for instead
      expect(routeOf(now).steps.find((s) => s.id === 'leak-case')!.wants).toContain('bench.leak.workKpa')
    },
  )
  it.each(was.map((s) => [s.id, s] as const))('%s of the second form keeps what it said', (_, sheet) => {
    const now = filled(asBody(second(sheet) as never))
    expect(now.parts.map((p) => [p.id, p.role])).toEqual(sheet.parts.map((p) => [p.id, p.role]))
    expect(now.ratio?.stamps).toEqual(sheet.ratio?.stamps)
    if (sheet.bench.leak)
      expect(now.bench.leak).toMatchObject({
        workKpa: sheet.bench.leak.workKpa,
        ports: sheet.bench.leak.ports.map((_, i) => `Port ${i + 1}`),
      })
    else expect(now.bench.leak).toBeNull()
    expect(routeOf(now).steps.length).toBeGreaterThan(20)
  })
  it('of the present form are taken as they are', () => {
    const body = plain(templateOf('belt-lower', 'own', 'Own'))
    expect(asBody(body)).toBe(body)
    for (const s of demoSheets)
      expect(plain(bodyOf(asSheet(plain(s) as DriveSheet)))).toEqual(plain(bodyOf(s) as SheetBody))
  })
})
