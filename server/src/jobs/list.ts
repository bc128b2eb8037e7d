import type { JobPage, JobSummary, KnownUnit } from '@moray/contract/replies'
import type { Queryable } from '../db/database.ts'
import { codeOf, DAMAGED } from '../db/sqlstate.ts'

export interface JobQuery {
  /** Words that all stand in the number, serial, boat, owner, complaint or the sheet's name. */
  search: string
  /** Still worked on, or over. */
  state: 'open' | 'over' | 'all'
  /** `next` of the page before. */
  before: string | null
  limit: number
}

const HEAD = `json_build_object('id', j.id, 'number', j.number, 'sheetId', j.sheet_id, 'sheetName', d.name, 'family', d.family,
  'serial', j.serial, 'boat', j.boat, 'owner', j.owner, 'water', j.water, 'hours', j.hours, 'stand', j.stand,
  'state', j.state, 'stage', j.stage, 'waits', j.waits, 'complaint', j.complaint,
  'openedAt', iso(j.opened_at), 'touchedAt', iso(j.touched_at)) as head`

const SHEET = 'join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version'

/** A clock that was wrong once must not keep its jobs on top: what is dated ahead comes last. */
const AHEAD = (time: string) => `(${time} > $4::timestamptz)`
const CURSOR = "split_part($2, '|', 1)::timestamptz"
const AHEAD_MS = 86_400_000
/** Nobody types more to find a job. */
const MOST_WORDS = 10

/**
 * Each word stands in the number, serial, boat, owner or complaint, or in the name of the drive, which is looked at once for each drive and not for each job.
 * @param first number of the first word's parameter
 */
const hasWords = (words: readonly string[], first: number) =>
  words
    .map(
      (_, i) =>
        `and (strpos(j.found_by, $${first + i}) > 0 or (j.sheet_id, j.sheet_version) in
          (select n.id, n.version from drive_sheet n where strpos(lower(n.name), $${first + i}) > 0))`,
    )
    .join(' ')

const whereOf = (
  words: readonly string[],
) => `where ($1 = 'all' or (j.state in ('finished', 'closed')) = ($1 = 'over'))
  ${hasWords(words, 5)}
  and ($2::text is null or (case when ${AHEAD('j.touched_at')} = ${AHEAD(CURSOR)}
    then (j.touched_at, j.id) < (${CURSOR}, split_part($2, '|', 2)) else ${AHEAD('j.touched_at')} end))`

/** A shop has fewer stands than a page has jobs: the first page of open jobs holds all that stand on one, the others none. */
const BEFORE_OPEN = 'and ($2::text is null or j.stand is null)'

/** One page of the bench list, the newest touched first; of the open ones those on a stand before all others. A damaged page of the database takes only its own jobs out of it. */
export async function listJobs(db: Queryable, q: JobQuery, now: Date): Promise<JobPage> {
  const words = [...new Set(q.search.toLowerCase().split(/\s+/).filter(Boolean))].slice(0, MOST_WORDS)
  const params = [q.state, q.before, q.limit + 1, new Date(now.getTime() + AHEAD_MS), ...words]
  let rows: { head: JobSummary }[]
  let damaged = 0
  try {
    const order = `${AHEAD('j.touched_at')}, j.touched_at desc, j.id desc`
    // which jobs first, and what is said of them after that
    rows = await db.query(
      `select ${HEAD} from (
         select j.id from job j ${whereOf(words)}
         ${q.state === 'open' ? `${BEFORE_OPEN} order by j.stand is null, ${order}` : `order by ${order}`} limit $3
       ) page join job j on j.id = page.id ${SHEET}
       order by ${q.state === 'open' ? `j.stand is null, ${order}` : order}`,
      params,
    )
  } catch (e) {
    if (!DAMAGED.has(codeOf(e))) throw e
    ;({ rows, damaged } = await whatCanBeRead(db, params, words))
  }
  const jobs = rows.slice(0, q.limit).map((r) => r.head)
  const last = jobs.at(-1)
  return { jobs, next: rows.length > q.limit && last ? `${last.touchedAt}|${last.id}` : null, damaged }
}

/** Reads the table block by block and leaves out what does not read. */
async function whatCanBeRead(db: Queryable, params: unknown[], words: readonly string[]) {
  const [size] = await db.query<{ blocks: number }>(
    "select (pg_relation_size('job') / current_setting('block_size')::int)::int as blocks",
  )
  const found: { head: JobSummary }[] = []
  let damaged = 0
  for (let block = 0; block < size!.blocks; block++) {
    const within = `j.ctid >= '(${block},0)'::tid and j.ctid < '(${block + 1},0)'::tid`
    try {
      found.push(
        ...(await db.query<{ head: JobSummary }>(
          `select ${HEAD} from job j ${SHEET} ${whereOf(words)} and ${within} limit $3`,
          params,
        )),
      )
    } catch (e) {
      if (!DAMAGED.has(codeOf(e))) throw e
      damaged++
    }
  }
  found.sort((a, b) => b.head.touchedAt.localeCompare(a.head.touchedAt))
  return { rows: found.slice(0, Number(params[2])), damaged }
}

/** Earlier jobs of a unit that stand beside its newest one. */
const EARLIER_SHOWN = 12
/** Units on the page of boats, and in a table that is saved. */
const UNITS_SHOWN = 50
const MOST_UNITS = 20_000
/** Among so many of the newest jobs nearly every shop has as many units as the page shows. */
const RECENT_JOBS = 500

/** Drives that have been here, the newest visit first; one entry for a serial number of a sheet. */
export async function knownUnits(db: Queryable, search: string, all = false): Promise<KnownUnit[]> {
  if (all || search) return unitsAmong(db, search, all ? MOST_UNITS : UNITS_SHOWN, null)
  const shown = await unitsAmong(db, search, UNITS_SHOWN, RECENT_JOBS)
  // units that have been here again and again since hide those that have not
  return shown.length < UNITS_SHOWN ? unitsAmong(db, search, UNITS_SHOWN, null) : shown
}

/** @param among so many of the newest jobs; null: all */
async function unitsAmong(
  db: Queryable,
  search: string,
  most: number,
  among: number | null,
): Promise<KnownUnit[]> {
  const rows = await db.query<{ unit: KnownUnit }>(
    `select json_build_object('serial', j.serial, 'sheetId', j.sheet_id, 'sheetName', d.name, 'boat', j.boat, 'owner', j.owner,
       'water', j.water, 'jobs', j.jobs, 'lastAt', iso(j.opened_at), 'lastJob', j.id, 'lastState', j.state, 'earlier', (
         select coalesce(json_agg(json_build_object('id', o.id, 'number', o.number, 'at', iso(o.opened_at)) order by o.opened_at desc), '[]'::json)
         from (select id, number, opened_at from job where serial = j.serial and sheet_id = j.sheet_id and id <> j.id
           order by opened_at desc limit ${EARLIER_SHOWN}) o)) as unit
     from (select u.*, (select count(*)::int from job c where c.serial = u.serial and c.sheet_id = u.sheet_id) as jobs from (
       select distinct on (serial, sheet_id) * from (
         select * from job where $1 = '' or (strpos(found_by, lower($1)) > 0 and strpos(lower(concat_ws(' ', serial, boat, owner)), lower($1)) > 0)
         order by opened_at desc limit $3
       ) recent order by serial, sheet_id, opened_at desc
     ) u order by u.opened_at desc limit $2) j
     join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version
     order by j.opened_at desc`,
    [search, most, among],
  )
  return rows.map((r) => r.unit)
}
