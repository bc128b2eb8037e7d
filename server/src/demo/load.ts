import { demoSheets } from '@moray/core/drives/sheets/index'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { sensitivities } from '@moray/core/gears/train'
import { learnedSolverInput } from '@moray/core/setting/learned'
import { shimSolve } from '@moray/core/setting/shim-solve'
import type { AvailablePiece } from '@moray/contract/replies'
import type { Database, Transaction } from '../db/database.ts'
import { acceptBuild } from '../jobs/accept-build.ts'
import { loadBuilds } from '../jobs/builds.ts'
import { availablePieces, loadJob } from '../jobs/detail.ts'
import { enterStack } from '../jobs/enter-stack.ts'
import { keepProgress } from '../jobs/progress.ts'
import { findJob } from '../jobs/rows.ts'
import { addSheets } from '../drives/sheets.ts'
import { makeEstimate } from '../estimates/estimates.ts'
import { sayFinding, sayOutcome } from '../faults/faults.ts'
import { keepDraft, listSteps, takeBack } from '../route/steps.ts'
import { walkRoute } from './walk-route.ts'
import { takePlan } from '../jobs/take-plan.ts'
import { takeReading } from '../jobs/take-reading.ts'
import { drawerLines } from './drawer.ts'
import { demoJobs, type DemoJob, type DemoStep } from './jobs.ts'
import { gauges, people } from './people-and-gauges.ts'

const HOUR = 3_600_000

/** Scatter of repeated readings, in steps of the gauge: the same every time, so that the demo is the same everywhere. */
const SCATTER = [0, 1, -1, 0, 1, 0, -1, 1, 0]

/** The event that the same step leaves when it is done through the interface. */
const KIND: Record<DemoStep['do'], string> = {
  note: 'note',
  found: 'stack',
  measure: 'reading',
  build: 'trial',
  solve: 'trial',
  accept: 'accepted',
  work: 'step',
  findings: 'finding',
  estimate: 'estimate',
  outcome: 'finding',
  draft: 'draft',
  'take-back': 'step',
}

/**
 * Fills an empty database with the invented workshop, once. Everything that a technician would have entered goes
 * through the same functions as a real entry, so the demo cannot hold what Moray would refuse.
 * @returns false when the demo was loaded before
 */
export async function loadDemo(db: Database, now: Date): Promise<boolean> {
  return db.transaction(async (tx) => {
    const [loaded] = await tx.query("select 1 from setting where key = 'demo'")
    // sheets in versions that came with a newer Moray; open jobs keep theirs
    if (loaded) {
      await addSheets(tx, demoSheets)
      return false
    }
    await loadShop(tx, now)
    for (const job of demoJobs) await playJob(tx, job, now)
    await tx.query("insert into setting (key, value) values ('demo', 'true'::jsonb)")
    return true
  })
}

async function loadShop(tx: Transaction, now: Date) {
  for (const p of people)
    await tx.query('insert into person (id, name, role) values ($1, $2, $3)', [p.id, p.name, p.role])
  await addSheets(tx, demoSheets)
  for (const g of gauges)
    await tx.query(
      `insert into gauge (id, name, type, measures, resolution, mpe, repeatability, unit, per_turn_mm, masters,
         calibrated_on, interval_months)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10::jsonb, $11::date - make_interval(months => $12), $13)`,
      [
        g.id,
        g.name,
        g.type,
        g.measures,
        g.resolution,
        g.mpe,
        g.repeatability,
        g.unit,
        g.perTurnMm ?? null,
        JSON.stringify(g.masters ?? []),
        now.toISOString().slice(0, 10),
        g.monthsAgo,
        g.interval,
      ],
    )
  const at = new Date(now.getTime() - 1000 * HOUR)
  for (const l of drawerLines) {
    await tx.query(
      'insert into shim_line (id, place, thickness_mm, text, count, touched_at) values ($1, $2, $3, $4, $5, $6)',
      [l.id, l.place, l.thicknessMm, l.text, l.count, at],
    )
    await tx.query(
      `insert into shim_movement (line_id, kind, delta, reason, by_person, at) values ($1, 'start', $2, 'stock-taking', 'runa', $3)`,
      [l.id, l.count, at],
    )
  }
}

async function playJob(tx: Transaction, job: DemoJob, now: Date) {
  const ago = (hours: number) => new Date(now.getTime() - hours * HOUR)
  const sheet = demoSheets.find((s) => s.id === job.sheetId)!
  const opened = ago(job.openedHoursAgo)
  await tx.query(
    `insert into job (id, number, sheet_id, sheet_version, serial, boat, owner, water, hours, stand, state, stage,
       waits_for, complaint, opened_at, touched_at)
     values ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10, 'received', 'Receiving', 'Look it over', $11, $12, $12)`,
    [
      job.id,
      job.number,
      sheet.id,
      sheet.version,
      job.serial,
      job.boat,
      job.owner,
      job.water,
      job.hours,
      job.stand,
      job.complaint,
      opened,
    ],
  )
  await tx.query("insert into build (job_id, number, by_person, at) values ($1, 0, 'runa', $2)", [
    job.id,
    opened,
  ])
  const tell = (at: Date, by: string, kind: string, text: string) =>
    tx.query('insert into event (at, by_person, kind, job_id, text) values ($1, $2, $3, $4, $5)', [
      at,
      by,
      kind,
      job.id,
      text,
    ])
  for (const step of job.steps) {
    const at = ago(step.hoursAgo)
    if (step.do === 'work') await walkRoute(tx, job, step, now, tell)
    else
      for (const text of await perform(tx, sheet, job, step, at)) await tell(at, step.by, KIND[step.do], text)
    await tx.query('update job set touched_at = $2 where id = $1', [job.id, at])
  }
  await keepProgress(tx, await loadJob(tx, job.id, now))
}

/** Does one step through the same functions as a real entry. @returns sentences for the history */
async function perform(
  tx: Transaction,
  sheet: DriveSheet,
  job: DemoJob,
  step: Exclude<DemoStep, { do: 'work' }>,
  at: Date,
): Promise<string[]> {
  const who = { id: step.by, at }
  const builds = await loadBuilds(tx, job.id, sheet)
  const row = await findJob(tx, job.id)
  switch (step.do) {
    case 'note':
      return [step.text]
    case 'found': {
      const said: string[] = []
      for (const [location, texts] of Object.entries(step.stacks))
        said.push(
          await enterStack(
            tx,
            sheet,
            builds,
            { location, unit: 'mm', pieces: texts.map((text) => ({ text })) },
            who,
          ),
        )
      return said
    }
    case 'measure':
      return measureAll(tx, sheet, job, step, who)
    case 'build': {
      const available = await availablePieces(tx, builds)
      const stacks = Object.entries(step.stacks).map(([location, mm]) => ({
        location,
        pieces: nearest(available, mm),
      }))
      return [(await takePlan(tx, row, builds, { fromBuild: builds.at(-1)!.number, stacks }, who)).text]
    }
    case 'solve': {
      const newest = builds.at(-1)!
      const [plan] = shimSolve(
        learnedSolverInput(
          sheet,
          builds.map((b) => b.facts),
          await availablePieces(tx, builds),
        ),
      ).plans
      const stacks = Object.entries(plan!.stacks).map(([location, s]) => ({
        location,
        pieces: s.pieceIds.map((id) => ({ id })),
      }))
      return [(await takePlan(tx, row, builds, { fromBuild: newest.number, stacks }, who)).text]
    }
    case 'findings': {
      const at = { tx, job: row, sheet, builds, who }
      const said: string[] = []
      for (const finding of step.there) said.push(await sayFinding(at, { finding, state: 'there' }))
      for (const finding of step.not ?? []) said.push(await sayFinding(at, { finding, state: 'not' }))
      return said
    }
    case 'estimate':
      return [await makeEstimate({ tx, job: row, sheet, builds, who }, { rate: 950, consumables: 600 })]
    case 'outcome':
      return [await sayOutcome({ tx, job: row, sheet, builds, who }, step)]
    case 'draft':
      await keepDraft({ tx, job: row, sheet, builds, who }, step)
      return []
    case 'take-back': {
      const closed = (await listSteps(tx, job.id)).find((s) => s.step === step.step && !s.takenBack)!
      return [await takeBack({ tx, job: row, sheet, builds, who }, closed.id, step.reason)]
    }
    case 'accept':
      return [
        await acceptBuild(
          tx,
          sheet,
          builds,
          { build: builds.at(-1)!.number, ...(step.reason ? { reason: step.reason } : {}) },
          who,
        ),
      ]
  }
}

/** Two drawer pieces whose sum is nearest to `mm`; what somebody without a solver would pick. Takes them off the list. */
function nearest(available: AvailablePiece[], mm: number): { id: string }[] {
  const stock = available.filter((p) => p.origin === 'drawer' && p.count > 0)
  let best: { pair: AvailablePiece[]; off: number } = { pair: [], off: Infinity }
  for (const a of stock)
    for (const b of stock) {
      if (a === b && a.count < 2) continue
      const off = Math.abs(a.thicknessMm + b.thicknessMm - mm)
      if (off < best.off - 1e-9) best = { pair: [a, b], off }
    }
  for (const p of best.pair) p.count--
  return best.pair.map(({ id }) => ({ id }))
}

/** Takes every reading that the sheet asks for, from the hidden truth, with the gauge's steps and some scatter. */
async function measureAll(
  tx: Transaction,
  sheet: DriveSheet,
  job: DemoJob,
  step: Extract<DemoStep, { do: 'measure' }>,
  who: { id: string; at: Date },
): Promise<string[]> {
  const table = sensitivities(sheet)
  const said: string[] = []
  for (const [m, measure] of sheet.measures.entries()) {
    const builds = await loadBuilds(tx, job.id, sheet)
    const [found, newest] = [builds[0]!, builds.at(-1)!]
    let truth = job.truth!.reads[measure.id]!
    for (const [stack, j] of Object.entries(table[measure.id]!)) {
      const wrong = measure.kind === 'depth' ? 1 : 1 + job.truth!.misjudged
      truth += j * wrong * (newest.facts.stacks[stack]! - found.facts.stacks[stack]!)
    }
    const gauge = gauges.find((g) => g.id === step.gauges[measure.id])!
    for (let i = 0; i < measure.readings; i++) {
      const raw =
        rawFor(measure, truth) + SCATTER[(i + 3 * m + newest.number) % SCATTER.length]! * gauge.resolution
      const text = `${(Math.round(raw / gauge.resolution) * gauge.resolution).toFixed(3)} mm`
      const body = { build: newest.number, measure: measure.id, text, unit: 'mm' as const, gaugeId: gauge.id }
      said.push((await takeReading(tx, sheet, builds, body, who)).text)
    }
  }
  return said
}

/** What the gauge shows when the gear stands at `depth`. */
function rawFor(measure: DriveSheet['measures'][number], value: number): number {
  if (measure.kind !== 'depth') return value
  const { how } = measure
  switch (how.method) {
    case 'master-drop': {
      const master = gauges
        .flatMap((g) => g.masters ?? [])
        .find((m) => Math.abs(m.lengthMm - how.masterMm) < 1)!
      return how.extends ? value - master.lengthMm : master.lengthMm - value
    }
    case 'arbor':
      return value + ((how.farSide ? 1 : -1) * how.arborDiameterMm) / 2
    case 'feeler-block':
      return how.nominalClearanceMm + value - how.nominalDepthMm
  }
}
