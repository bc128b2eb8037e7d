import type { Act, ActSource, Deed, Sure } from '../assembly/act.ts'
import { assemblyIndex, type AssemblyIndex } from '../assembly/assembly-index.ts'
import { applyAct } from '../assembly/fold.ts'
import { asItCame, type AssemblyState } from '../assembly/state.ts'
import { counted } from '../job/closings.ts'
import type { JudgedJob } from '../job/judged.ts'
import { condemned, criteria } from '../inspection/criteria.ts'
import { claimsOf } from './claims.ts'

/** Something that was recorded, and what it says was done. */
interface Entry {
  /** What it comes from, for good: the row of the record, and which of its moments. */
  key: string
  at: string
  /** Of two things of one moment the one that comes first. */
  rank: number
  by: string
  from: ActSource
  sure: Sure
  deeds: (state: AssemblyState) => Deed[]
}

/** An act with what it comes from, and its place among the acts of that. */
export interface RecordedAct extends Act {
  key: string
  place: number
}

/**
 * What a record says was done to the unit, as acts in their order, by the table in docs/carried-over.md. Taps in the row, grades, readings and acceptances are
 * acts themselves; a closing claims what its step does, on the state as it was then. What no record holds is inferred by the fold.
 */
export function actsOf(job: JudgedJob): RecordedAct[] {
  const ix = assemblyIndex(job.sheet)
  const acts: RecordedAct[] = []
  const state = asItCame(ix)
  const entries = entriesOf(job, ix).sort((a, b) => a.at.localeCompare(b.at) || a.rank - b.rank)
  for (const { key, at, by, from, sure, deeds } of entries)
    for (const [place, deed] of deeds(state).entries()) {
      const act: RecordedAct = { ...deed, key, place, n: acts.length + 1, by, entered: at, at, sure, from }
      applyAct(ix, state, act)
      acts.push(act)
    }
  return acts
}

function entriesOf(job: JudgedJob, ix: AssemblyIndex): Entry[] {
  const { mode, mounted } = job.plan.scope
  const elsewhere = mode === 'refit' || mode === 'unit'
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
    ...gradeEntries(job),
    ...buildEntries(job, ix),
    ...counted(job.closings).map((c): Entry => ({
      key: `closing ${c.id}`,
      at: c.at,
      rank: 5,
      by: c.by,
      from: 'closing',
      sure: c.departedFrom.length ? 'said' : 'seen',
      deeds: (state) => claimsOf(job, ix, state, c),
    })),
    ...job.estimates.flatMap(({ id, approval: a }): Entry[] =>
      a
        ? [
            {
              ...entry(`approval ${id} ${a.at}`, a.at, 3, a.by, 'approval', {
                do: 'know',
                on: 'decided',
                fig: { why: a.choice },
              }),
              sure: 'said',
            },
          ]
        : [],
    ),
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

/** Parts as they came off, went in, or stayed out. A new one stands for its place from the trial on, whenever its tap came. */
function rowEntries(job: JudgedJob): Entry[] {
  const accepted = job.builds.flatMap((b) => b.acceptance?.at ?? []).at(-1)
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
    const early = accepted !== undefined && accepted > r.offAt && accepted < at ? accepted : at
    return [
      off,
      ...(renewed ? [entry(`row ${r.id} renewed`, early, 1, by, 'row', { do: 'renew', on })] : []),
      entry(`row ${r.id} fitted ${at}`, at, 2, by, 'row', { do: 'fit', on }),
    ]
  })
}

const gradeEntries = (job: JudgedJob): Entry[] =>
  job.grades
    .filter((g) => !g.superseded)
    .map((g) => {
      const kind = job.sheet.parts.find((p) => p.id === g.part)?.kind
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
function buildEntries(job: JudgedJob, ix: AssemblyIndex): Entry[] {
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
          entry(
            `acceptance ${b.id} ${b.acceptance.at}`,
            b.acceptance.at,
            4,
            b.acceptance.by,
            'acceptance',
            ...[...ix.settings.keys()]
              .filter((id) => readIn(job, b.number, id))
              .map((on): Deed => ({ do: 'accept', on, fig: { build: b.number } })),
          ),
        ]
      : []),
  ])
}

/** It was read in the build, or in a trial before it; what was read as found counts only where that itself was accepted. */
const readIn = (job: JudgedJob, number: number, measure: string): boolean =>
  job.builds.some(
    (b) =>
      (b.number === number || (b.number > 0 && b.number < number)) &&
      b.readings.some((r) => r.measure === measure && !r.superseded),
  )
