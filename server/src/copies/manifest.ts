import type { Anchor } from '../data/mark.ts'

/** What a copy is called in its own manifest; another number where its layout changes. */
export const COPY_FORMAT = 'moray-copy'
export const COPY_LAYOUT = 1

export const MANIFEST = 'manifest.json'
export const TABLE_NAME = /^tables\/([a-z][a-z0-9_]*)\.jsonl$/
export const PICTURE_NAME = /^pictures\/([0-9a-f]{64})$/

/** Rows of a table as they lie in a copy. */
export interface TableSum {
  rows: number
  bytes: number
  /** SHA-256 over its lines, in the order of its primary key. */
  sha256: string
}

/** The first thing to read of a copy, and the last that is written: a copy that was cut off has none. */
export interface Manifest {
  format: typeof COPY_FORMAT
  layout: number
  /** Version of the Moray that wrote it. */
  moray: string
  /** How many migrations its tables have seen. */
  schema: number
  shop: string
  /** When the copy was taken; everything acknowledged before that is in it. */
  at: string
  /** Name and address of the shop, as far as it has said them. */
  heading: string
  jobs: number
  /** The newest event: after a restore the folder's mark begins with it. Null in a shop where nothing has happened yet. */
  anchor: Anchor | null
  /** What the folder's mark said of breaks of the history: a copy does not launder them. */
  breaks: string[]
  tables: Record<string, TableSum>
  /** Where the numbers that the database gives out stood. */
  sequences: Record<string, number>
  pictures: { count: number; bytes: number }
  /** Pictures that rows name and that were missing or damaged in the shop itself. */
  lost: string[]
}

/** What is wrong with a copy, in words; nothing was changed because of it. */
export class CopyError extends Error {}

/** @throws CopyError when it is no manifest of a copy, or that of another layout */
export function checkedManifest(text: string): Manifest {
  let m: Partial<Manifest>
  try {
    m = JSON.parse(text) as Partial<Manifest>
  } catch {
    throw new CopyError(`${MANIFEST} is damaged: it cannot be read`)
  }
  if (m?.format !== COPY_FORMAT) throw new CopyError(`${MANIFEST} is not that of a copy of a shop`)
  if (m.layout !== COPY_LAYOUT)
    throw new CopyError(
      `it was written by Moray ${String(m.moray)}, in a layout that this one does not know; bring it back with that version or a newer one`,
    )
  const sums = Object.values(m.tables ?? {})
  const whole =
    isCount(m.schema) &&
    isText(m.moray, m.shop, m.at, m.heading) &&
    !Number.isNaN(Date.parse(m.at!)) &&
    isCount(m.jobs) &&
    sums.length > 0 &&
    sums.every((t) => isCount(t?.rows) && isCount(t?.bytes) && /^[0-9a-f]{64}$/.test(t?.sha256 ?? '')) &&
    Object.values(m.sequences ?? {}).every(isCount) &&
    isCount(m.pictures?.count) &&
    isCount(m.pictures?.bytes) &&
    isList(m.breaks) &&
    isList(m.lost) &&
    (m.anchor === null || (isCount(m.anchor?.event) && isText(m.anchor?.seal, m.anchor?.at)))
  if (!whole) throw new CopyError(`${MANIFEST} is damaged: what it has to say is not all there`)
  return m as Manifest
}

const isCount = (v: unknown): boolean => typeof v === 'number' && Number.isSafeInteger(v) && v >= 0
const isText = (...all: unknown[]): boolean => all.every((v) => typeof v === 'string')
const isList = (v: unknown): boolean => Array.isArray(v) && isText(...(v as unknown[]))
