import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { SheetBody } from '../../src/drives/own/body.ts'
import { changesBetween, undone } from '../../src/drives/own/row-changes.ts'
import { movedRow, rowsAt, withoutRow, withRow, type RowList } from '../../src/drives/own/rows.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { hangsOn } from '../../src/drives/own/hangs-on.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { bodyOf } from '../../src/drives/own/body-of.ts'

const bodies = demoSheets.map(bodyOf)
const plain = (body: SheetBody) => JSON.parse(JSON.stringify(body)) as SheetBody
const LISTS: RowList[] = ['parts', 'groups', 'joints', 'spaces', 'tools', 'service', 'levers', 'measures']

/** A change of a sheet as a hand makes it. */
type Act = { list: RowList; at: number; to: number; does: 'strike' | 'move' | 'name' | 'add' }
const actOf = (lists: readonly RowList[], does: readonly Act['does'][]): fc.Arbitrary<Act> =>
  fc.record({
    list: fc.constantFrom(...lists),
    at: fc.nat(40),
    to: fc.nat(40),
    does: fc.constantFrom(...does),
  })
const ALL = ['strike', 'move', 'name', 'add'] as const
const act = actOf(LISTS, ALL)
// what is struck out takes edges of other lists along
const mineIn = actOf(['tools'], ALL)
const theirsIn = actOf(
  LISTS.filter((l) => l !== 'tools'),
  ['move', 'name', 'add'],
)
function done(body: SheetBody, { list, at, to, does }: Act): SheetBody {
  const rows = rowsAt(body, list)
  const row = rows[at % Math.max(1, rows.length)]
  if (does === 'add') return withRow(body, list, { id: `new-${at}-${to}` }, to)
  if (!row) return body
  if (does === 'strike') return withoutRow(body, list, row.id)
  if (does === 'move') return movedRow(body, list, row.id, rows[to % rows.length]!.id)
  return withRow(body, list, { ...row, name: `Name ${to}` } as never)
}

describe('a change of a draft', () => {
  it('undone leaves the sheet as it was, whatever it was', () => {
    fc.assert(
      fc.property(fc.constantFrom(...bodies), fc.array(act, { minLength: 1, maxLength: 4 }), (body, acts) => {
        const after = plain(acts.reduce(done, body))
        expect(undone(after, changesBetween(plain(body), after))).toEqual(plain(body))
      }),
      { numRuns: 300 },
    )
  })
  it('undone takes nothing of what was changed in other lists since', () => {
    fc.assert(
      fc.property(fc.constantFrom(...bodies), mineIn, theirsIn, (body, mine, theirs) => {
        const first = plain(done(body, mine))
        const both = plain(done(first, theirs))
        const back = undone(both, changesBetween(plain(body), first))
        if (Array.isArray(back)) throw new Error('nobody has changed the same thing')
        expect(rowsAt(back, theirs.list)).toEqual(rowsAt(both, theirs.list))
      }),
      { numRuns: 200 },
    )
  })
  it('names what was changed again after it, and undoes nothing then', () => {
    const body = plain(bodies[0]!)
    const [part] = body.parts
    const first = withRow(body, 'parts', { ...part!, name: 'One' } as never)
    const second = withRow(first, 'parts', { ...part!, name: 'Two' } as never)
    expect(undone(second, changesBetween(body, first))).toEqual([{ at: 'parts', id: part!.id }])
  })
  it('of nothing is nothing', () => {
    for (const body of bodies) expect(changesBetween(body, plain(body))).toEqual([])
  })
})

describe('what hangs on a row', () => {
  it('is every row that leads to it, by its name, and nothing of a list without edges', () => {
    const body = templateOf('outboard-fnr', 'own', 'Own')
    const ring = hangsOn(body, 'groups', 'big-ring')
    expect(ring.map((h) => [h.list, h.field])).toContainEqual(['joints', 'closedBy'])
    expect(ring.every((h) => h.name !== h.row)).toBe(true)
    const without = withoutRow(body, 'groups', 'big-ring')
    expect(hangsOn(without, 'groups', 'big-ring')).toEqual([])
    expect(hangsOn(body, 'service', 'oil')).toEqual([])
  })
})
