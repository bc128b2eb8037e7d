import { objectName } from '@moray/core/job/acts/object-name'
import type { Act } from '@moray/core/assembly/act'
import type { JudgedJob } from '@moray/core/job/judged'
import type { Queryable, Transaction } from '../db/database.ts'
import type { Who } from '../request/who.ts'

/**
 * Writes the acts of a job that are not in its log yet: those of this write, and those of years before where the job had no log. What the log holds stands, and
 * one of a source that is there already is never added: it was claimed on its day. Three ways back, three writes: an act whose source was taken back is struck;
 * one whose source was put right is struck too, and names the act that says how it was; what was undone is a new act. A statement of its own, since what is
 * sealed has to be written before the event that seals it.
 */
export async function writeLog(
  tx: Transaction,
  job: JudgedJob,
  who: Pick<Who, 'id' | 'at'>,
  entered: number,
): Promise<void> {
  const { acts } = job.work
  const rows = acts.map((a) => ({
    n: a.n,
    place: a.place,
    key: a.key,
    verb: a.do,
    object: a.on,
    figures: a.fig ?? null,
    at: a.at,
    sure: a.sure,
    // older than this write: nobody kept a log of it then
    source: a.at < who.at.toISOString() ? 'carried-over' : a.from,
    words: objectName(job.sheet, a.do, a.on),
  }))
  await tx.query(
    `with acted as (
       insert into act (job_id, entered, place, source_key, verb, object, figures, by_person, entered_at, happened_at, sure, source, words)
       select $1, $2, x.place, x.key, x.verb, x.object, x.figures, $3, $4, x.at, x.sure, x.source, x.words
       from jsonb_to_recordset($5::jsonb) as x (n integer, place integer, key text, verb text, object text, figures jsonb, at timestamptz, sure text, source text, words text)
       where not exists (select 1 from act a where a.job_id = $1 and a.source_key = x.key)
       order by x.n
       returning id, verb, object
     )
     insert into act_struck (act_id, changed_to, by_person, at)
     select a.id, (select min(c.id) from acted c where c.verb = a.verb and c.object = a.object), $3, $4 from act a
     where a.job_id = $1 and a.source_key <> all($6::text[]) and not exists (select 1 from act_struck s where s.act_id = a.id)`,
    [job.id, entered, who.id || null, who.at, JSON.stringify(rows), [...new Set(acts.map((a) => a.key))]],
  )
}

interface Row {
  job_id: string
  id: number
  verb: Act['do']
  object: string
  figures: NonNullable<Act['fig']> | null
  by: string | null
  entered_at: string
  happened_at: string
  sure: Act['sure']
  source: Act['from']
}

/** The logs of some jobs, each in its order, without what was struck. */
export async function readLogs(db: Queryable, jobs: readonly string[]): Promise<Map<string, Act[]>> {
  const rows = await db.query<Row>(
    `select a.job_id, a.id::float8 as id, a.verb, a.object, a.figures, p.name as by, iso(a.entered_at) as entered_at, iso(a.happened_at) as happened_at, a.sure, a.source
     from act a left join person p on p.id = a.by_person
     where a.job_id = any($1) and not exists (select 1 from act_struck s where s.act_id = a.id)
     order by a.job_id, a.entered, a.id`,
    [jobs],
  )
  const logs = new Map<string, Act[]>()
  for (const r of rows) {
    const log = logs.get(r.job_id) ?? []
    log.push({
      n: log.length + 1,
      do: r.verb,
      on: r.object,
      ...(r.figures ? { fig: r.figures } : {}),
      by: r.by ?? '',
      entered: r.entered_at,
      at: r.happened_at,
      sure: r.sure,
      from: r.source,
    })
    logs.set(r.job_id, log)
  }
  return logs
}
