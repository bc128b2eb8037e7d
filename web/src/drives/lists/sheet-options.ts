import type { SheetBody } from '@moray/core/drives/own/body'
import { filled } from '@moray/core/drives/own/fill'
import { settingMeasures } from '@moray/core/setting/measures'
import { computed } from 'vue'
import type { Column, RowForm } from '../forms/column.ts'
import { optionsOf, type ShownRow } from '../show-rows.ts'
import type { Option } from './matching.ts'

/** What the cells of a list can be picked from: rows of the sheet, seals on the drawing, what is set. */
export function useSheetOptions(body: () => SheetBody) {
  const settings = computed((): Option[] =>
    settingMeasures(filled(body())).map(({ id, label }) => ({ id, label })),
  )
  /** Places of the drawing, each by what is there. */
  const places = computed((): Option[] => {
    const b = body()
    const of = (kind: string, rows: readonly { id: string; label: string }[]) =>
      rows.map(({ id, label }) => ({ id: `${kind}:${id}`, label }))
    return [
      ...of('gear', b.gears),
      ...of('stack', b.adjusters),
      ...of('bearing', b.bearings),
      ...of('seal', b.seals),
    ]
  })
  const seals = computed((): Option[] => body().seals.map(({ id, label }) => ({ id, label })))
  /** Parts, groups and their pieces share one set of ids. */
  const lying = computed(
    () =>
      new Set(
        [
          ...body().parts,
          ...(body().groups ?? []),
          ...(body().groups ?? []).flatMap((g) => g.pieces ?? []),
        ].map((r) => r.id),
      ),
  )
  return {
    settingName: (id: string) => settings.value.find((s) => s.id === id)?.label ?? id,
    placeName: (id: string) => places.value.find((p) => p.id === id)?.label ?? id,
    lying,
    optionsFor: (form: RowForm, c: Column, row?: ShownRow): Option[] => {
      if (c.is === 'setting') return settings.value
      if (c.is === 'place') return places.value
      return c.is === 'seal' ? seals.value : optionsOf(body(), form, c, row)
    },
  }
}
