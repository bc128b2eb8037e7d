import type { Deed } from '../assembly/act.ts'
import type { AssemblyIndex } from '../assembly/assembly-index.ts'
import type { AssemblyState } from '../assembly/state.ts'
import { bigRing } from '../drives/graph/bench-facts-of.ts'
import { edgesOf } from '../drives/graph/edges.ts'
import { shaftOnAxis } from '../drives/on-axis.ts'
import type { JudgedJob } from '../job/judged.ts'
import type { Closing } from '../job/record.ts'
import { loopOf, loopPlan } from '../route/loops.ts'
import type { DriveStepId } from '../route/step-ids.ts'

interface Claiming {
  job: JudgedJob
  ix: AssemblyIndex
  state: AssemblyState
  closing: Closing
}
type Claim = (c: Claiming) => Deed[]

/**
 * What the closing of a step says was done, on the state as it was then. Steps that only look, think or wait claim nothing.
 */
export function claimsOf(job: JudgedJob, ix: AssemblyIndex, state: AssemblyState, closing: Closing): Deed[] {
  const c = { job, ix, state, closing }
  const loop = loopOf(closing.step)
  if (loop) return loopClaims(c, loop.number, loop.act)
  return CLAIMS[closing.step as DriveStepId]?.(c) ?? []
}

/** Groups that a step of its own tightens, so that tightening the rest does not. */
function tightenedApart({ job, ix }: Claiming): Set<string> {
  const { graph } = job.sheet
  const ring = bigRing(graph)
  return new Set([
    ...(ring ? [ring.id] : []),
    ...(graph.propellers ?? []).flatMap((p) => edgesOf(p.heldBy)),
    ...[...ix.groups].flatMap(([id, g]) => (g.row.port || g.joins.length ? [id] : [])),
  ])
}

const tight = (ids: readonly string[]): Deed[] =>
  ids.flatMap((on) => [
    { do: 'tighten' as const, on },
    { do: 'lock' as const, on },
  ])

const loose = ({ state }: Claiming, ids: Iterable<string>): string[] =>
  [...ids].filter((id) => ['loose', 'out', 'snug'].includes(state.groups.get(id)?.at ?? ''))

const ports = ({ ix }: Claiming, which: readonly string[]) =>
  [...ix.groups].flatMap(([id, g]) => (g.row.port && which.includes(g.row.port) ? [id] : []))

const renewKind =
  (kind: 'seal' | 'ring'): Claim =>
  ({ job }) =>
    job.plan.renew
      .map((r) => r.part)
      .filter((id) => job.sheet.parts.find((p) => p.id === id)?.kind === kind)
      .flatMap((on) => [
        { do: 'renew', on },
        { do: 'fit', on },
      ])

const fitAll = ({ job, state }: Claiming): Deed[] =>
  job.plan.off.filter((p) => state.parts.get(p.id)?.at === 'tray').map((p) => ({ do: 'fit', on: p.id }))

const proves =
  (test: 'case' | 'joined', step: 'leak-case' | 'leak-joined'): Claim =>
  ({ job }) => [
    { do: 'press', on: 'unit' },
    { do: 'prove', on: test, fig: { verdict: job.facts[`${step}.proved`] === true ? 'good' : 'unclear' } },
    { do: 'let-out', on: 'unit' },
  ]

const ring: Claim = ({ job }) => {
  const group = bigRing(job.sheet.graph)
  return group ? tight([group.id]) : []
}

const fill: Claim = (c) => [
  ...[...c.ix.spaces].flatMap(([on, s]): Deed[] =>
    s.holds === 'oil' || s.holds === 'grease'
      ? [
          { do: 'fill', on },
          { do: 'settle', on },
        ]
      : [],
  ),
  ...tight(loose(c, ports(c, ['drain', 'vent', 'fill']))),
]

/** A shaft past its limit and a cracked case are unsafe, whoever says so and wherever it is read. */
const strike: Claim = ({ job, closing }) => {
  const { parts, axes } = job.sheet
  const body = parts.find((p) => p.role === 'body')
  const shafts = axes.filter((a) => job.facts[`strike.${a.id}.verdict`] === 'bent')
  const bent = shafts.map((a): Deed => {
    const part = shaftOnAxis(job.sheet, a.id)
    // a shaft that no part stands for is an open thing all the same
    return part
      ? { do: 'grade', on: part.id, fig: { condition: 'unsafe', why: 'bent' } }
      : { do: 'find', on: `bent ${a.id}` }
  })
  return [
    ...(closing.answers['strike.case'] === 'cracked' && body
      ? [{ do: 'grade' as const, on: body.id, fig: { condition: 'unsafe' as const, why: 'cracked' } }]
      : []),
    ...bent,
  ]
}

/** Readings of the check at the end, and the word that the same parts were seated again. */
const checkSet: Claim = ({ job, ix, closing }) =>
  [...ix.settings.keys()].flatMap((on): Deed[] => {
    const read = closing.answers[`check.${on}`] !== undefined
    const good = job.facts[`check.${on}.same`] !== false
    return read ? [{ do: 'measure', on, fig: { check: true, verdict: good ? 'good' : 'bad' } }] : []
  })

const CLAIMS: Partial<Record<DriveStepId, Claim>> = {
  drain: (c) => [
    ...ports(c, ['drain']).map((on): Deed => ({ do: 'take-out', on })),
    ...[...c.ix.spaces].flatMap(([on, s]): Deed[] => (s.holds === 'oil' ? [{ do: 'drain', on }] : [])),
  ],
  strike,
  apart: ({ job, state }) => [
    ...(job.plan.apart ? [...state.interfaces.keys()].map((on): Deed => ({ do: 'part', on })) : []),
    ...job.plan.off
      .filter((p) => state.parts.get(p.id)?.at === 'in')
      .map((p): Deed => ({ do: 'remove', on: p.id })),
  ],
  ratio: () => [{ do: 'know', on: 'ratio' }],
  'unit-ratio': () => [{ do: 'know', on: 'ratio' }],
  'unit-overall': () => [{ do: 'know', on: 'ratio' }],
  seals: renewKind('seal'),
  'o-rings': renewKind('ring'),
  close: fitAll,
  tighten: (c) => {
    const apart = tightenedApart(c)
    const ring = bigRing(c.job.sheet.graph)
    return [
      ...tight(loose(c, c.state.groups.keys()).filter((id) => !apart.has(id))),
      // its torque is a step of its own, and may come once the unit hangs; home it is by now
      ...(ring && loose(c, [ring.id]).length ? [{ do: 'snug' as const, on: ring.id }] : []),
    ]
  },
  'ring-stand': ring,
  'ring-mounted': ring,
  'check-set': checkSet,
  'leak-case': proves('case', 'leak-case'),
  'leak-joined': proves('joined', 'leak-joined'),
  join: (c) => [
    ...[...c.state.interfaces].flatMap(([on, at]): Deed[] => (at === 'parted' ? [{ do: 'join', on }] : [])),
    ...tight(
      loose(
        c,
        [...c.ix.groups].flatMap(([id, g]) => (g.joins.length ? [id] : [])),
      ),
    ),
  ],
  'fill-stand': fill,
  'fill-mounted': fill,
  'shift-check': () => [{ do: 'know', on: 'shift' }],
  'first-run': ({ closing }) => [
    { do: 'run', on: 'unit', fig: { dry: closing.departedFrom.length === 0 } },
    { do: 'know', on: 'water' },
  ],
  propeller: (c) => [
    ...c.job.sheet.parts
      .filter((p) => p.kind === 'hub' && c.state.parts.get(p.id)?.at === 'tray')
      .map((p): Deed => ({ do: 'fit', on: p.id })),
    ...tight(
      loose(
        c,
        (c.job.sheet.graph.propellers ?? []).flatMap((p) => edgesOf(p.heldBy)),
      ),
    ),
    { do: 'know', on: 'propeller-turns' },
  ],
  handover: ({ job }) => [{ do: 'end', on: 'unit', fig: { end: job.plan.apart ? 'stand' : 'boat' } }],
}

/** A repair takes off, renews and puts back what its plan names; nothing else was ever asked of it. */
function loopClaims({ job, state }: Claiming, number: number, act: 'open' | 'renew' | 'close'): Deed[] {
  const loop = job.loops.find((l) => l.number === number)
  if (!loop) return []
  const plan = loopPlan(job.sheet, loop)
  if (act === 'open')
    return plan.off.filter((p) => state.parts.get(p.id)?.at === 'in').map((p) => ({ do: 'remove', on: p.id }))
  if (act === 'renew') return plan.renew.map((r) => ({ do: 'renew', on: r.part }))
  return plan.off.map((p) => ({ do: 'fit', on: p.id }))
}
