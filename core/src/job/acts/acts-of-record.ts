import type { ActSource, Deed, LoggedAct, RecordedAct, HowSure } from '../../assembly/act.ts'
import { assemblyIndex, type AssemblyIndex } from '../../assembly/assembly-index.ts'
import { applyAct } from '../../assembly/fold.ts'
import type { Goal } from '../../assembly/goal.ts'
import { whatIsLeft } from '../../assembly/left.ts'
import { asItCame, type AssemblyState } from '../../assembly/state.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { condemned, criteria } from '../../inspection/criteria.ts'
import { counted } from '../closings.ts'
import type { JobRecord } from '../record.ts'
import type { Plan } from '../../route/plan.ts'
import { CAME_ELSEWHERE } from '../../route/scope.ts'
import { claimsOf } from './claims.ts'
import { afterWord, goalOf, withRepair } from './goal-of-job.ts'

/** A record with what it is read by. */
export interface Recorded {
  record: JobRecord
  sheet: DriveSheet
  plan: Plan
}

/** What is known of the unit, and wanted of it, while its record is read from the beginning. */
interface Reading {
  state: AssemblyState
  goal: Goal
}

/** Something that was recorded, and what it says was done. */
interface Entry {
  /** What it comes from, for good: the row of the record, and which of its moments. */
  key: string
  at: string
  /** Of two things of one moment the one that comes first. */
  rank: number
  by: string
  from: ActSource
  sure: HowSure
  deeds: (now: Reading) => Deed[]
  /** Number of the write by which it was entered; 0 for what an older Moray wrote. Undefined where what it says is cheap to work out. */
  write?: number
  /** What is wanted of the unit from then on. @param n number of the act that follows */
  goal?: (now: Reading, n: number) => Goal
}

export interface ActsOfRecord extends Reading {
  ix: AssemblyIndex
  acts: RecordedAct[]
  /** What no record holds, and must have been done: before which act. */
  inferred: (Deed & { before: number })[]
  /** Number of the first act after each repair was opened. */
  rounds: number[]
  /** Number of the act that came next when something was recorded, by its key. */
  begun: ReadonlyMap<string, number>
}

/**
 * What a record says was done to the unit, as acts in their order, by the table in docs/carried-over.md. Taps in the row, grades, readings and acceptances are
 * acts themselves; a closing claims what of everything left its step is for. What is in the log already is taken from there, as it was claimed on its day. What
 * no record holds is inferred by the fold.
 */
export function actsOf(job: Recorded): ActsOfRecord {
  const { sheet, plan, record } = job
  const ix = assemblyIndex(sheet)
  const logged = byKey(record.log ?? [])
  const newest = Math.max(-1, ...(record.log ?? []).map((a) => a.write))
  const now: Reading = { state: asItCame(ix), goal: goalOf(sheet, plan) }
  const acts: RecordedAct[] = []
  const inferred: ActsOfRecord['inferred'] = []
  const rounds: number[] = []
  const begun = new Map<string, number>()
  const entries = entriesOf(job, ix).sort((a, b) => (a.at === b.at ? a.rank - b.rank : a.at < b.at ? -1 : 1))
  for (const { key, at, by, from, sure, deeds, goal, write } of entries) {
    if (goal) now.goal = goal(now, acts.length + 1)
    if (from === 'repair') rounds.push(acts.length + 1)
    begun.set(key, acts.length + 1)
    // what was closed before the log was last written to claimed what stands there, or nothing
    const kept = logged.get(key) ?? (write !== undefined && write <= newest ? [] : undefined)
    for (const [place, deed] of (kept ?? deeds(now)).entries()) {
      const n = acts.length + 1
      const act: RecordedAct = { sure, ...deed, key, place, n, by, entered: at, at, from }
      for (const d of applyAct(ix, now.state, act)) inferred.push({ ...d, before: n })
      acts.push(act)
    }
  }
  return { ...now, ix, acts, inferred, rounds, begun }
}

function byKey(log: readonly LoggedAct[]): Map<string, LoggedAct[]> {
  const found = new Map<string, LoggedAct[]>()
  for (const act of log) {
    const acts = found.get(act.key)
    if (acts) acts.push(act)
    else found.set(act.key, [act])
  }
  return found
}

function entriesOf({ record: job, sheet, plan }: Recorded, ix: AssemblyIndex): Entry[] {
  const { mode, mounted } = plan.scope
  const elsewhere = CAME_ELSEWHERE.includes(mode)
  return [
    {
      key: 'came',
      at: job.openedAt,
      rank: 0,
      by: '',
      from: 'carried-over',
      sure: 'said',
      deeds: () => [
        { do: 'came', on: 'unit', fig: { came: elsewhere ? 'elsewhere' : mounted ? 'mounted' : 'whole' } },
      ],
    },
    ...rowEntries(job),
    ...gradeEntries(job, sheet),
    ...buildEntries(job, ix),
    ...counted(job.closings).map((c): Entry => ({
      key: `closing ${c.id}`,
      at: c.at,
      rank: 5,
      by: c.by,
      from: 'closing',
      sure: c.departedFrom.length ? 'said' : 'seen',
      write: c.entered ?? 0,
      deeds: ({ state, goal }) => claimsOf({ sheet, ix, state, goal, repairs: job.loops, closing: c }),
    })),
    ...approvalEntries(job, sheet, plan),
    ...job.loops.map((l): Entry => ({
      ...entry(`repair ${l.number}`, l.at, 6, l.by, 'repair'),
      goal: ({ goal }, n) => withRepair(goal, sheet, l, n),
    })),
    ...job.openItems.flatMap((o): Entry[] => [
      entry(`item ${o.id}`, o.at, 3, o.by, 'told', { do: 'find', on: `item ${o.id}` }),
      ...(o.closed
        ? [
            entry(`item ${o.id} closed`, o.closed.at, 3, o.closed.by, 'told', {
              do: 'account',
              on: `item ${o.id}`,
            }),
          ]
        : []),
    ]),
  ]
}

/** What the owner decided. Where he takes another unit, that one has come, and nothing is known of it. */
const approvalEntries = (job: JobRecord, sheet: DriveSheet, plan: Plan): Entry[] =>
  job.estimates.flatMap(({ id, approval: a }): Entry[] => {
    if (!a) return []
    const other = a.choice === 'exchange' || a.choice === 'used'
    return [
      {
        ...entry(
          `approval ${id} ${a.at}`,
          a.at,
          3,
          a.by,
          'approval',
          { do: 'know', on: 'decided', fig: { why: a.choice } },
          ...(other ? [{ do: 'came' as const, on: 'unit', fig: { came: 'elsewhere' as const } }] : []),
        ),
        sure: 'said',
        goal: ({ goal, state }, n) =>
          afterWord(goal, { sheet, plan }, { choice: a.choice, isSafe: isSafe(state), n }),
      },
    ]
  })

const entry = (
  key: string,
  at: string,
  rank: number,
  by: string,
  from: ActSource,
  ...deeds: Deed[]
): Entry => ({
  key,
  at,
  rank,
  by,
  from,
  sure: 'seen',
  deeds: () => deeds,
})

/** Parts as they came off, went in, or stayed out. A new one may have been in its place since the trial that was accepted with it. */
function rowEntries(job: JobRecord): Entry[] {
  return job.row.flatMap((r): Entry[] => {
    if (r.part === null) return []
    const on = r.part
    const off = entry(`row ${r.id} off`, r.offAt, 1, r.offBy, 'row', { do: 'remove', on })
    if (r.leftOut !== null)
      return [
        off,
        entry(`row ${r.id} left out`, r.offAt, 2, r.offBy, 'row', {
          do: 'leave-out',
          on,
          fig: { until: 'good' },
        }),
      ]
    if (!r.fitted) return [off]
    const { at, by, renewed } = r.fitted
    return [
      off,
      ...(renewed
        ? [
            {
              ...entry(`row ${r.id} renewed`, at, 1, by, 'row'),
              deeds: ({ state }: Reading) => (isNewSinceOff(state, on) ? [] : [{ do: 'renew' as const, on }]),
            },
          ]
        : []),
      entry(`row ${r.id} fitted ${at}`, at, 2, by, 'row', { do: 'fit', on }),
    ]
  })
}

/** A new one has taken its place since it came off. */
const isNewSinceOff = ({ parts }: AssemblyState, id: string): boolean => {
  const part = parts.get(id)
  return part?.renewed !== undefined && part.renewed > (part.off ?? 0)
}

const isSafe = ({ parts }: AssemblyState): boolean =>
  [...parts.values()].every((p) => p.condition !== 'unsafe')

const gradeEntries = (job: JobRecord, sheet: DriveSheet): Entry[] =>
  job.grades
    .filter((g) => !g.superseded)
    .map((g) => {
      const kind = sheet.parts.find((p) => p.id === g.part)?.kind
      const ends = kind && criteria[kind].find((c) => c.endsRebuild && g.seen.includes(c.id))
      return entry(`grade ${g.id}`, g.at, 2, g.by, 'grade', {
        do: 'grade',
        on: g.part,
        fig: ends
          ? { condition: 'unsafe', why: ends.id }
          : {
              condition: condemned(g.grade) ? 'condemned' : g.grade === 'dress' ? 'dress' : 'good',
              ...(condemned(g.grade) ? { why: 'graded' } : {}),
            },
      })
    })

/** Stacks, readings, and what an accepted build proves: every setting that was read in it, or that it carries over. */
function buildEntries(job: JobRecord, ix: AssemblyIndex): Entry[] {
  return job.builds.flatMap((b): Entry[] => [
    ...b.stacks
      .filter((s) => !s.superseded && b.number > 0)
      .map((s) =>
        entry(`stack ${s.id}`, s.at, 2, s.by, 'stack', {
          do: 'adjust',
          on: s.location,
          fig: { stack: s.thicknessMm.toFixed(3) },
        }),
      ),
    ...b.readings
      .filter((r) => !r.superseded && ix.settings.has(r.measure))
      .map((r) =>
        entry(`reading ${r.id}`, r.at, 3, r.by, 'reading', {
          do: 'measure',
          on: r.measure,
          fig: { build: b.number, value: r.value },
        }),
      ),
    ...(b.acceptance
      ? [
          {
            ...entry(
              `acceptance ${b.id} ${b.acceptance.at}`,
              b.acceptance.at,
              4,
              b.acceptance.by,
              'acceptance',
            ),
            deeds: (now: Reading) => [
              ...(b.number > 0 ? newInTrial(ix, now) : []),
              ...[...ix.settings.keys()]
                .filter((id) => readIn(job, b.number, id) || isReadSince(now.state, id))
                .map((on): Deed => ({ do: 'accept', on, fig: { build: b.number } })),
            ],
          },
        ]
      : []),
  ])
}

/** What carries a setting and is scrapped was new in the trial that is accepted: nobody sets gears that do not stay. */
const newInTrial = (ix: AssemblyIndex, { state, goal }: Reading): Deed[] =>
  whatIsLeft(ix, state, goal).deeds.filter((d) => d.do === 'renew' && ix.parts.get(d.on)!.settings.length > 0)

/** It was read after what carries it came off: on the bare case, whichever build that was entered in. */
function isReadSince({ settings }: AssemblyState, id: string): boolean {
  const { read, disturbed = 0 } = settings.get(id)!
  return read !== undefined && disturbed > 0 && read > disturbed
}

/** It was read in the build, or in a trial before it; what was read as found counts only where that itself was accepted. */
const readIn = (job: JobRecord, number: number, measure: string): boolean =>
  job.builds.some(
    (b) =>
      (b.number === number || (b.number > 0 && b.number < number)) &&
      b.readings.some((r) => r.measure === measure && !r.superseded),
  )
