import type { Deed, LoggedAct, RecordedAct } from '../../assembly/act.ts'
import { assemblyIndex, type AssemblyIndex } from '../../assembly/assembly-index.ts'
import { applyAct } from '../../assembly/fold.ts'
import { asItCame } from '../../assembly/state.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { counted } from '../closings.ts'
import { isSafe } from '../decision.ts'
import type { JobRecord } from '../record.ts'
import type { Plan } from '../../route/plan.ts'
import { isNotHere } from '../../route/honest.ts'
import { cameAs } from '../../route/scope.ts'
import { claimsOf } from './claims.ts'
import { buildEntries, entry, gradeEntries, rowEntries, type Entry, type Reading } from './entries.ts'
import { toldEntries } from './told-entries.ts'
import { afterWord, goalOf, withRepair } from './goal-of-job.ts'

/** A record with what it is read by. */
export interface Recorded {
  record: JobRecord
  sheet: DriveSheet
  plan: Plan
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
  const acts: RecordedAct[] = []
  const now: Reading = { state: asItCame(ix), goal: goalOf(sheet, plan), acts }
  const inferred: ActsOfRecord['inferred'] = []
  const rounds: number[] = []
  const begun = new Map<string, number>()
  const entries = entriesOf(job, ix).sort(byMoment)
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

/** What happened first comes first; of one moment, what has no number before what has one. */
function byMoment(a: Entry, b: Entry): number {
  if (a.at !== b.at) return a.at < b.at ? -1 : 1
  const [first, second] = [a.entered ?? null, b.entered ?? null]
  if (first === null || second === null)
    return Number(first !== null) - Number(second !== null) || a.rank - b.rank
  return first - second || a.rank - b.rank
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
  const { lying = [] } = plan.scope
  return [
    {
      key: 'came',
      at: job.openedAt,
      rank: 0,
      by: '',
      from: 'carried-over',
      sure: 'said',
      deeds: () => [
        { do: 'came', on: 'unit', fig: { came: cameAs(plan.scope) } },
        ...lying.map((on): Deed => ({ do: 'remove', on })),
      ],
    },
    ...rowEntries(job, new Set(lying)),
    ...gradeEntries(job, sheet),
    ...buildEntries(job, ix),
    ...counted(job.closings).map((c): Entry => ({
      key: `closing ${c.id}`,
      at: c.at,
      rank: 5,
      by: c.by,
      from: 'closing',
      // what somebody else has done, nobody here has seen
      sure: c.departedFrom.length || Object.values(c.answers).some(isNotHere) ? 'said' : 'seen',
      write: c.entered ?? 0,
      entered: c.entered ?? null,
      deeds: ({ state, goal }) => claimsOf({ sheet, ix, state, goal, repairs: job.loops, closing: c }),
    })),
    ...toldEntries(job, ix),
    ...approvalEntries(job, sheet, plan),
    ...job.loops.map((l): Entry => ({
      ...entry(`repair ${l.number}`, l.at, 6, l.by, 'repair'),
      entered: l.entered ?? null,
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
          ...(other
            ? [
                {
                  do: 'came' as const,
                  on: 'unit',
                  fig: { came: 'elsewhere' as const, ...(a.kept?.length ? { kept: a.kept } : {}) },
                },
              ]
            : []),
        ),
        sure: 'said',
        entered: a.entered ?? null,
        goal: ({ goal, state }, n) => afterWord(goal, { sheet, plan }, { ...a, isSafe: isSafe(state), n }),
      },
    ]
  })
