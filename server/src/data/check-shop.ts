import type { Queryable } from '../db/database.ts'
import { checkSeals, type Findings } from './check-seals.ts'
import type { FileStore } from '../files/file-store.ts'

type Seals = Parameters<typeof checkSeals>[2]

/** Reads the whole shop and says what does not hold. Changes nothing. */
export async function checkShop(db: Queryable, files: FileStore, seals: Seals): Promise<Findings> {
  const found: Findings = { looked: [], broken: [] }
  await everyRow(db, found)
  const held = await checkRecords(db, files, seals)
  return { looked: [...found.looked, ...held.looked], broken: [...found.broken, ...held.broken] }
}

/** The same where every row was just read already: whether the records hold together. */
export async function checkRecords(db: Queryable, files: FileStore, seals: Seals): Promise<Findings> {
  const found: Findings = { looked: [], broken: [] }
  await checkSeals(db, found, seals).catch((e: unknown) => found.broken.push(`seals: ${said(e)}`))
  await stock(db, found)
  await closings(db, found)
  await pictures(db, files, found)
  return found
}

const said = (e: unknown) => (e instanceof Error ? e.message : String(e))

/** Every column of every row, block by block, so that one damaged page hides no other. */
async function everyRow(db: Queryable, { looked, broken }: Findings) {
  const tables = await db.query<{ name: string; blocks: number }>(
    `select c.relname as name, (pg_relation_size(c.oid) / current_setting('block_size')::int)::int as blocks
     from pg_class c where c.relkind = 'r' and c.relnamespace = current_schema()::regnamespace order by c.relname`,
  )
  let rows = 0
  for (const t of tables)
    for (let block = 0; block < t.blocks; block++)
      try {
        // the whole row as text: what lies in a side table (TOAST) is fetched as well
        const [read] = await db.query<{ n: number; bytes: number }>(
          `select count(*)::int as n, coalesce(sum(length(t::text)), 0)::float8 as bytes from "${t.name}" t
           where t.ctid >= '(${block},0)'::tid and t.ctid < '(${block + 1},0)'::tid`,
        )
        rows += read!.n
      } catch (e) {
        broken.push(`table ${t.name}, page ${block}: ${said(e)}`)
      }
  looked.push(`${rows} rows in ${tables.length} tables`)
}

async function stock(db: Queryable, { looked, broken }: Findings) {
  try {
    const rows = await db.query<{ id: string; count: number; moved: number }>(
      `select l.id, l.count, coalesce((select sum(m.delta) from shim_movement m where m.line_id = l.id), 0)::int as moved
       from shim_line l order by l.id`,
    )
    for (const r of rows)
      if (r.count !== r.moved)
        broken.push(`drawer line ${r.id}: ${r.count} pieces are kept, its movements add up to ${r.moved}`)
    looked.push(`${rows.length} drawer lines against their movements`)
  } catch (e) {
    broken.push(`drawer: ${said(e)}`)
  }
}

/** The mark of the closing that counts, against the closings themselves. */
async function closings(db: Queryable, { looked, broken }: Findings) {
  try {
    const rows = await db.query<{ job_id: string; step: string }>(
      `select d.job_id, d.step from step_done d
       left join step_taken_back b on b.step_done_id = d.id left join step_standing s on s.step_done_id = d.id
       where (b.step_done_id is null) <> (s.step_done_id is not null) order by d.id limit 5`,
    )
    for (const r of rows)
      broken.push(`job ${r.job_id}, step ${r.step}: it is not certain whether it is closed`)
    looked.push('closings of steps')
  } catch (e) {
    broken.push(`steps: ${said(e)}`)
  }
}

async function pictures(db: Queryable, files: FileStore, { looked, broken }: Findings) {
  try {
    const rows = await db.query<{ hash: string }>(
      'select hash from file union select hash from original order by hash',
    )
    const known = new Set(rows.map((r) => r.hash))
    for (const { hash } of rows) {
      const content = await files.get(db, hash)
      if (content === undefined) broken.push(`picture ${hash}: its file is missing`)
      else if (content === 'damaged') broken.push(`picture ${hash}: its file was changed`)
    }
    const { hashes, half } = await files.list(db)
    const orphans = hashes.filter((h) => !known.has(h))
    looked.push(
      `${rows.length} pictures` +
        (orphans.length
          ? `; ${orphans.length} files that no row names (harmless: a write that was refused)`
          : '') +
        (half.length ? `; ${half.length} half-written files (harmless)` : ''),
    )
  } catch (e) {
    broken.push(`pictures: ${said(e)}`)
  }
}
