import type { BuildState } from '../setting/taken.ts'
import type { BuildRecord } from './record.ts'

/** What the setting is judged by: the stacks and readings of a build that count. */
export function buildState({ stacks, readings }: Pick<BuildRecord, 'stacks' | 'readings'>): BuildState {
  const pieces: Record<string, string[]> = {}
  const state: BuildState = { stacks: {}, readings: {}, pieces }
  for (const s of stacks) {
    if (s.superseded) continue
    state.stacks[s.location] = s.thicknessMm
    pieces[s.location] = s.pieces.map((p) => p.id)
  }
  for (const r of readings)
    if (!r.superseded)
      (state.readings[r.measure] ??= []).push({
        value: r.value,
        gauge: r.gauge,
        ...(r.how ? { how: r.how } : {}),
        ...(r.clockDeg === null ? {} : { clockDeg: r.clockDeg }),
      })
  return state
}
