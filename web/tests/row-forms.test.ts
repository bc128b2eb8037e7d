import { GRAPH_LISTS } from '@moray/core/drives/graph/rows'
import { UNIT_LISTS } from '@moray/core/drives/own/rows'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { settingMeasures } from '@moray/core/setting/measures'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import type { RowForm } from '../src/drives/forms/column.ts'
import { asTyped, readRow, readTyped } from '../src/drives/own/typed-row.ts'
import { ROW_FORMS, rowTabOf } from '../src/drives/row-forms.ts'
import { optionsOf, shownName, rowsOfForm, useShownRows } from '../src/drives/show-rows.ts'

beforeEach(() => setActivePinia(createPinia()))
const form = (list: RowForm['list']) => ROW_FORMS.find((f) => f.list === list)!
/** What a row of the list holds and no form types: it has figures of its own, or is said by another field. */
const TYPED_ELSEWHERE: Record<string, string[]> = {
  parts: ['pointedAtBy'],
  groups: ['torqueUnit', 'stages', 'sealed', 'adapterMm', 'lengthsMm', 'angleDeg'],
}

describe('rows of a sheet', () => {
  it('have a form for every list but tests and pairs of seals, which are typed as figures', () => {
    const typed = [...GRAPH_LISTS, ...UNIT_LISTS, 'service'].filter((l) => l !== 'tests' && l !== 'sealPairs')
    expect(ROW_FORMS.map((f) => f.list).sort()).toEqual([...typed].sort())
  })

  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'of %s are entered whole: nothing that a row holds is without a field, nor shown as an id',
    (_, sheet) => {
      const settings = new Map(settingMeasures(sheet).map((m) => [m.id, m.label]))
      const { titleOf, shown } = useShownRows(
        () => sheet.graph,
        (id) => settings.get(id) ?? id,
      )
      const names = GRAPH_LISTS.flatMap((l) =>
        ((sheet.graph[l] ?? []) as { id: string }[]).map((r) => shownName({ ...r, id: '' })),
      )
      for (const f of ROW_FORMS)
        for (const row of rowsOfForm(sheet.graph, f)) {
          const { id, ...said } = row
          const columns = new Map(f.columns.map((c) => [c.key, c]))
          expect(titleOf(f, row), `${f.list} ${row.id}`).not.toBe('')
          if (f.list === 'settings') expect(titleOf(f, row), 'a setting by its name').not.toBe(id)
          for (const [key, value] of Object.entries(said)) {
            if (TYPED_ELSEWHERE[f.list]?.includes(key)) continue
            const c = columns.get(key)!
            expect(c, `${f.list}.${key}`).toBeDefined()
            if (c.is === 'choice') expect(Object.keys(c.choices!)).toContain(value)
            if (c.is === 'edges')
              for (const to of Object.keys(value as object)) {
                const offered = optionsOf(sheet.graph, f, c, row).map((o) => o.id)
                expect(offered, `${f.list}.${key} of ${id}`).toContain(to)
                expect(names, `${f.list}.${key} ${to}`).toContain(shown(c, { [to]: true }))
              }
          }
          for (const c of f.columns) if (c.needed) expect(row[c.key], `${f.list}.${c.key}`).toBeDefined()
        }
    },
  )

  it('keep edges that nobody knows and that were only assumed until somebody types them over', () => {
    const closedBy = form('joints').columns.find((c) => c.key === 'closedBy')!
    const row = { id: 'cap', name: 'Cap', closedBy: { screws: 'assumed', nut: 'unknown', ring: 'unknown' } }
    const hand = { first: 'metric' } as const
    expect(asTyped(closedBy, row, 'metric')).toEqual(['screws', 'nut?', 'ring?'])
    const typed = readRow(form('joints'), row, { closedBy: ['screws', 'nut', 'ring?', 'pin'] }, hand)
    expect(typed.row.closedBy).toEqual({ screws: 'assumed', nut: true, ring: 'unknown', pin: true })
    expect(readRow(form('joints'), row, { name: 'Cover' }, hand).row).toEqual({ ...row, name: 'Cover' })
    expect(readTyped(closedBy, [], hand)).toEqual({})
  })

  it('are found from what is wrong with them', () => {
    expect(rowTabOf('joints[2].closedBy')).toBe('joints')
    expect(rowTabOf('settings.bearing:top.preloadedBy')).toBe('joints')
    expect(rowTabOf('lubricants[0].at')).toBe('others')
    expect(rowTabOf('groups')).toBe('groups')
    expect(rowTabOf('gears.pinion.teeth')).toBeUndefined()
  })

  it('are said with what a value is, where the value alone does not say it', () => {
    const groups = [{ id: 'ring', name: 'Ring nut', torqueNm: { min: 54, max: 54 } }]
    const { aboutOf } = useShownRows(
      () => ({ parts: [], groups }),
      (id) => id,
    )
    expect(aboutOf(form('anodes'), { id: 'a', place: 'tab', count: 2, fresh: 'magnesium' })).toBe(
      '× 2 · fresh magnesium',
    )
    const closedBy = { ring: true, gone: 'assumed', other: 'unknown' }
    expect(aboutOf(form('joints'), { id: 'c', name: 'Carrier', kind: 'carrier', closedBy })).toBe(
      'bearing carrier · closed by Ring nut, gone (assumed), other (not known)',
    )
    expect(aboutOf(form('groups'), groups[0]!)).toBe('54.0 Nm · 39.8 ft-lb')
  })
})
