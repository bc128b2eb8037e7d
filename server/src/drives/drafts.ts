import type { SheetDraft } from '@moray/contract/replies'
import type { AddDrive, BeginDraft, PublishSheet } from '@moray/contract/requests/sheets'
import { type SheetBody } from '@moray/core/drives/own/body'
import { same } from '@moray/core/drives/own/same'
import { templateOf } from '@moray/core/drives/own/template'
import { asBody, type StoredSheet } from '@moray/core/drives/upgrade/upgrade'
import { changesBetween } from '@moray/core/drives/own/row-changes'
import type { SheetChange, Told } from '@moray/core/job/event'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import { lastChanges } from './undo.ts'
import { holdDrive, insertVersion, publishedSheet, bodyOfVersion } from './sheets.ts'

/** What happened to a sheet, for the history. */
export const told = (id: string, data: SheetChange): Told => ({ kind: 'sheet', subject: `sheet:${id}`, data })

/** A value as it is read back: without what JSON does not keep. */
export const asStored = (v: unknown): unknown => JSON.parse(JSON.stringify(v))

/** The draft of a drive's next version. @throws Refusal 404 while none is open */
export async function readDraft(db: Queryable, id: string): Promise<SheetDraft> {
  const [row] = await db.query<Omit<SheetDraft, 'body'> & { body: StoredSheet }>(
    `select t.body, iso(t.at) as "changedAt", p.name as "changedBy", v.edition, v.version
     from sheet_draft t join person p on p.id = t.by_person
     left join lateral (select edition, version from drive_sheet s where s.id = t.id and s.edition is not null order by s.edition desc limit 1) v on true
     where t.id = $1`,
    [id],
  )
  if (!row) throw notFound('Draft of the drive', id)
  return { ...row, body: asBody(row.body), changes: await lastChanges(db, id) }
}

/** What the draft of a drive says where something of it was entered at the bench; undefined where nothing was. */
export async function draftFromBench(db: Queryable, id: string): Promise<SheetBody | undefined> {
  const [row] = await db.query<{ body: StoredSheet }>(
    `select body from sheet_draft where id = $1 and body -> 'sources' @> '[{"atBench": true}]'`,
    [id],
  )
  return row && asBody(row.body)
}

/** Letters and digits of a name, for an id that stays. */
export function slugOf(name: string): string {
  const slug = name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 50)
  // a name in another script has no letters that an id may hold
  return slug || `drive-${[...name].reduce((n, c) => (n * 31 + c.codePointAt(0)!) % 1_000_000_007, 7)}`
}

/** Begins a draft with a body, in the place of one that is there, with all that was changed in it; the drive is held. */
export async function startDraft(tx: Transaction, id: string, body: SheetBody, who: Who): Promise<void> {
  await tx.query('delete from sheet_draft_change where drive = $1', [id])
  await storeDraft(tx, id, body, who)
}

/**
 * Keeps a body as the draft of its drive's next edition, and what was changed in it; the drive is held.
 * @param undoes the change that this one takes back
 */
export async function changeDraft(
  tx: Transaction,
  before: SheetBody,
  body: SheetBody,
  who: Who,
  undoes: number | null = null,
): Promise<void> {
  await storeDraft(tx, body.id, body, who)
  const changes = changesBetween(before, asStored(body) as SheetBody)
  if (!changes.length) return
  await tx.query(
    'insert into sheet_draft_change (drive, changes, undoes, by_person, at) values ($1, $2::jsonb, $3, $4, $5)',
    [body.id, JSON.stringify(changes), undoes, who.id, who.at],
  )
}

const storeDraft = (tx: Transaction, id: string, body: SheetBody, who: Who) =>
  tx.query(
    `insert into sheet_draft (id, body, by_person, at) values ($1, $2::jsonb, $3, $4)
     on conflict (id) do update set body = excluded.body, by_person = excluded.by_person, at = excluded.at`,
    [id, JSON.stringify(body), who.id, who.at],
  )

/** A drive that nobody here has opened before: its family's template under its name. A twin meets the constraint drive_pkey. */
export async function addDrive(
  tx: Transaction,
  body: AddDrive,
  who: Who,
): Promise<{ id: string; told: Told }> {
  const id = slugOf(body.name)
  await tx.query('insert into drive (id) values ($1)', [id])
  const template = templateOf(body.family, id, body.name)
  await startDraft(tx, id, body.manual ? { ...template, manual: body.manual } : template, who)
  return { id, told: told(id, { act: 'added', name: body.name }) }
}

/** A draft out of the newest version. */
export async function beginDraft(tx: Transaction, id: string, body: BeginDraft, who: Who): Promise<Told> {
  await holdDrive(tx, id)
  const [open] = await tx.query('select 1 from sheet_draft where id = $1', [id])
  if (open && !body.anew)
    throw new Refusal(409, 'draft-open', 'A draft of the next version is open already; go on with it.')
  const newest = await publishedSheet(tx, id)
  if (!newest)
    throw new Refusal(409, 'no-version', 'Nothing of this sheet is published yet; its draft is all there is.')
  const { version: _version, ...next } = await bodyOfVersion(tx, id, newest.version)
  await startDraft(tx, id, next, who)
  return told(id, { act: 'begun', name: next.name })
}

export async function nameOf(tx: Transaction, who: Who): Promise<string | undefined> {
  const [row] = await tx.query<{ name: string }>('select name from person where id = $1', [who.id])
  return row?.name
}

/** The draft becomes the next edition, and is no draft any more. */
export async function publishSheet(tx: Transaction, id: string, body: PublishSheet, who: Who): Promise<Told> {
  await holdDrive(tx, id)
  const draft = await readDraft(tx, id)
  const before = await publishedSheet(tx, id)
  if (before) {
    const { version: _version, ...last } = await bodyOfVersion(tx, id, before.version)
    const { version: _own, ...next } = draft.body
    if (same(asStored(last), asStored(next)))
      throw new Refusal(
        409,
        'as-before',
        'The draft says the same as the newest version; change something, or leave it.',
      )
  }
  const { edition } = await insertVersion(tx, draft.body, who, { publish: true, note: body.note ?? '' })
  await tx.query('delete from sheet_draft_change where drive = $1', [id])
  await tx.query('delete from sheet_draft where id = $1', [id])
  return told(id, { act: 'published', name: draft.body.name, edition: edition!, note: body.note ?? '' })
}
