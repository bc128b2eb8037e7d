import type { Queryable } from '../db/database.ts'
import { bodyOf, type DbFunction } from '../db/functions.ts'
import type { Anchor } from './mark.ts'

/** What a check adds to: lines of what was looked at, and of what is broken. */
export interface Findings {
  looked: string[]
  broken: string[]
}

/** Evidence: its rows are never changed. The triggers that see to it are named after the table. */
const EVIDENCE = [
  ...['build', 'stack', 'stack_piece', 'stack_superseded', 'reading', 'reading_superseded', 'acceptance'],
  ...['acceptance_withdrawn', 'shim_movement', 'step_done', 'step_taken_back', 'grade', 'job_finding'],
  ...[
    'fault_outcome',
    'likelihood_edit',
    'estimate',
    'approval',
    'job_school',
    'file',
    'attachment',
    'original',
  ],
  ...['lead_agreement', 'gauge_calibration', 'drive_sheet', 'job_scope', 'open_item', 'open_item_closed'],
  ...['repair_loop', 'job_unit', 'pattern_mark', 'pattern_mark_superseded', 'foreign_job', 'told'],
  ...['act', 'act_struck'],
]
/** Rows that change with the shop: sealed at every change. */
const SEALED = ['job', 'person', 'gauge', 'shim_line', 'row_part', 'device', 'setting']
const TRIGGERS = [
  ...EVIDENCE.flatMap((t) => [`${t}_stays`, `${t}_whole`, `${t}_sealed`]),
  ...SEALED.map((t) => `${t}_sealed`),
  ...['event_stays', 'event_whole', 'event_sealed', 'row_seal_stays', 'row_seal_whole'],
]
const FUNCTIONS = ['refuse_change', 'seal_event', 'seal_row', 'event_digest', 'row_digest']
/** As many of one kind are named; the rest is counted. */
const MOST_NAMED = 5
/** A clock that was set back by more than this is no clock that was put right. */
const BACKDATED_S = 3600

/** Holds all evidence against its seals, and the newest seal against what is written down outside of the database. */
export async function checkSeals(
  db: Queryable,
  found: Findings,
  { anchor, breaks = [], functions }: { anchor?: Anchor; breaks?: string[]; functions: DbFunction[] },
): Promise<void> {
  found.broken.push(...breaks)
  await guards(db, found, functions)
  await chain(db, found)
  await anchored(db, found, anchor)
  await rows(db, found)
}

/** The triggers and functions that keep evidence as it is. */
async function guards(db: Queryable, { looked, broken }: Findings, own: DbFunction[]) {
  const present = await db.query<{ name: string }>(
    `select tgname as name from pg_trigger g join pg_class c on c.oid = g.tgrelid
     where c.relnamespace = current_schema()::regnamespace and not tgisinternal and tgenabled = 'O'`,
  )
  const on = new Set(present.map((t) => t.name))
  const off = TRIGGERS.filter((t) => !on.has(t))
  if (off.length)
    broken.push(
      `triggers that keep evidence as it is are missing or switched off: ${off.slice(0, MOST_NAMED).join(', ')}${more(off.length)}`,
    )
  const functions = await db.query<{ name: string; body: string }>(
    'select proname as name, prosrc as body from pg_proc where pronamespace = current_schema()::regnamespace and proname = any($1)',
    [FUNCTIONS],
  )
  for (const name of FUNCTIONS)
    if (functions.find((f) => f.name === name)?.body !== bodyOf(own.find((f) => f.name === name)!))
      broken.push(`the function ${name} of the database is not Moray's own any more`)
  looked.push(`${TRIGGERS.length} triggers and ${FUNCTIONS.length} functions that keep evidence as it is`)
}

const more = (count: number) => (count > MOST_NAMED ? ` and ${count - MOST_NAMED} more` : '')

/** The seal of each event over the one before and over the rows that it covers, computed anew. */
async function chain(db: Queryable, { looked, broken }: Findings) {
  const [sum] = await db.query<{ n: number; last: number }>(
    'select count(*)::int as n, coalesce(max(id), 0)::int as last from event',
  )
  if (sum!.n !== sum!.last) broken.push(`events: ${sum!.last - sum!.n} of ${sum!.last} are missing`)
  const wrong = await db.query<{ id: number }>(
    `select e.id from (select *, lag(digest, 1, '') over (order by id) as prior from event) x join event e on e.id = x.id
     where e.digest is distinct from event_digest(x.prior, e)
       and not exists (select 1 from event p where p.kind = 'privacy' and p.id > e.id and p.data -> 'masked' @> to_jsonb(e.id)) order by e.id limit ${MOST_NAMED}`,
  )
  for (const { id } of wrong)
    broken.push(`event ${id}: its seal does not fit; it, or the one before it, was changed`)
  const loose = await db.query<{ id: number }>(
    `select coalesce(e.id, s.event_id) as id from event e full join (
       select event_id, encode(sha256(convert_to(string_agg(table_name || E'\\t' || row_key || E'\\t' || coalesce(digest, '') || E'\\n', '' order by n), 'UTF8')), 'hex') as rows
       from row_seal group by event_id) s on s.event_id = e.id
     where e.rows is distinct from s.rows order by 1 limit ${MOST_NAMED}`,
  )
  for (const { id } of loose) broken.push(`event ${id}: the seals of its rows were changed`)
  const back = await db.query<{ id: number; hours: number }>(
    `select id, round(clock_back_s / 3600)::int as hours from event where clock_back_s > ${BACKDATED_S} order by id limit ${MOST_NAMED}`,
  )
  for (const { id, hours } of back)
    broken.push(
      `event ${id}: is dated ${hours} h before the one before it; the clock was set back, or it was not Moray that wrote it`,
    )
  looked.push(`${sum!.n} events and their seals`)
}

/** The newest seal that was written down outside of the database: it must still stand where it stood. */
async function anchored(db: Queryable, { looked, broken }: Findings, anchor: Anchor | undefined) {
  if (!anchor) return void looked.push('no seal is written down outside of the database yet')
  const problem = await anchorProblem(db, anchor)
  if (problem) broken.push(problem)
  looked.push(`the seal of event ${anchor.event}, as it was written down outside of the database`)
}

/** What does not fit between the database and a seal that was written down outside of it; undefined when all does. */
export async function anchorProblem(db: Queryable, { event, seal, at }: Anchor): Promise<string | undefined> {
  const [row] = await db.query<{ digest: string }>('select digest from event where id = $1', [event])
  if (row?.digest === seal) return undefined
  return row
    ? `event ${event}: its seal is not the one that was written down on ${at}: the history was rewritten`
    : `event ${event} is missing, which was written down on ${at}: events at the end were cut off, or an older copy was brought back`
}

/** Every row against its newest seal. */
async function rows(db: Queryable, { looked, broken }: Findings) {
  const tables = await db.query<{ name: string; key: string; aside: string }>(
    `select c.relname as name, split_part(encode(g.tgargs, 'escape'), '\\000', 1) as key, split_part(encode(g.tgargs, 'escape'), '\\000', 2) as aside
     from pg_trigger g join pg_class c on c.oid = g.tgrelid
     where c.relnamespace = current_schema()::regnamespace and g.tgname = c.relname || '_sealed' order by c.relname`,
  )
  let count = 0
  for (const t of tables.filter((x) => EVIDENCE.includes(x.name) || SEALED.includes(x.name)))
    try {
      const key = t.key
        .split(' ')
        .map((k) => `x."${k}"`)
        .join(', ')
      const where = t.name === 'setting' ? "where x.key not in ('shop', 'demo', 'epoch')" : ''
      const wrong = await db.query<{ key: string; what: string; n: number }>(
        `with now as (select concat_ws(' ', ${key}) as key, row_digest(to_jsonb(x) - string_to_array($2, ' ')) as digest from "${t.name}" x ${where}),
           sealed as (select distinct on (row_key) row_key as key, digest from row_seal where table_name = $1 order by row_key, event_id desc, n desc),
           wrong as (select coalesce(now.key, sealed.key) as key,
             case when now.key is null then 'missing' when sealed.key is null then 'unsealed' else 'changed' end as what
             from now full join sealed on sealed.key = now.key where now.digest is distinct from sealed.digest)
         select key, what, (count(*) over ())::int as n from wrong order by key limit ${MOST_NAMED}`,
        [t.name, t.aside],
      )
      for (const w of wrong) broken.push(`${t.name} ${w.key}: ${WRONG[w.what]}`)
      if (wrong[0] && wrong[0].n > MOST_NAMED) broken.push(`${t.name}:${more(wrong[0].n)}`)
      count++
    } catch (e) {
      broken.push(`${t.name}: ${e instanceof Error ? e.message : String(e)}`)
    }
  looked.push(`the rows of ${count} tables against their seals`)
}

const WRONG: Record<string, string> = {
  missing: 'is missing, and was there when it was sealed',
  unsealed: 'has no seal: it was not Moray that wrote it',
  changed: 'is not what was sealed: it was changed',
}
