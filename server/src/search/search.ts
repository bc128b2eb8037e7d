import type { Found, FoundJob, FoundLine, ForeignHead, SearchReply } from '@moray/contract/found'
import type { Database, Queryable } from '../db/database.ts'
import { foreignHead } from '../exchange/foreign-head.ts'

/** As many things are shown, and as many lines of each. */
const MOST_FOUND = 40
const MOST_LINES = 4
/** As many lines are looked at; whoever finds more adds a word. */
const MOST_HITS = 300
const MOST_LOOKED_AT = 2000
/** Jobs that are looked at before the index is asked: a word that is everywhere is in enough of them, and the index would name every job. */
const NEWEST = 400
/** Fewer than these, and words that only begin like what was typed are looked for too. */
const FEW = 5
/** Jobs that are read before a search: what has just been written is found. */
const BEFORE_SEARCH = 4

/** Brings what is searched up to the newest event, some jobs at a time, so that nobody waits for long meanwhile. @returns how many events are still to come */
export async function catchUp(db: Database, jobs = 1): Promise<number> {
  const [row] = await db.query<{ behind: number }>('select search_catch_up($1)::float8 as behind', [jobs])
  return row!.behind
}

type Hit = FoundLine & { job: string | null; foreign: number | null; drive: string | null }

/**
 * Finds jobs, records of other shops and drives in which every word stands, the newest first; and says what matched. Words may be cut off at their end.
 * Lines count that have at least one of the words themselves; the others may stand in the number, boat, owner, serial or drive that the line belongs to.
 */
export async function search(db: Database, typed: string): Promise<SearchReply> {
  const behind = await catchUp(db, BEFORE_SEARCH)
  const words = typed.split(/[\s,;]+/).filter((w) => /[\p{L}\p{N}]/u.test(w)).length
  if (!words) return { found: [], more: false, behind }
  // as it was typed first: a beginning of a word that is everywhere takes long to look up
  const exact = await hitsOf(db, typed, words, '')
  const hits = exact.length < FEW ? await hitsOf(db, typed, words, ':*') : exact
  const groups = grouped(hits)
  const shown = groups.slice(0, MOST_FOUND)
  return {
    found: await named(db, shown),
    more: groups.length > shown.length || hits.length >= MOST_HITS,
    behind,
  }
}

/**
 * @param words how many were typed. A single word has to stand in the line itself: in its surroundings it would find every line of a drive.
 * @param ends behind each word: nothing, or `:*` where it may go on
 */
function hitsOf(db: Queryable, typed: string, words: number, ends: '' | ':*'): Promise<Hit[]> {
  const lines =
    words === 1
      ? `select l.* from search_line l, q where l.own @@ q.every and l.kind <> 'job' limit ${MOST_HITS}`
      : `select l.* from (select l.* from search_line l, q where l.words @@ q.every limit ${MOST_LOOKED_AT}) l, q where l.own @@ q.some and l.kind <> 'job' limit ${MOST_HITS}`
  return db.query<Hit>(
    `with q as materialized (select search_query($1, ' & ', $2) as every, search_query($1, ' | ', $2) as some),
       newest as materialized (select l.* from (select * from search_line where kind = 'job' order by at desc limit ${NEWEST}) l, q where l.words @@ q.every),
       heads as (
         select * from newest where (select count(*) from newest) > ${MOST_FOUND}
         union all
         (select l.* from search_line l, q where (select count(*) from newest) <= ${MOST_FOUND} and l.kind = 'job' and l.words @@ q.every
          order by l.at desc limit ${MOST_HITS})),
       lines as (${lines})
     select l.job_id as job, l.foreign_id::float8 as foreign, l.drive_id as drive, l.kind, l.ref, l.text, iso(l.at) as at
     from (select * from heads union all select * from lines) l`,
    [typed, ends],
  )
}

interface Group {
  job: string | null
  foreign: number | null
  drive: string | null
  newest: string
  lines: FoundLine[]
}

/** What is the thing itself first, then what lies in it; the newest first. */
const RANK: Partial<Record<FoundLine['kind'], number>> = { job: 0, stack: 1 }

function grouped(hits: Hit[]): Group[] {
  const groups = new Map<string, Group>()
  for (const { job, foreign, drive, ...line } of hits) {
    const key = `${job ?? ''} ${foreign ?? ''} ${drive ?? ''}`
    const group = groups.get(key) ?? { job, foreign, drive, newest: '', lines: [] }
    group.lines.push(line)
    if (line.at > group.newest) group.newest = line.at
    groups.set(key, group)
  }
  return [...groups.values()].sort((a, b) => b.newest.localeCompare(a.newest))
}

async function named(db: Queryable, groups: Group[]): Promise<Found[]> {
  const jobs = await db.query<{ job: FoundJob }>(
    `select json_build_object('id', j.id, 'number', j.number, 'serial', j.serial, 'boat', j.boat, 'owner', j.owner, 'state', j.state,
       'openedAt', iso(j.opened_at), 'sheetId', j.sheet_id, 'sheetName', d.name) as job
     from job j join drive_sheet d on d.id = j.sheet_id and d.version = j.sheet_version where j.id = any($1)`,
    [groups.flatMap((g) => g.job ?? [])],
  )
  const foreign = await foreignHead(
    db,
    groups.flatMap((g) => g.foreign ?? []),
  )
  const drives = await db.query<{ id: string; name: string }>(
    'select distinct on (id) id, name from drive_sheet where id = any($1) order by id, version desc',
    [groups.flatMap((g) => g.drive ?? [])],
  )
  const byId = <T extends { id: string | number }>(rows: T[]) => new Map(rows.map((r) => [r.id, r]))
  const [ofJob, ofForeign, ofDrive] = [byId(jobs.map((r) => r.job)), byId<ForeignHead>(foreign), byId(drives)]
  return groups.flatMap((g): Found[] => {
    const lines = g.lines
      .sort((a, b) => (RANK[a.kind] ?? 2) - (RANK[b.kind] ?? 2) || b.at.localeCompare(a.at))
      .slice(0, MOST_LINES)
    const [job, other, drive] = [
      ofJob.get(g.job ?? ''),
      ofForeign.get(g.foreign ?? 0),
      ofDrive.get(g.drive ?? ''),
    ]
    if (job) return [{ what: 'job', job, lines }]
    if (other) return [{ what: 'foreign', foreign: other, lines }]
    return drive ? [{ what: 'drive', drive, lines }] : []
  })
}
