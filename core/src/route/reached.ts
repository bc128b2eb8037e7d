import { assemblyIndex } from '../assembly/assembly-index.ts'
import { applyEffect } from '../assembly/effects.ts'
import { whatIsLeft } from '../assembly/left.ts'
import { asItCame } from '../assembly/state.ts'
import { edgesOf } from '../drives/graph/edges.ts'
import { setOf } from '../drives/parts.ts'
import { perSheet } from '../drives/per-sheet.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { goalOfScope, type Reached } from './goal.ts'
import { cameAs, type Scope } from './scope.ts'

/** What it comes to on a unit that nobody has touched yet: settings that are set anew, and tests. */
export function comesTo(
  sheet: DriveSheet,
  scope: Scope,
  reached: Reached,
): { disturbed: string[]; prove: ('case' | 'joined')[] } {
  const ix = assemblyIndex(sheet)
  const state = asItCame(ix)
  const act = {
    do: 'came',
    on: 'unit',
    fig: { came: cameAs(scope) },
    n: 1,
    by: '',
    entered: '',
    at: '',
    sure: 'said',
    from: 'told',
  } as const
  applyEffect(ix, state, act)
  const { deeds } = whatIsLeft(ix, state, { ...goalOfScope(sheet, scope, reached), closes: true })
  return {
    disturbed: [...new Set(deeds.flatMap((d) => (d.do === 'accept' ? [d.on] : [])))].sort(),
    prove: deeds.flatMap((d) => (d.do === 'prove' ? [d.on as 'case' | 'joined'] : [])),
  }
}

/** What is pressed on parts that are scrapped, and on that: it goes with them, unless it was pressed off and found good. */
export function pressedOn(sheet: DriveSheet, scrapped: readonly string[], kept: readonly string[]): string[] {
  const found = new Set<string>()
  const add = (host: string) => {
    for (const p of sheet.graph.parts) {
      if (found.has(p.id) || kept.includes(p.id) || p.kind === 'seal' || p.kind === 'ring') continue
      if (scrapped.includes(p.id) || !edgesOf(p.on).includes(host)) continue
      found.add(p.id)
      add(p.id)
    }
  }
  for (const id of scrapped) add(id)
  return [...found]
}

/** A new gear comes with its mate, and the stacks that set the pair have to be got at. */
export function withNewGears(sheet: DriveSheet, scope: Scope, targets: readonly string[]): string[] {
  if (scope.mode !== 'rebuild') return []
  const pairs = targets.flatMap((t) =>
    sheet.parts.find((p) => p.id === t)?.place?.startsWith('gear:') ? setOf(sheet.parts, t) : [],
  )
  const gears = new Set(pairs.flatMap((p) => p.place?.replace(/^gear:/, '') ?? []))
  const stacks = new Set(
    sheet.adjusters.filter((a) => a.moves !== undefined && gears.has(a.moves)).map((a) => `stack:${a.id}`),
  )
  const shims = sheet.parts.filter((p) => p.kind === 'shim' && p.place !== undefined && stacks.has(p.place))
  return [...pairs, ...shims].map((p) => p.id)
}

/**
 * What a new clutch takes along: what is sold with it, and the pins and springs that hold it. It has a direction: a new spring takes no clutch.
 * @param fresh parts that are new, for whatever reason
 */
export function withNewClutch({ parts }: DriveSheet, fresh: readonly string[]): string[] {
  const isKey = (id: string) => parts.find((p) => p.id === id)?.kind === 'key'
  return parts
    .filter((p) => p.kind === 'clutch' && fresh.includes(p.id))
    .flatMap((p) => [...setOf(parts, p.id).map((s) => s.id), ...p.after.filter(isKey)])
    .filter((id) => !fresh.includes(id))
}

/** Pieces that the sheet says serve only once: a stake nut, a bent lock. */
export const usedOnce = perSheet(
  ({ graph }): ReadonlySet<string> =>
    new Set(
      (graph.groups ?? []).flatMap((g) =>
        (g.pieces ?? []).flatMap((p) => ((p.useOnce ?? g.useOnce) ? [p.id] : [])),
      ),
    ),
)
