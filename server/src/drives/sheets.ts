import type { DriveEntry, SheetVersion } from '@moray/contract/replies'
import { bodyProblems } from '@moray/contract/sheet/body-problems'
import { differences } from '@moray/core/drives/own/differences'
import type { SheetBody } from '@moray/core/drives/own/body'
import { filled } from '@moray/core/drives/own/fill'
import { asBody, type StoredSheet } from '@moray/core/drives/upgrade/upgrade'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { InputError, refuse } from '@moray/core/checks/input-error'
import { ofVariant } from '@moray/core/drives/own/variants'
import type { Queryable, Transaction } from '../db/database.ts'
import { notFound } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'

interface SheetRow {
  version: number
  edition: number | null
  after?: number | null
  body: StoredSheet
}

/** A stored version as everything else knows sheets, with the edition that it was published as. */
const sheetOf = ({ version, edition, after, body }: SheetRow): DriveSheet => ({
  ...filled({ ...asBody(body), version }),
  ...(edition === null ? {} : { edition }),
  ...(after ? { after } : {}),
})

/** The newest version of every sheet that is published, and the drafts of those that are not. */
export async function newestSheets(db: Queryable): Promise<DriveEntry[]> {
  const rows = await db.query<
    Omit<SheetRow, 'body'> & { body: SheetRow['body'] | null; draft: StoredSheet | null }
  >(
    `select v.version, v.edition, v.body, t.body as draft
     from drive d
     left join lateral (select * from drive_sheet s where s.id = d.id and s.edition is not null order by s.edition desc limit 1) v on true
     left join sheet_draft t on t.id = d.id
     where v.body is not null or t.id is not null order by coalesce(v.name, t.body ->> 'name'), d.id`,
  )
  return rows.map(({ version, edition, body, draft }) =>
    body === null
      ? { ...filled(asBody(draft!)), drafted: true, waiting: 0 }
      : {
          ...sheetOf({ version, edition, body }),
          drafted: draft !== null,
          waiting: draft === null ? 0 : differences(asBody(body), asBody(draft)).length,
        },
  )
}

/** The newest published version; undefined while there is none. */
export async function publishedSheet(db: Queryable, id: string): Promise<DriveSheet | undefined> {
  const [row] = await db.query<SheetRow>(
    'select version, edition, body from drive_sheet where id = $1 and edition is not null order by edition desc limit 1',
    [id],
  )
  return row && sheetOf(row)
}

/** The body that somebody would go on typing: the draft, or that of the newest published version. */
export async function newestBody(db: Queryable, id: string): Promise<SheetBody> {
  const [row] = await db.query<{ body: StoredSheet | null }>(
    `select coalesce((select body from sheet_draft where id = $1),
       (select body from drive_sheet where id = $1 and edition is not null order by edition desc limit 1)) as body`,
    [id],
  )
  if (!row?.body) throw notFound('Drive sheet', id)
  return asBody(row.body)
}

/** The newest published version, or the draft where there is none yet. */
export async function newestSheet(db: Queryable, id: string): Promise<DriveSheet> {
  const published = await publishedSheet(db, id)
  if (published) return published
  const [draft] = await db.query<{ body: StoredSheet }>('select body from sheet_draft where id = $1', [id])
  if (!draft) throw notFound('Drive sheet', id)
  return filled(asBody(draft.body))
}

/** The body of a version: what leaves the shop, and what the next one begins with. */
export async function bodyOfVersion(db: Queryable, id: string, version: number): Promise<SheetBody> {
  const [row] = await db.query<SheetRow>(
    'select version, edition, body from drive_sheet where id = $1 and version = $2',
    [id, version],
  )
  if (!row) throw notFound('Drive sheet', `${id}, version ${version},`)
  return { ...asBody(row.body), version: row.version }
}

export async function listVersions(db: Queryable, id: string): Promise<SheetVersion[]> {
  return db.query<SheetVersion>(
    `select s.version, s.edition, s.note, iso(s.at) as at, (select p.name from person p where p.id = s.by_person) as by,
       (select count(*)::int from job j where j.sheet_id = s.id and j.sheet_version = s.version) as jobs
     from drive_sheet s where s.id = $1 and s.edition is not null order by s.edition desc`,
    [id],
  )
}

/**
 * Sheets by version, kept in memory once they are read: a version never changes, and the route that core builds from one is
 * remembered with the very object.
 */
export class SheetShelf {
  private kept = new Map<string, DriveSheet>()

  async get(db: Queryable, id: string, version: number): Promise<DriveSheet> {
    const key = `${id} ${version}`
    const before = this.kept.get(key)
    if (before) return before
    const [row] = await db.query<SheetRow>(
      'select version, edition, after_edition as after, body from drive_sheet where id = $1 and version = $2',
      [id, version],
    )
    if (!row) throw notFound('Drive sheet', `${id}, version ${version},`)
    const sheet = sheetOf(row)
    this.kept.set(key, sheet)
    return sheet
  }

  /** Another history begins: the same version of the same drive may be another sheet in it. */
  clear(): void {
    this.kept.clear()
  }
}

/** Holds a drive until the commit: numbers of its versions are given out one by one. @throws Refusal 404 */
export async function holdDrive(tx: Transaction, id: string): Promise<void> {
  const [row] = await tx.query('select id from drive where id = $1 for update', [id])
  if (!row) throw notFound('Drive', id)
}

/**
 * Keeps a body as the next version of its drive, which {@link holdDrive} holds. One that is not published remembers the edition that it goes on from: that
 * of the version that the body names.
 * @param edition it is published, and counts as the next edition
 * @throws InputError naming everything that cannot be
 * @returns its version, and the edition
 */
export async function insertVersion(
  tx: Transaction,
  body: SheetBody,
  who: Pick<Who, 'id' | 'at'>,
  { publish, note = '' }: { publish: boolean; note?: string },
): Promise<{ version: number; edition: number | null }> {
  const wrong = bodyProblems(body)
  if (wrong.length) throw new InputError('bad-sheet', wrong)
  const { version: _version, ...kept } = body
  const [row] = await tx.query<{ version: number; edition: number | null }>(
    `insert into drive_sheet (id, version, edition, body, note, by_person, at, after_edition)
     select $1, coalesce(max(version), 0) + 1, case when $3 then coalesce(max(edition), 0) + 1 end, $2::jsonb, $4, $5, $6,
       case when not $3 then max(case when version = $7 then coalesce(edition, after_edition) end) end
     from drive_sheet where id = $1 returning version, edition`,
    [body.id, JSON.stringify(kept), publish, note, who.id, who.at, body.version ?? null],
  )
  return row!
}

/** The sheet as it is of a variant. @throws InputError when it has none of that id */
export function theVariant(body: SheetBody, id: string): SheetBody {
  const variant = body.variants?.find((v) => v.id === id)
  if (!variant)
    refuse(
      'variant',
      `"${id}" is no variant of ${body.name}; there are ${body.variants?.map((v) => v.label).join(', ') || 'none'}`,
    )
  return ofVariant(body, variant)
}

/** The version that holds just this, a new one where none does yet; for a drive that {@link holdDrive} holds. */
export async function versionFor(
  tx: Transaction,
  body: SheetBody,
  who: Pick<Who, 'id' | 'at'>,
): Promise<number> {
  const { version: _version, ...kept } = body
  const [row] = await tx.query<{ version: number }>(
    'select version from drive_sheet where id = $1 and edition is null and body = $2::jsonb order by version desc limit 1',
    [body.id, JSON.stringify(kept)],
  )
  return row?.version ?? (await insertVersion(tx, body, who, { publish: false })).version
}

/**
 * Stores the demo's sheets in versions that are not there yet; jobs keep the version they were opened with.
 * @returns how many were new
 * @throws InputError naming the place when a sheet, or the route that follows from it, does not hang together
 */
export async function addSheets(tx: Transaction, sheets: readonly SheetBody[]): Promise<number> {
  const stored = await tx.query<{ id: string; version: number; edition: number | null }>(
    'select id, max(version) as version, max(edition) as edition from drive_sheet group by id',
  )
  const known = new Map(stored.map((s) => [s.id, s]))
  const fresh = sheets.filter((x) => (x.version ?? 0) > (known.get(x.id)?.edition ?? 0))
  for (const s of fresh) {
    // a job may have taken the number meanwhile, for its own sheet with a figure typed at the bench
    const version = Math.max(s.version ?? 1, (known.get(s.id)?.version ?? 0) + 1)
    const body = { ...s, version }
    const wrong = bodyProblems(body)
    if (wrong.length) throw new InputError('bad-sheet', wrong)
    await tx.query('insert into drive (id) values ($1) on conflict do nothing', [s.id])
    await tx.query(
      `insert into drive_sheet (id, version, edition, body) values ($1, $2, $2, $3::jsonb) on conflict do nothing`,
      [s.id, version, JSON.stringify(body)],
    )
  }
  return fresh.length
}
