import type { AssemblyState } from '../assembly/state.ts'
import { assemblyIndex } from '../assembly/assembly-index.ts'
import type { Part } from '../drives/parts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import type { Scope } from '../route/scope.ts'
import type { ApprovalChoice, StopEnd } from './record.ts'

/** What the customer decided, as it is said wherever it stands. */
export const CHOICES: Record<ApprovalChoice, string> = {
  rebuild: 'rebuild',
  exchange: 'exchange unit',
  used: 'used unit',
  stop: 'stop here',
}

/** In what a drive ends that is not rebuilt. */
export const STOP_ENDS: Record<StopEnd, string> = {
  boat: 'back on the boat as it came, propeller on',
  'as-it-is': 'handed back as it lies, with a tag at the unit and at the helm',
  boxes: 'handed back in boxes, with a list',
  scrapped: 'scrapped',
}

/** The ends that the owner can choose when he stops, the usual one first. Back on the boat goes only what was merely looked at, and is safe. */
export function stopEnds(scope: Pick<Scope, 'mode'>, state: AssemblyState): StopEnd[] {
  const lying: StopEnd[] = ['as-it-is', 'boxes', 'scrapped']
  return scope.mode === 'strike' && isSafe(state) ? ['boat', ...lying] : lying
}

export const isSafe = ({ parts }: AssemblyState): boolean =>
  [...parts.values()].every((p) => p.condition !== 'unsafe')

/** Parts that can be kept for the unit that takes the place of this one: propeller with what holds it, anodes, and the water pump, where they are sound. */
export function keepable(sheet: DriveSheet, state: AssemblyState): Part[] {
  const { propellers, groups } = assemblyIndex(sheet)
  const pieces = new Set([...propellers].flatMap((id) => groups.get(id)!.pieces))
  return sheet.parts.filter(
    (p) =>
      (p.kind === 'hub' || p.kind === 'anode' || p.kind === 'pump' || pieces.has(p.id)) &&
      !['condemned', 'unsafe'].includes(state.parts.get(p.id)?.condition ?? ''),
  )
}

/** What is usually kept: propeller and anodes. */
export const usuallyKept = (parts: readonly Part[]): string[] =>
  parts.filter((p) => p.kind !== 'pump').map((p) => p.id)
