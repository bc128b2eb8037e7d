import { allEdges, leadsTo, rowsOf } from '../graph/edge-fields.ts'
import { rowName } from '../graph/row-name.ts'
import { GRAPH_LISTS, type GraphList } from '../graph/rows.ts'
import type { SheetBody } from './body.ts'
import type { RowList } from './rows.ts'

/** A row that leads to another one, and what leads there. */
export interface HangsOn {
  list: GraphList
  row: string
  name: string
  field: string
}

/** What would be lost with a row when it is struck out: the edges of other rows that lead to it. What waited for it then waits for what it waited for. */
export function hangsOn(body: SheetBody, list: RowList, id: string): HangsOn[] {
  if (!GRAPH_LISTS.some((l) => l === list)) return []
  return allEdges(body)
    .filter((e) => leadsTo(e, list as GraphList, id))
    .map(({ list: of, row, field }) => ({
      list: of,
      row,
      name: rowName(rowsOf(body, of).find((r) => r.id === row)) ?? row,
      field,
    }))
}
