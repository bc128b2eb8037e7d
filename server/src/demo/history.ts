import type { Transaction } from '../db/database.ts'
import type { DemoJob } from './jobs.ts'
import { repeatable } from './repeatable.ts'

/** Jobs of the demo's past begin so; nobody's own do. */
export const PAST = 'past-'

const DAY = 86_400_000
const YEARS_DAYS = 730

/** Units that have been here again and again: which job of the demo each is like, and whose it is. */
interface PastUnit {
  like: string
  serial: string
  boat: string
  owner: string
  water: 'salt' | 'brackish' | 'fresh'
}

const OWNERS = [
  'Mussel farm Indre Våg',
  'Pilot station Ytre Sund',
  'Volunteer rescue Nordskjær',
  'Strandvik Boat Pool, own fleet',
  'Ferry guild Langnes',
]
const BOATS = [
  'Tjeld',
  'Alke',
  'Lunde',
  'Svartbak',
  'Storskarv',
  'Havelle',
  'Praktand',
  'Gulnebb',
  'Stormsvale',
  'Makrellterne',
]

const units = (templates: readonly string[]): PastUnit[] =>
  Array.from({ length: 20 }, (_, i) => ({
    like: templates[i % templates.length]!,
    serial: `${i % templates.length ? 'A2L' : 'LV90'}-${17_100 + 37 * i}`,
    boat: `${BOATS[i % BOATS.length]}${i < BOATS.length ? '' : ' II'}`,
    owner: OWNERS[i % OWNERS.length]!,
    water: i % 7 === 3 ? 'brackish' : 'salt',
  }))

/** What brought them in, visit by visit. */
const COMPLAINTS = [
  'Yearly service, metal on the plug.',
  'Whines in forward since midsummer.',
  'Milky oil after the winter.',
  'Clunk on shifting; backlash felt by hand.',
  'Propshaft seal weeps.',
]

/** Rows of a table that belong to a job, as they are read and written back. */
type Row = Record<string, unknown>

/** Tables of a job, in the order in which they are written: what each row hangs on comes before it. */
const OF_JOB: { table: string; where: string }[] = [
  { table: 'build', where: 't.job_id = $1' },
  {
    table: 'stack',
    where: `t.build_id in (select id from build where job_id = $1) and not exists (select 1 from stack_superseded x where x.stack_id = t.id)`,
  },
  {
    table: 'stack_piece',
    where: `t.stack_id in (select s.id from stack s join build b on b.id = s.build_id where b.job_id = $1 and not exists (select 1 from stack_superseded x where x.stack_id = s.id))`,
  },
  {
    table: 'reading',
    where: `t.build_id in (select id from build where job_id = $1) and not exists (select 1 from reading_superseded x where x.reading_id = t.id)`,
  },
  { table: 'acceptance', where: 't.build_id in (select id from build where job_id = $1)' },
  { table: 'acceptance_standing', where: 't.build_id in (select id from build where job_id = $1)' },
  {
    table: 'step_done',
    where: 't.job_id = $1 and exists (select 1 from step_standing s where s.step_done_id = t.id)',
  },
  { table: 'step_standing', where: 't.job_id = $1' },
  { table: 'grade', where: 't.job_id = $1' },
  { table: 'row_part', where: 't.job_id = $1' },
  { table: 'job_finding', where: 't.job_id = $1' },
  { table: 'fault_outcome', where: 't.job_id = $1' },
  { table: 'job_scope', where: 't.job_id = $1' },
  { table: 'estimate', where: 't.job_id = $1' },
  { table: 'approval', where: 't.estimate_id in (select id from estimate where job_id = $1)' },
  // what stands in the tables above one by one needs no entry for each
  { table: 'event', where: "t.job_id = $1 and t.kind not in ('reading', 'step', 'row', 'row-off', 'grade')" },
]
/** Columns that name a row of another table, whose copy has another number. */
const NAMES: Record<string, string> = {
  build_id: 'build',
  stack_id: 'stack',
  acceptance_id: 'acceptance',
  step_done_id: 'step_done',
  estimate_id: 'estimate',
}
const TIME = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d/

interface Template {
  job: Row
  tables: Map<string, Row[]>
}

async function read(tx: Transaction, id: string): Promise<Template> {
  const [job] = await tx.query<{ row: Row }>('select to_jsonb(t) as row from job t where id = $1', [id])
  const tables = new Map<string, Row[]>()
  for (const { table, where } of OF_JOB) {
    const rows = await tx.query<{ row: Row }>(
      `select to_jsonb(t) as row from ${table} t where ${where} order by 1`,
      [id],
    )
    tables.set(table, byId(rows.map((r) => r.row)))
  }
  return { job: job!.row, tables }
}

const byId = (rows: Row[]): Row[] => [...rows].sort((a, b) => Number(a.id ?? 0) - Number(b.id ?? 0))

interface Visit extends PastUnit {
  id: string
  number: string
  complaint: string
  hours: number
  /** So much earlier than its template. */
  shiftMs: number
  /** How much thicker each stack is than in the template, mm. */
  thicker: Record<string, number>
  random: () => number
}

/**
 * Two years of jobs on twenty units: each a finished job of the demo with times, stacks, readings and names of its own. They are written as rows, since
 * playing them step by step would take a minute, but sealed by events of their own like any other.
 * @param templates ids of finished jobs
 */
export async function loadHistory(
  tx: Transaction,
  templates: readonly DemoJob['id'][],
  now: Date,
): Promise<void> {
  const known = new Map<string, Template>()
  for (const id of templates) known.set(id, await read(tx, id))
  const visits = plan(units(templates), now, (id) => Date.parse(String(known.get(id)!.job.opened_at)))
  for (const v of visits) await write(tx, known.get(v.like)!, v)
  const years = new Map<string, number>()
  for (const { number } of visits) {
    const [year, n] = number.split('-') as [string, string]
    years.set(year, Math.max(years.get(year) ?? 0, Number(n)))
  }
  for (const [year, n] of years)
    await tx.query(
      'insert into counter (name, last) values ($1, $2) on conflict (name) do update set last = greatest(counter.last, excluded.last)',
      [`job ${year}`, n],
    )
}

/** Visits of all units, the oldest first, numbered by the year. */
function plan(all: PastUnit[], now: Date, openedOf: (id: string) => number): Visit[] {
  const visits = all.flatMap((unit, u) => {
    const random = repeatable(1000 + u)
    // the first numbers of neighbouring seeds are neighbours too
    for (let i = 0; i < 5; i++) random()
    const own = Math.round((random() - 0.5) * 10) / 100
    const count = 3 + (u % 2)
    return Array.from({ length: count }, (_, k) => {
      const daysAgo = YEARS_DAYS - 10 - k * Math.floor((YEARS_DAYS - 60) / count) - Math.round(random() * 60)
      const opened = now.getTime() - daysAgo * DAY
      // a little more is asked for at each visit, as gears and bearings wear
      const thicker = { pinion: own, forward: own + k * 0.02, reverse: own + k * 0.01 }
      return { unit, opened, k, thicker, random, u }
    })
  })
  const numbers = new Map<string, number>()
  return visits
    .sort((a, b) => a.opened - b.opened)
    .map(({ unit, opened, k, thicker, random, u }) => {
      const year = new Date(opened).toISOString().slice(2, 4)
      const n = (numbers.get(year) ?? 0) + 1
      numbers.set(year, n)
      return {
        ...unit,
        id: `${PAST}${u + 1}-${k + 1}`,
        number: `${year}-${String(n).padStart(3, '0')}`,
        complaint: COMPLAINTS[(u + k) % COMPLAINTS.length]!,
        hours: 180 + 40 * u + 160 * k,
        shiftMs: openedOf(unit.like) - opened,
        thicker,
        random,
      }
    })
}

async function write(tx: Transaction, template: Template, visit: Visit): Promise<void> {
  const earlier = (row: Row): Row =>
    Object.fromEntries(
      Object.entries(row).map(([name, value]) => [
        name,
        typeof value === 'string' && TIME.test(value)
          ? new Date(Date.parse(value) - visit.shiftMs).toISOString()
          : value,
      ]),
    )
  const { id, number, serial, boat, owner, water, hours, complaint } = visit
  await insert(tx, 'job', [
    { ...earlier(template.job), id, number, serial, boat, owner, water, hours, complaint, stand: null },
  ])
  const copies = new Map<string, Map<unknown, unknown>>()
  const places = new Map<unknown, string>()
  for (const { table } of OF_JOB) {
    const rows = template.tables.get(table)!.map((original): Row => {
      const row = earlier(original)
      if ('job_id' in row) row.job_id = id
      for (const [column, of] of Object.entries(NAMES))
        if (column in row) row[column] = copies.get(of)!.get(row[column])
      if (table === 'stack_piece') thicken(row, visit, places)
      if (table === 'reading') reread(row, visit)
      return row
    })
    const ids = await insert(tx, table, rows)
    copies.set(table, new Map(template.tables.get(table)!.map((r, i) => [r.id, ids[i]])))
    if (table === 'stack')
      template.tables.get(table)!.forEach((r, i) => places.set(ids[i], String(r.location)))
  }
}

/** The first piece of a stack makes up for what this unit needs more; no piece came out of the drawer of today. */
function thicken(row: Row, { thicker }: Visit, places: Map<unknown, string>) {
  row.line_id = null
  row.found_piece_id = null
  const more = row.position === 0 ? (thicker[places.get(row.stack_id) ?? ''] ?? 0) : 0
  const mm = Math.round((Number(row.thickness_mm) + more) * 1000) / 1000
  row.thickness_mm = mm
  row.text = `${mm}`
}

/** Readings scatter by a step of their gauge. */
function reread(row: Row, { random }: Visit) {
  if (row.raw !== row.value || row.unit !== 'mm') return
  const step = Number(row.resolution) * (Math.floor(random() * 3) - 1)
  const mm = Math.round((Number(row.value) + step) * 1000) / 1000
  row.raw = mm
  row.value = mm
  row.text = `${mm.toFixed(3)} mm`
}

/** @returns the numbers that the database has given them, in their order */
async function insert(tx: Transaction, table: string, rows: Row[]): Promise<unknown[]> {
  if (!rows.length) return []
  const [first] = rows
  const own = Object.keys(first!).filter(
    (c) => (c !== 'id' || table === 'job') && !BY_ITSELF[table]?.includes(c),
  )
  const columns = own.map((c) => `"${c}"`).join(', ')
  const hasId = 'id' in first! && table !== 'job'
  const made = await tx.query<{ id: number }>(
    `insert into ${table} (${columns}) select ${columns} from json_populate_recordset(null::${table}, $1::json)${hasId ? ' returning id::float8 as id' : ''}`,
    [JSON.stringify(rows)],
  )
  return made.map((r) => r.id)
}

/** What the database writes by itself. */
const BY_ITSELF: Record<string, string[]> = { event: ['digest', 'rows', 'clock_back_s'], job: ['found_by'] }
