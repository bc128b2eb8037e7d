import type { RowForm } from './forms/column.ts'
import { JOINTS } from './forms/joint-forms.ts'
import { OTHERS } from './forms/other-forms.ts'
import { GROUPS, PARTS } from './forms/part-forms.ts'

/** Lists of rows that are typed one by one, as the tabs of a draft show them. */
export const ROW_TABS = {
  parts: [PARTS],
  groups: [GROUPS],
  joints: JOINTS,
  others: OTHERS,
} as const satisfies Record<string, RowForm[]>
export type RowTab = keyof typeof ROW_TABS

/** The tab with the list that a path begins with. */
export const rowTabOf = (path: string): RowTab | undefined => {
  const list = /^[a-z]+/i.exec(path)?.[0]
  return (Object.keys(ROW_TABS) as RowTab[]).find((t) => ROW_TABS[t].some((f) => f.list === list))
}
export const ROW_FORMS: readonly RowForm[] = Object.values(ROW_TABS).flat()
