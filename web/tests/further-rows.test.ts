import { FURTHER_LISTS } from '@moray/core/drives/own/further-rows'
import { demoSheets } from '@moray/core/drives/sheets/index'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { ROW_FORMS, type RowForm } from '../src/drives/further-columns.ts'
import { useShownRows, type FurtherRow } from '../src/drives/show-further.ts'

beforeEach(() => setActivePinia(createPinia()))
const form = (list: RowForm['list']) => ROW_FORMS.find((f) => f.list === list)!

describe('rows of seals, tools and the like', () => {
  it('have a form for every list', () => {
    expect(ROW_FORMS.map((f) => f.list).sort()).toEqual([...FURTHER_LISTS].sort())
  })

  it.each(demoSheets.map((s) => [s.id, s] as const))(
    'of %s are entered whole: nothing that a row holds is without a field, nor shown as an id',
    (_, sheet) => {
      const { titleOf, shown } = useShownRows(() => sheet.fasteners)
      for (const f of ROW_FORMS)
        for (const row of (sheet.further?.[f.list] ?? []) as unknown as FurtherRow[]) {
          const { id: _id, ...said } = row
          const columns = new Map(f.columns.map((c) => [c.key, c]))
          expect(titleOf(f, row), `${f.list} ${row.id}`).not.toBe('')
          for (const [key, value] of Object.entries(said)) {
            const c = columns.get(key)!
            expect(c, `${f.list}.${key}`).toBeDefined()
            if (c.is === 'choice') expect(Object.keys(c.choices!)).toContain(value)
            if (c.is === 'fasteners')
              for (const id of value as string[]) expect(shown(c, [id]), `${key} ${id}`).not.toBe(id)
          }
          for (const c of f.columns) if (c.needed) expect(row[c.key], `${f.list}.${c.key}`).toBeDefined()
        }
    },
  )

  it('are said with what a value is, where the value alone does not say it', () => {
    const { aboutOf } = useShownRows(() => [{ id: 'ring', name: 'Ring nut', count: 1 }])
    expect(aboutOf(form('anodes'), { id: 'a', place: 'tab', count: 2, fresh: 'magnesium' })).toBe(
      '× 2 · fresh magnesium',
    )
    expect(
      aboutOf(form('closures'), { id: 'c', name: 'Carrier', kind: 'carrier', fasteners: ['ring', 'gone'] }),
    ).toBe('bearing carrier · Ring nut, gone')
    expect(
      aboutOf(form('propellers'), {
        id: 'p',
        name: 'x',
        held: 'castle-pin',
        torqueNm: { min: 54, max: 54 },
      }),
    ).toBe('castle nut and split pin · 54.0 Nm · 39.8 ft-lb')
    expect(aboutOf(form('closures'), { id: 'c', name: 'x', kind: 'plug', tested: false })).toBe('plug')
  })
})
