import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, type StepDraft } from '../make.ts'

/** Fact that nobody can state: the sheet has the figures of this step. With the figures the step is another one. */
export const SHEET_HAS = 'sheet.has'

/** Figures under one of these paths that the sheet needs and has not. */
export const lackingUnder = (sheet: DriveSheet, ...paths: string[]): string[] =>
  (sheet.lacks ?? []).filter((l) => paths.some((p) => l === p || l.startsWith(`${p}.`)))

/** The same for a step that goes on without them: it asks, and is not shut for them. Undefined where nothing is missing. */
export const alsoAsks = (sheet: DriveSheet, ...paths: string[]): string[] | undefined => {
  const lacking = lackingUnder(sheet, ...paths)
  return lacking.length ? lacking : undefined
}

/**
 * A step whose figures the sheet does not hold yet: it asks for them where they are needed. It can be passed over with a reason, as any.
 */
export function wantingStep(wants: string[], draft: Omit<StepDraft, 'wants' | 'gates' | 'asks'>): StepDraft {
  return {
    ...draft,
    wants,
    gates: [
      gate(
        { fact: SHEET_HAS, is: true },
        'The sheet of this drive has no figures for this yet. Enter them here from your manual. They also go into the draft of the sheet, for the jobs after it is published.',
      ),
    ],
    asks: [],
  }
}
