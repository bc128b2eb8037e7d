import type { Window } from '@moray/core/checks/window'
import type { Verdict } from '@moray/core/measuring/judge'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { sensitivities } from '@moray/core/setting/train'
import { hasLimit } from '@moray/core/setting/assess'
import { isDerived, settingMeasures, type SetMeasure } from '@moray/core/setting/measures'
import { learnFrom } from '@moray/core/setting/learned'
import type { Experience } from '@moray/core/setting/with-experience'
import type { ShownBuild } from '../shown-job.ts'

/** One measure in one build, as it was read and as it was promised. */
export interface TrialCell {
  build: number
  mean?: number
  U?: number
  verdict?: Verdict | 'no-window'
  /** What it was judged against in that build. */
  window: Window
  promised?: number
  /** Beyond three standard uncertainties from what was promised. */
  disagrees: boolean
}

/** A measure over all builds. */
export interface TrialRow {
  measure: SetMeasure
  cells: TrialCell[]
}

export const trialRows = (sheet: DriveSheet, builds: readonly ShownBuild[]): TrialRow[] =>
  settingMeasures(sheet)
    .filter(
      (m) =>
        builds.some((b) => hasLimit(b.assessment.measures[m.id]!.window)) &&
        (!isDerived(m) || builds.some((b) => b.assessment.measures[m.id]?.judgement)),
    )
    .map((measure) => ({
      measure,
      cells: builds.map((b): TrialCell => {
        const judgement = b.assessment.measures[measure.id]?.judgement
        const check = b.check.find((c) => c.measure === measure.id)
        const promised = b.plan?.predicted[measure.id]?.value
        return {
          build: b.number,
          window: b.assessment.measures[measure.id]!.window,
          ...(judgement ? { mean: judgement.mean, U: judgement.U, verdict: judgement.verdict } : {}),
          ...(promised === undefined ? {} : { promised }),
          disagrees: check?.disagrees ?? false,
        }
      }),
    }))

/**
 * Where a value lies against its window, whatever the measure: −1 its lower limit, 0 the middle, +1 the upper limit. A window with one limit has its
 * open side as far off as the limit itself.
 */
export function inWindow({ window }: { window: Window }, value: number): number {
  const { min, max } = window
  const low = min ?? (max! > 0 ? 0 : 2 * max!)
  const high = max ?? 2 * min!
  return high === low ? 0 : (2 * (value - low)) / (high - low) - 1
}

/** How a measure answers to a stack, mm per mm: by the sheet, as this job's builds have shown it, and as the sheet's own units have. */
export interface Answer {
  measure: string
  stack: string
  sheet: number
  learned?: { mean: number; U: number }
  units?: { mean: number; trials: number }
}

export function answersOf(
  sheet: DriveSheet,
  builds: readonly ShownBuild[],
  experience: Experience | undefined,
): Answer[] {
  const learned = learnFrom(
    sheet,
    builds.map((b) => b.state),
    undefined,
    experience,
  )
  return Object.entries(sensitivities(sheet)).flatMap(([measure, row]) =>
    Object.entries(row).map(([stack, value]): Answer => {
      const posterior = learned?.sensitivity[measure]?.[stack]
      const shown = experience?.sensitivity[measure]?.[stack]
      return {
        measure,
        stack,
        sheet: value,
        ...(posterior ? { learned: { mean: posterior.mean, U: 2 * posterior.sd } } : {}),
        ...(shown ? { units: { mean: shown.mean, trials: shown.trials } } : {}),
      }
    }),
  )
}
