import type { ActSource, Deed, HowSure, RecordedAct } from '../../assembly/act.ts'
import type { AssemblyIndex } from '../../assembly/assembly-index.ts'
import type { Goal } from '../../assembly/goal.ts'
import { whatIsLeft } from '../../assembly/left.ts'
import type { AssemblyState } from '../../assembly/state.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { condemned, criteria } from '../../inspection/criteria.ts'
import type { JobRecord } from '../record.ts'

/** What is known of the unit, and wanted of it, while its record is read from the beginning. */
export interface Reading {
  state: AssemblyState
  goal: Goal
  /** What was done before. */
  acts: readonly RecordedAct[]
}

/** Something that was recorded, and what it says was done. */
export interface Entry {
  /** What it comes from, for good: the row of the record, and which of its moments. */
  key: string
  at: string
  /** Of two things of one moment the one that comes first. */
  rank: number
  by: string
  from: ActSource
  sure: HowSure
  deeds: (now: Reading) => Deed[]
  /** Number of the write by which a closing was entered; 0 for what an older Moray wrote. Undefined of everything else, whose acts are cheap to work out. */
  write?: number
  /** Number of the write, where it has one: of two things of one moment it says which came first. */
  entered?: number | null
  /** What is wanted of the unit from then on. @param n number of the act that follows */
  goal?: (now: Reading, n: number) => Goal
}

/** Something recorded of which it is known what it says. */
export const entry = (
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
export function rowEntries(job: JobRecord, beside: ReadonlySet<string>): Entry[] {
  return job.row.flatMap((r): Entry[] => {
    if (r.part === null) return []
    const on = r.part
    // what lay beside it came off before anybody here saw it
    const off = beside.has(on)
      ? []
      : [entry(`row ${r.id} off`, r.offAt, 1, r.offBy, 'row', { do: 'remove', on })]
    if (r.leftOut !== null)
      return [
        ...off,
        entry(`row ${r.id} left out`, r.offAt, 2, r.offBy, 'row', {
          do: 'leave-out',
          on,
          fig: { until: 'good' },
        }),
      ]
    if (!r.fitted) return off
    const { at, by, renewed } = r.fitted
    return [
      ...off,
      ...(renewed
        ? [
            {
              ...entry(`row ${r.id} renewed`, at, 1, by, 'row'),
              deeds: ({ state }: Reading) => (isNewSinceOff(state, on) ? [] : [{ do: 'renew' as const, on }]),
            },
          ]
        : []),
      {
        ...entry(`row ${r.id} fitted ${at}`, at, 2, by, 'row'),
        deeds: (now: Reading) => [
          ...(isPlannedNew(now, on) ? [{ do: 'renew' as const, on }] : []),
          { do: 'fit', on },
        ],
      },
    ]
  })
}

/** A piece that serves once, and that this job has new: nobody puts the old one back by saying that it is in. */
const isPlannedNew = ({ state, goal }: Reading, id: string): boolean => {
  const part = state.parts.get(id)
  return part?.condition === 'condemned' && part.why === 'used-once' && goal.renew.has(id)
}

/** A new one has taken its place since it came off. */
const isNewSinceOff = ({ parts }: AssemblyState, id: string): boolean => {
  const part = parts.get(id)
  return part?.renewed !== undefined && part.renewed > (part.off ?? 0)
}

export const gradeEntries = (job: JobRecord, sheet: DriveSheet): Entry[] =>
  job.grades
    .filter((g) => !g.superseded)
    .map((g) => {
      const kind = sheet.parts.find((p) => p.id === g.part)?.kind
      const ends = kind && criteria[kind].find((c) => c.endsRebuild && g.seen.includes(c.id))
      const graded = entry(`grade ${g.id}`, g.at, 2, g.by, 'grade', {
        do: 'grade',
        on: g.part,
        fig: ends
          ? { condition: 'unsafe', why: ends.id }
          : {
              condition: condemned(g.grade) ? 'condemned' : g.grade === 'dress' ? 'dress' : 'good',
              ...(condemned(g.grade) ? { why: 'graded' } : {}),
            },
      })
      return { ...graded, entered: g.entered ?? null }
    })

/** Stacks, readings, and what an accepted build proves: every setting that was read in it, or that it carries over. */
export function buildEntries(job: JobRecord, ix: AssemblyIndex): Entry[] {
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
      .map((r) => ({
        ...entry(`reading ${r.id}`, r.at, 3, r.by, 'reading', {
          do: 'measure',
          on: r.measure,
          fig: { build: b.number, value: r.value },
        }),
        entered: r.entered ?? null,
      })),
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
            entered: b.acceptance.entered ?? null,
            deeds: (now: Reading) => [
              ...newInTrial(ix, now, b.number),
              ...[...ix.settings.keys()]
                .filter((id) => readIn(job, b.number, id) || isReadSince(now.state, id))
                .map((on): Deed => ({ do: 'accept', on, fig: { build: b.number } })),
            ],
          },
        ]
      : []),
  ])
}

/**
 * What carries a setting and is scrapped was new in the trial that is accepted: nobody sets gears that do not stay. In what is accepted as found nothing is new
 * but what has been off by then: then it was read on the bare case.
 */
const newInTrial = (ix: AssemblyIndex, { state, goal }: Reading, trial: number): Deed[] =>
  whatIsLeft(ix, state, goal).deeds.filter(
    (d) =>
      d.do === 'renew' &&
      ix.parts.get(d.on)!.settings.length > 0 &&
      (trial > 0 || state.parts.get(d.on)!.off !== undefined),
  )

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
