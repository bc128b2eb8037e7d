import type { Window } from '@moray/core/checks/window'
import type { ReadingHow } from '@moray/core/setting/taken'
import { unitOf, type SetMeasure } from '@moray/core/setting/measures'
import { seatReading } from '@moray/core/simulation/seat-reading'
import { demoBodies, demoSheets } from '@moray/core/drives/sheets/index'
import { sensitivities } from '@moray/core/setting/train'
import { closingOf } from '@moray/core/job/closings'
import type { Told } from '@moray/core/job/event'
import type { JudgedJob } from '@moray/core/job/judged'
import { availablePieces, plannedPieces, type AvailablePiece } from '@moray/core/job/pieces'
import { learnedSolverInput } from '@moray/core/setting/learned'
import { shimSolve } from '@moray/core/setting/shim-solve'
import type { Transaction } from '../db/database.ts'
import { listLines } from '../drawer/drawer.ts'
import { addSheets, SheetShelf } from '../drives/sheets.ts'
import { makeEstimate } from '../estimates/estimates.ts'
import { sayFinding, sayOutcome } from '../faults/faults.ts'
import type { At } from '../job/change.ts'
import { insertJob } from '../jobs/open-job.ts'
import { acceptBuild } from '../setting/accept-build.ts'
import { enterStack } from '../setting/enter-stack.ts'
import { markPattern } from '../setting/mark-pattern.ts'
import { takePlan } from '../setting/take-plan.ts'
import { takeReading } from '../setting/take-reading.ts'
import { closeStep } from '../steps/close-step.ts'
import { addOpenItem, openLoop, setScope } from '../scope/scope.ts'
import { linkCases } from '../jobs/cases.ts'
import { takeBack } from '../steps/take-back.ts'
import { drawerLines } from './drawer.ts'
import { loadHistory } from './history.ts'
import { demoJobs, demoUnits, type DemoJob, type DemoStep } from './jobs.ts'
import { gauges, people } from './people-and-gauges.ts'
import { patternMarks } from './patterns.ts'
import { Player } from './play.ts'
import { walkRoute } from './walk-route.ts'

const HOUR = 3_600_000

/** Scatter of repeated readings, in steps of the gauge: the same every time, so that the demo is the same everywhere. */
const SCATTER = [0, 1, -1, 0, 1, 0, -1, 1, 0]

/**
 * Fills an empty database with the invented workshop. Everything that a technician would have entered goes
 * through the same functions as a real entry, so the demo cannot hold what Moray would refuse.
 * @param options.history with two years of jobs on twenty units before today's
 */
export async function loadDemo(
  tx: Transaction,
  now: Date,
  { history }: { history: boolean } = { history: false },
): Promise<void> {
  // a history is being written: its times lie in the past, job by job
  await tx.query("select set_config('moray.history', 'on', true)")
  await loadShop(tx, now)
  const sheets = new SheetShelf()
  for (const job of demoJobs) await playJob(tx, sheets, job, now)
  if (history) await loadHistory(tx, ['lomvi-done'], now)
  for (const [leads, follows] of demoUnits) await joinUnit(tx, sheets, leads, follows, now)
  await tx.query("insert into setting (key, value) values ('demo', 'true'::jsonb)")
  await sealRest(tx, now, 'the demo')
}

/** An event of Moray's own, so that rows which no other one covers are sealed too. */
const sealRest = (tx: Transaction, at: Date, why: string) =>
  tx.query(
    "insert into event (at, by_person, kind, subject, data) values ($1, null, 'shop', 'shop', $2::jsonb)",
    [at, JSON.stringify({ about: 'sealed', why })],
  )

/** Sheets of the demo in versions that came with a newer Moray; open jobs keep theirs. */
export async function renewDemoSheets(tx: Transaction, now: Date): Promise<void> {
  if (await addSheets(tx, demoBodies)) await sealRest(tx, now, 'sheets of the demo in a newer version')
}

async function loadShop(tx: Transaction, now: Date) {
  for (const p of people)
    await tx.query('insert into person (id, name, role) values ($1, $2, $3)', [p.id, p.name, p.role])
  await addSheets(tx, demoBodies)
  for (const g of gauges)
    await tx.query(
      `with added as (
         insert into gauge (id, kind, name, resolution, mpe, repeatability, per_turn_mm, masters, calibrated_on, interval_months, wrench)
         values ($1, $2, $3, $4, $5, $6, $7, $8::jsonb, $9::date - make_interval(months => $10), $11, $12::jsonb)
         returning id, calibrated_on
       )
       insert into gauge_calibration (gauge_id, calibrated_on, note) select id, calibrated_on, 'by the calibration service' from added`,
      [
        g.id,
        g.kind,
        g.name,
        g.resolution,
        g.mpe,
        g.repeatability,
        g.perTurnMm ?? null,
        JSON.stringify(g.masters ?? []),
        now.toISOString().slice(0, 10),
        g.monthsAgo,
        g.interval,
        g.wrench ? JSON.stringify(g.wrench) : null,
      ],
    )
  const at = new Date(now.getTime() - 1000 * HOUR)
  for (const l of drawerLines) {
    await tx.query(
      'insert into shim_line (id, place, thickness_mm, text, count, touched_at, cut) values ($1, $2, $3, $4, $5, $6, $7::jsonb)',
      [l.id, l.place, l.thicknessMm, l.text, l.count, at, l.cut ? JSON.stringify(l.cut) : null],
    )
    await tx.query(
      `insert into shim_movement (line_id, kind, delta, reason, by_person, at) values ($1, 'start', $2, 'stock-taking', 'runa', $3)`,
      [l.id, l.count, at],
    )
  }
  const newest = Math.max(...drawerLines.map((l) => Number(l.id.slice(1))))
  const year = String(now.getUTCFullYear()).slice(2)
  const numbers = demoJobs.map((j) => j.number).filter((n) => n.startsWith(`${year}-`))
  await tx.query(`insert into counter (name, last) values ('line', $1), ('gauge', $2)`, [
    newest,
    gauges.length,
  ])
  await tx.query(`insert into setting (key, value) values ('rules', $1::jsonb), ('stands', $2::jsonb)`, [
    JSON.stringify({
      heading: 'Strandvik Boat Pool\nSlipveien 3, Strandvik',
      rate: 950,
      consumables: 600,
      currency: 'kr',
      units: 'metric',
    }),
    JSON.stringify(['Stand 1', 'Stand 2', 'Stand 3']),
  ])
  if (numbers.length)
    await tx.query('insert into counter (name, last) values ($1, $2)', [
      `job ${year}`,
      Math.max(...numbers.map((n) => Number(n.slice(3)))),
    ])
}

async function playJob(tx: Transaction, sheets: SheetShelf, job: DemoJob, now: Date) {
  const ago = (hours: number) => new Date(now.getTime() - hours * HOUR)
  const sheet = await sheets.get(tx, job.sheetId, demoSheets.find((s) => s.id === job.sheetId)!.version)
  const opened = ago(job.openedHoursAgo)
  await insertJob(tx, { ...job, sheet }, { id: 'runa', at: opened })
  const player = new Player(tx, sheets, job.id)
  let touched = opened
  for (const step of job.steps) {
    touched = ago(step.hoursAgo)
    if (step.do === 'work') await walkRoute(player, job, step, now)
    else await perform(tx, player, job, step, touched)
  }
  await player.settle(now, touched)
}

/** The two cases of one unit learn of each other, and where they stand is judged anew. */
async function joinUnit(tx: Transaction, sheets: SheetShelf, leads: string, follows: string, now: Date) {
  const states = await Promise.all([leads, follows].map(async (id) => new Player(tx, sheets, id).state(now)))
  const [lead, other] = states as [JudgedJob, JudgedJob]
  await linkCases(tx, lead, other, { id: 'joar', at: new Date(Date.parse(lead.openedAt) + HOUR) })
  for (const job of states) await new Player(tx, sheets, job.id).settle(now, new Date(job.touchedAt))
}

/** Does one step through the same functions as a real entry. */
async function perform(
  tx: Transaction,
  player: Player,
  job: DemoJob,
  step: Exclude<DemoStep, { do: 'work' }>,
  at: Date,
): Promise<void> {
  const change = (work: (at: At) => Promise<Told>) => player.change(step.by, at, work)
  switch (step.do) {
    case 'note':
      return player.tell(step.by, at, { kind: 'note', subject: 'note', data: { text: step.text } })
    case 'found':
      for (const [location, texts] of Object.entries(step.stacks))
        await change((a) => enterStack(a, { location, unit: 'mm', pieces: texts.map((text) => ({ text })) }))
      return
    case 'measure':
      return measureAll(player, job, step, at)
    case 'build': {
      const { builds } = await player.state(at)
      const available = availablePieces(await listLines(tx), builds)
      const stacks = Object.entries(step.stacks).map(([location, mm]) => ({
        location,
        pieces: nearest(available, mm),
      }))
      return change((a) => takePlan(a, { fromBuild: builds.at(-1)!.number, stacks }))
    }
    case 'solve': {
      const { builds, sheet } = await player.state(at)
      const [plan] = shimSolve(
        learnedSolverInput(
          sheet,
          builds.map((b) => b.state),
          availablePieces(await listLines(tx), builds),
        ),
      ).plans
      const stacks = Object.entries(plan!.stacks).map(([location, s]) => ({
        location,
        pieces: plannedPieces(s),
      }))
      return change((a) => takePlan(a, { fromBuild: builds.at(-1)!.number, stacks }))
    }
    case 'findings':
      for (const finding of step.there) await change((a) => sayFinding(a, { finding, state: 'there' }))
      for (const finding of step.not ?? []) await change((a) => sayFinding(a, { finding, state: 'not' }))
      return
    case 'estimate':
      return change((a) => makeEstimate(a, { rate: 950, consumables: 600 }))
    case 'outcome':
      return change((a) => sayOutcome(a, { cause: step.cause, note: step.note }))
    case 'draft':
      await tx.query(
        `insert into step_draft (job_id, step, answers, begun_at, by_person, at) values ($1, $2, $3::jsonb, $4, $5, $4)`,
        [job.id, step.step, JSON.stringify(step.answers), at, step.by],
      )
      return
    case 'step':
      return change((a) => closeStep(a, { step: step.step, answers: step.answers }))
    case 'open-item':
      return change((a) => addOpenItem(a, { text: step.text }))
    case 'loop':
      return change((a) => openLoop(a, { why: step.why, targets: step.targets, note: step.note }))
    case 'scope':
      return change((a) => setScope(a, { usual: step.usual, reason: step.reason }))
    case 'take-back': {
      const { closings } = await player.state(at)
      const closed = closingOf(closings, step.step)!
      return change((a) => takeBack(a, { reason: step.reason }, closed.id))
    }
    case 'patterns':
      for (const mark of patternMarks(await player.state(at))) await change((a) => markPattern(a, mark))
      return
    case 'accept': {
      const { builds } = await player.state(at)
      return change((a) =>
        acceptBuild(a, { build: builds.at(-1)!.number, ...(step.reason ? { reason: step.reason } : {}) }),
      )
    }
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
  player: Player,
  job: DemoJob,
  step: Extract<DemoStep, { do: 'measure' }>,
  at: Date,
): Promise<void> {
  const state = await player.state(at)
  const { sheet } = state
  const table = sensitivities(sheet)
  const [found, newest] = [state.builds[0]!, state.builds.at(-1)!]
  for (const measure of newest.asked) {
    const m = Math.max(
      0,
      sheet.measures.findIndex((x) => x === measure),
    )
    if (newest.state.carried?.includes(measure.id)) continue
    let truth = job.truth!.reads[measure.id] ?? middleOf(measure.window)
    for (const [stack, j] of Object.entries(table[measure.id]!)) {
      const wrong = measure.kind === 'backlash' ? 1 + job.truth!.misjudged : 1
      truth += j * wrong * (newest.state.stacks[stack]! - found.state.stacks[stack]!)
    }
    const gauge = gauges.find((g) => g.id === (step.gauges[measure.id] ?? BEARING_GAUGES[measure.kind]))!
    const as = measure.kind === 'crush' ? (truth < 0 ? ('float' as const) : ('gap' as const)) : undefined
    const seat =
      measure.kind === 'seat' ? seatReading(measure, newest.state.stacks[measure.by]! + truth) : undefined
    for (let i = 0; i < measure.readings; i++) {
      const raw =
        (seat?.raw ?? rawFor(measure, truth)) +
        SCATTER[(i + 3 * m + newest.number) % SCATTER.length]! * gauge.resolution
      const text = `${(Math.round(raw / gauge.resolution) * gauge.resolution).toFixed(3)} ${unitOf(measure)}`
      const body = {
        build: newest.number,
        measure: measure.id,
        text,
        unit: unitOf(measure),
        gaugeId: gauge.id,
        ticked: measure.before,
        ...(as ? { as } : {}),
        ...(seat ? { as: 'case-and-gear' as const, seat: seatTexts(seat.how) } : {}),
      }
      await player.change(step.by, at, (a) => takeReading(a, body))
      // a reading changes nothing that the next one is judged by
      player.knows(state)
    }
  }
  player.knows(undefined)
}

const seatTexts = ({ seat }: ReadingHow) => ({ case: `${seat!.caseMm} mm`, nominal: `${seat!.nominalMm} mm` })

/** What bearings and seats are read with. */
const BEARING_GAUGES: Record<string, string> = { 'rolling-torque': 'g09', crush: 'g08', seat: 'g07' }
const middleOf = ({ min = 0, max = 0 }: Window) => (min + max) / 2

/** What the gauge shows when the gear stands at `depth`. */
function rawFor(measure: SetMeasure, value: number): number {
  if (measure.kind === 'crush') return Math.abs(value)
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
