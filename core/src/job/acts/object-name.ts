import { VERBS, type Verb } from '../../assembly/act.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { settingMeasures } from '../../setting/measures.ts'

/** What the object of an act is called on a sheet; its id where the sheet has no such row. */
export function objectName(sheet: DriveSheet, verb: Verb, id: string): string {
  const { graph } = sheet
  const named = (rows: readonly { id: string; name?: string }[] | undefined) =>
    rows?.find((r) => r.id === id)?.name
  switch (VERBS[verb]) {
    case 'part':
      return sheet.parts.find((p) => p.id === id)?.name ?? id
    case 'group':
      return named(graph.groups) ?? id
    case 'joint':
      return named(graph.joints) ?? id
    case 'space':
      return named(graph.spaces) ?? id
    case 'interface':
      return named(graph.interfaces) ?? id
    case 'stack':
      return sheet.adjusters.find((a) => a.id === id)?.label ?? id
    case 'setting':
      return settingMeasures(sheet).find((m) => m.id === id)?.label ?? id
    default:
      return id
  }
}
