import { accessSync, constants, statSync } from 'node:fs'
import { isAbsolute, resolve } from 'node:path'
import type { SetCopies } from '@moray/contract/requests/copies'
import { refuse } from '@moray/core/checks/input-error'
import type { Told } from '@moray/core/job/event'
import type { Queryable, Transaction } from '../db/database.ts'

/** What a shop has said about its copies. */
export interface CopySettings {
  /** Where they go; null: beside the shop's own data. */
  folder: string | null
  nightly: boolean
  demo: boolean
  /** When the shop's first event was; null while there is none. */
  begun: string | null
}

export async function copySettings(db: Queryable): Promise<CopySettings> {
  const [row] = await db.query<{ copies: Partial<CopySettings> | null; demo: boolean; begun: string | null }>(
    `select (select value from setting where key = 'copies') as copies,
       exists (select 1 from setting where key = 'demo' and value = 'true'::jsonb) as demo,
       (select iso(at) from event order by id limit 1) as begun`,
  )
  return {
    folder: row!.copies?.folder ?? null,
    nightly: row!.copies?.nightly ?? true,
    demo: row!.demo,
    begun: row!.begun,
  }
}

/** Says where copies go and whether one is made each night. @throws InputError when nothing can be written there */
export async function setCopies(tx: Transaction, body: SetCopies): Promise<Told> {
  const folder = body.folder?.trim() ? writable(body.folder.trim()) : null
  await tx.query(
    `insert into setting (key, value) values ('copies', $1::jsonb) on conflict (key) do update set value = excluded.value`,
    [JSON.stringify({ folder, nightly: body.nightly })],
  )
  return {
    kind: 'shop',
    subject: 'copies',
    data: { about: 'copies', nightly: body.nightly, ...(folder === null ? {} : { folder }) },
  }
}

function writable(text: string): string {
  if (!isAbsolute(text))
    refuse(
      'folder',
      `"${text}" does not say where it begins; write the whole path on the machine that Moray runs on, such as /media/stick/moray`,
    )
  const folder = resolve(text)
  const there = statSync(folder, { throwIfNoEntry: false })
  if (!there?.isDirectory())
    refuse(
      'folder',
      `${folder} is no folder on the machine that Moray runs on. Is the stick in? Make the folder first`,
    )
  try {
    accessSync(folder, constants.W_OK)
  } catch {
    refuse('folder', `Moray may not write into ${folder}`)
  }
  return folder
}
