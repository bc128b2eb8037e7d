import type { Cell, CsvColumn } from '@moray/contract/csv'
import type { ShownJob } from '../shown-job.ts'

type Row = Record<string, Cell>

const nameOf = (job: ShownJob, part: string) => job.sheet.parts.find((p) => p.id === part)?.name ?? part

const row = (job: ShownJob): Row[] =>
  job.row.map((r) => ({
    part: r.name,
    'how it lay': r.orientation,
    ink: r.ink,
    stack: r.stack,
    note: r.note,
    'off by': r.offBy,
    'off at': r.offAt,
    'in by': r.fitted?.by,
    'in at': r.fitted?.at,
    new: r.fitted?.renewed,
    'left out because': r.leftOut,
  }))

const grades = (job: ShownJob): Row[] =>
  job.grades.map((g) => ({
    part: nameOf(job, g.part),
    grade: g.grade,
    reason: g.reason,
    'measured (mm)': g.measuredMm,
    proposed: g.proposed,
    by: g.by,
    at: g.at,
    superseded: g.superseded,
  }))

const order = (job: ShownJob): Row[] =>
  (job.estimates.at(-1)?.body.order ?? []).map((o) => ({
    'to buy': o.name,
    parts: o.parts.join('; '),
    why: o.why,
    price: o.price,
    'days to wait': o.waitDays,
  }))

/** The list of a job's parts that a view shows, as a table. */
export function partsTable(
  job: ShownJob,
  view: string,
): { name: string; columns: CsvColumn<Row>[]; rows: Row[] } {
  const rows = view === 'grades' ? grades(job) : view === 'estimate' ? order(job) : row(job)
  const columns = Object.keys(rows[0] ?? {}).map((name) => ({ name, of: (r: Row) => r[name] }))
  return { name: `${view}-${job.number}`, columns, rows }
}
