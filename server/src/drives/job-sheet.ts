import type { AddFigure, AdoptSheet, SettleEdge } from '@moray/contract/requests/sheets'
import { refuse } from '@moray/core/checks/input-error'
import { figureAt } from '@moray/core/drives/own/body'
import type { SheetBody } from '@moray/core/drives/own/body'
import { EDGE_FIELDS, rowsOf } from '@moray/core/drives/graph/edge-fields'
import { rowName } from '@moray/core/drives/graph/row-name'
import type { GraphList } from '@moray/core/drives/graph/rows'
import { differences } from '@moray/core/drives/own/differences'
import { edgePath, isUnknown, withEdgeSeen } from '@moray/core/drives/own/from-bench'
import type { Source } from '@moray/core/drives/own/source'
import { readEntry, withEntry, withMissingFigure } from '@moray/core/drives/own/entry'
import { filled } from '@moray/core/drives/own/fill'
import { asBody, type StoredSheet } from '@moray/core/drives/upgrade/upgrade'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { Told } from '@moray/core/job/event'
import type { JudgedJob } from '@moray/core/job/judged'
import { routeOf } from '@moray/core/route/route-of'
import { findMeasured } from '@moray/core/setting/measured'
import type { Transaction } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'
import { keepPrint } from '../steps/route-seen.ts'
import type { Who } from '../request/who.ts'
import { changeDraft, nameOf, startDraft } from './drafts.ts'
import { bodyOfVersion, holdDrive, insertVersion, publishedSheet, theVariant, versionFor } from './sheets.ts'

/**
 * A figure that the sheet of a job lacks, entered where it is needed: the job goes on with a version that has it, and the draft of the
 * next edition gets it too, with its source and who entered it.
 */
export async function addFigure({ tx, job, who }: At, entry: AddFigure): Promise<Told> {
  const { id, version } = job.sheet
  await holdDrive(tx, id)
  const body = await bodyOfVersion(tx, id, version)
  const name = await nameOf(tx, who)
  const { field, value, source } = readEntry(body, entry, { at: who.at, ...(name ? { name } : {}) })
  if (value === undefined) refuse('text', 'is empty; write the figure, or leave it')
  if (figureAt(body, field.path) !== undefined)
    throw new Refusal(
      409,
      'known-already',
      `${field.label} stands on the sheet already. Change it in the sheet; this job can go on with the new version.`,
    )
  const figure = { path: field.path, value, source: source && { ...source, atBench: true } }
  const next = withEntry(body, field.path, value, figure.source)
  const { version: now } = await insertVersion(tx, next, who, { publish: false })
  await goOnWith(tx, job.id, filled({ ...next, version: now }))
  await intoNextEdition(tx, job, who, (draft) => withMissingFigure(draft, job.sheet.variant?.id, figure))
  return {
    kind: 'figure',
    subject: `figure:${field.path}`,
    data: { label: field.label, as: source?.as ?? '' },
  }
}

/**
 * The figure goes into the draft of the next edition, which begins from the newest edition where none is open: the job may be on an older one, or on one
 * of its variants.
 */
async function intoNextEdition(
  tx: Transaction,
  job: JudgedJob,
  who: Who,
  entered: (draft: SheetBody) => SheetBody,
) {
  const { id, version } = job.sheet
  const [draft] = await tx.query<{ body: StoredSheet }>('select body from sheet_draft where id = $1', [id])
  const newest = await publishedSheet(tx, id)
  const { version: _version, ...before } =
    (draft && asBody(draft.body)) ?? (await bodyOfVersion(tx, id, newest?.version ?? version))
  const after = entered(before)
  if (after === before) return
  if (!draft) await startDraft(tx, id, before, who)
  await changeDraft(tx, before, after, who)
}

/**
 * Whether a row leads to another one, as it was seen at the bench. Yes and no go into the sheet of this job and into the draft of the next edition; who
 * cannot tell is not asked again on this job.
 */
export async function settleEdge(
  { tx, job, who, entered }: At,
  { seen, ...edge }: SettleEdge,
): Promise<Told> {
  const { id, version } = job.sheet
  await holdDrive(tx, id)
  const body = await bodyOfVersion(tx, id, version)
  if (!isUnknown(body, edge)) refuse('to', 'is no open question of this sheet')
  const path = edgePath(edge)
  if (seen === 'cannot-tell') {
    await tx.query(
      `insert into told (job_id, kind, subject, reason, by_person, at, entered) values ($1, 'not-known', $2, '', $3, $4, $5)`,
      [job.id, path, who.id, who.at, entered],
    )
  } else {
    const by = await nameOf(tx, who)
    const source: Source = {
      path,
      kind: 'seen',
      as: seen,
      on: who.at.toISOString().slice(0, 10),
      ...(by ? { by } : {}),
      atBench: true,
    }
    const next = withEdgeSeen(body, edge, seen === 'yes', source)
    const { version: now } = await insertVersion(tx, next, who, { publish: false })
    await goOnWith(tx, job.id, filled({ ...next, version: now }))
    await intoNextEdition(tx, job, who, (draft) =>
      isUnknown(draft, edge) ? withEdgeSeen(draft, edge, seen === 'yes', source) : draft,
    )
  }
  const named = (list: GraphList, row: string) => rowName(rowsOf(body, list).find((r) => r.id === row)) ?? row
  const to = EDGE_FIELDS[edge.list]![edge.field]!.find((l) => rowsOf(body, l).some((r) => r.id === edge.to))
  return {
    kind: 'edge',
    subject: `edge:${path}`,
    data: { row: named(edge.list, edge.row), field: edge.field, to: to ? named(to, edge.to) : edge.to, seen },
  }
}

/** From here on a job works by this sheet, and its route is the one of this sheet. */
export async function goOnWith(tx: Transaction, jobId: string, sheet: DriveSheet): Promise<void> {
  const hash = await keepPrint(tx, routeOf(sheet))
  await tx.query('update job set sheet_id = $2, sheet_version = $3, route_hash = $4 where id = $1', [
    jobId,
    sheet.id,
    sheet.version,
    hash,
  ])
}

/** A job goes on with a newer edition, on purpose: what was entered on it has to have its place there too. */
export async function adoptSheet({ tx, job, who }: At, adopt: AdoptSheet): Promise<Told> {
  const { id } = job.sheet
  const [row] = await tx.query<{ edition: number | null }>(
    'select edition from drive_sheet where id = $1 and version = $2',
    [id, adopt.version],
  )
  if (row?.edition == null)
    refuse('version', `is ${adopt.version}; that is no published version of this sheet`)
  if (adopt.version <= job.sheet.version)
    refuse('version', `is ${adopt.version}; the job works on a version as new as that`)
  await holdDrive(tx, id)
  const before = await bodyOfVersion(tx, id, job.sheet.version)
  const newer = await bodyOfVersion(tx, id, adopt.version)
  // a job on one of the variants goes on with the same one
  const next = job.sheet.variant ? theVariant(newer, job.sheet.variant.id) : newer
  const sheet = filled(next)
  const lost = withoutPlace(job, sheet)
  if (lost.length)
    throw new Refusal(
      422,
      'no-place',
      `That version has no place for what this job holds already: ${lost.join(', ')}. Finish it on the version it has.`,
    )
  const version = job.sheet.variant ? await versionFor(tx, next, who) : sheet.version
  await goOnWith(tx, job.id, { ...sheet, version })
  return {
    kind: 'sheet-adopted',
    subject: `sheet:${id}`,
    data: { edition: row.edition, changes: differences(before, next).length, reason: adopt.reason },
  }
}

/** What was entered on a job and has no place in another sheet: stacks, measures that were read, parts in the row. */
function withoutPlace(job: JudgedJob, sheet: DriveSheet): string[] {
  const stacks = new Set(sheet.adjusters.map((a) => a.id))
  const parts = new Set(sheet.parts.map((p) => p.id))
  return [
    ...new Set([
      ...job.builds.flatMap((b) =>
        b.stacks.filter((s) => !stacks.has(s.location)).map((s) => `stack ${s.location}`),
      ),
      ...job.builds.flatMap((b) =>
        b.readings.filter((r) => !findMeasured(sheet, r.measure)).map((r) => `readings of ${r.measure}`),
      ),
      ...job.row.filter((r) => r.part !== null && !parts.has(r.part)).map((r) => r.name),
      ...(job.scopes.at(-1)?.usual === 'own' ? job.scopes.at(-1)!.targets : [])
        .filter((t) => !parts.has(t))
        .map((t) => `the scope, which reaches ${t}`),
      ...job.loops
        .flatMap((l) => l.targets)
        .filter((t) => !parts.has(t))
        .map((t) => `a repair at ${t}`),
    ]),
  ]
}
