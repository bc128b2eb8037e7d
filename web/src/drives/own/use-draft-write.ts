import type { SheetDraft } from '@moray/contract/replies'
import type { CsvList, MoveRow, PutRemarks, PutRow, PutRows } from '@moray/contract/requests/sheets'
import { endpoints } from '@moray/contract/endpoints'
import { keys, useQueryClient } from '../../wire/queries.ts'
import { useWrite } from '../../writing/use-write.ts'

type Unseen<T> = Omit<T, 'was'>
/** What was shown when somebody began to change it: the server refuses to write over anything else. Nothing was there where it is new. */
const asSeen = (row: object | undefined) => (row ? JSON.stringify(row) : '')

/** Changes of a draft; what the server answers is shown at once. */
export function useDraftWrite() {
  const client = useQueryClient()
  const write = useWrite()
  const keep = (draft: SheetDraft | undefined) => {
    if (draft) client.setQueryData(keys.draft(draft.body.id), draft)
    return draft
  }
  return {
    busy: write.busy,
    error: write.error,
    clear: write.clear,
    put: async (id: string, row: Unseen<PutRow>, seen?: object) =>
      keep(await write.send(endpoints.putRow, { id }, { ...row, was: asSeen(seen) })),
    putAll: async (id: string, rows: PutRows) => keep(await write.send(endpoints.putRows, { id }, rows)),
    move: async (id: string, move: MoveRow) => keep(await write.send(endpoints.moveRow, { id }, move)),
    undo: async (id: string, change: number) =>
      keep(await write.send(endpoints.undoChange, { id }, { change })),
    check: async (id: string, paths: string[]) =>
      keep(await write.send(endpoints.checkFigures, { id }, { paths })),
    remarks: async (id: string, remarks: Unseen<PutRemarks>, seen: object) =>
      keep(await write.send(endpoints.putRemarks, { id }, { ...remarks, was: asSeen(seen) })),
    table: async (id: string, list: CsvList, csv: string) =>
      keep(await write.send(endpoints.importList, { id }, { list, csv })),
  }
}

/** An id for a new row, out of its name: free among those that are taken. */
export function freeId(name: string, taken: ReadonlySet<string>): string {
  const slug =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-+|-+$/g, '')
      .slice(0, 40) || 'row'
  for (let n = 1; ; n++) {
    const id = n === 1 ? slug : `${slug}-${n}`
    if (!taken.has(id)) return id
  }
}
