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
export const ROW_FORMS: readonly RowForm[] = Object.values(ROW_TABS).flat()
