import { endpoints } from '@moray/contract/endpoints'
import type { SheetDraft, SheetVersion } from '@moray/contract/replies'
import { CSV_LISTS, CSV_ROWS } from '@moray/contract/requests/sheets'
import { toCsv } from '@moray/contract/sheet/csv'
import type { Hono } from 'hono'
import type { Queryable } from '../db/database.ts'
import type { Deps } from '../deps.ts'
import { onRead, onWrite, paramsOf, rowId } from '../http/endpoint.ts'
import { onHeld } from '../request/on-held.ts'
import { notFound } from '../http/refusal.ts'
import { write } from '../request/write.ts'
import { onJob } from '../job/on-job.ts'
import { experienceWith } from '../setting/experience.ts'
import { addDrive, beginDraft, publishSheet, readDraft } from './drafts.ts'
import { checkFigures, putRemarks, setFigure } from './draft-changes.ts'
import { moveRow, putRow, putRows, undoChange } from './draft-rows.ts'
import { importList, importSheet } from './import-sheet.ts'
import { addFigure, adoptSheet, settleEdge } from './job-sheet.ts'
import { bodyOfVersion, holdDrive, listVersions, newestBody, newestSheet, newestSheets } from './sheets.ts'

export function mountDrives(app: Hono, deps: Deps) {
  const { db, sheets } = deps
  onRead(app, endpoints.drives, () => newestSheets(db))
  onRead(app, endpoints.drive, (_, { id }) => newestSheet(db, id))
  onRead(app, endpoints.draft, (_, { id }) => readDraft(db, id))
  onRead(app, endpoints.versions, async (_, { id }) => {
    await newestSheet(db, id)
    return listVersions(db, id)
  })
  onRead(app, endpoints.experience, async (c, { id }) => {
    const sheet = await newestSheet(db, id)
    const without = (c.req.query('without') ?? '').slice(0, 80)
    return { experience: (await experienceWith(db, sheet, without)) ?? null }
  })
  onRead(app, endpoints.sheetFile, (_, { id, version }) => bodyOfVersion(db, id, rowId('Version', version)))
  app.get(endpoints.driveVersion.path, async (c) => {
    const { id, version } = paramsOf(c, endpoints.driveVersion)
    const sheet = await sheets.get(db, id, rowId('Version', version))
    return c.json(sheet, 200, { 'cache-control': 'private, max-age=31536000, immutable' })
  })
  app.get(endpoints.exportList.path, async (c) => {
    const { id, list } = paramsOf(c, endpoints.exportList)
    c.header('content-disposition', `attachment; filename="${id}-${list}.csv"`)
    return c.body(await listAsCsv(db, id, list), 200, { 'content-type': 'text/csv; charset=utf-8' })
  })

  onWrite(app, endpoints.addDrive, (c, _, body) =>
    write<SheetDraft>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const { id, told } = await addDrive(tx, body.checked, who)
        return { told, subject: id, reply: () => readDraft(tx, id) }
      },
      again: readDraft,
    }),
  )
  onWrite(app, endpoints.importSheet, (c, _, body) =>
    write<SheetDraft>(c, deps, {
      body: body.text,
      async work(tx, who) {
        const { id, told } = await importSheet(tx, body.checked, who)
        return { told, subject: id, reply: () => readDraft(tx, id) }
      },
      again: readDraft,
    }),
  )
  onWrite(app, endpoints.beginDraft, (c, { id }, body) =>
    write<SheetDraft>(c, deps, {
      body: body.text,
      work: async (tx, who) => ({
        told: await beginDraft(tx, id, body.checked, who),
        subject: id,
        reply: () => readDraft(tx, id),
      }),
      again: readDraft,
    }),
  )
  onWrite(app, endpoints.publishSheet, (c, { id }, body) =>
    write<SheetVersion[]>(c, deps, {
      body: body.text,
      work: async (tx, who) => ({
        told: await publishSheet(tx, id, body.checked, who),
        subject: id,
        reply: () => listVersions(tx, id),
      }),
      again: listVersions,
    }),
  )
  const onDraft = onHeld<SheetDraft>(app, deps, { hold: holdDrive, read: readDraft })
  onDraft(endpoints.setFigure, setFigure)
  onDraft(endpoints.putRow, putRow)
  onDraft(endpoints.putRows, putRows)
  onDraft(endpoints.moveRow, moveRow)
  onDraft(endpoints.undoChange, undoChange)
  onDraft(endpoints.putRemarks, putRemarks)
  onDraft(endpoints.checkFigures, checkFigures)
  onDraft(endpoints.importList, importList)
  onJob(app, deps, endpoints.addFigure, addFigure)
  onJob(app, deps, endpoints.settleEdge, settleEdge)
  onJob(app, deps, endpoints.adoptSheet, adoptSheet)
}

/** A list of the draft, or of the newest version where none is open, as a table. */
async function listAsCsv(db: Queryable, id: string, list: string): Promise<string> {
  const known = CSV_LISTS.find((l) => l === list)
  if (!known) throw notFound('List', list)
  const body = await newestBody(db, id)
  return toCsv<object>(CSV_ROWS[known], body[known] ?? [])
}
