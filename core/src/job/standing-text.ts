import { STAGES } from '../route/stage-names.ts'
import type { Waits } from './waits.ts'

const OWN_STAGES: Record<string, string> = { setting: 'Setting', done: 'Handed over', closed: 'Closed' }

/** Name of the stage that a job is in. */
export const stageLabel = (stage: string): string =>
  OWN_STAGES[stage] ??
  STAGES.find((s) => s.id === stage)?.label ??
  stage.replace(/^repair-(\d+)$/, (_, number: string) => `Repair ${number}`)

/**
 * What a job waits for, as a sentence.
 * @param clock the time of day of an ISO time, where the reader is
 */
export function waitsText(waits: Waits, clock: (iso: string) => string): string {
  switch (waits.kind) {
    case 'nothing':
      return 'Nothing: finished'
    case 'closed':
      return `Nothing: ${waits.reason}`
    case 'held':
      return `Held: ${waits.reason}`
    case 'step':
      return waits.what
    case 'shut':
      return waits.why
    case 'running':
      return `${waits.what}: running since ${clock(waits.since)}`
    case 'stack':
      return `Enter ${waits.label.toLowerCase()} ${ofBuild(waits.build)}`
    case 'reading':
      return `Measure ${waits.label.toLowerCase()} ${ofBuild(waits.build)}, ${waits.missing} to go`
    case 'accept':
      return 'Every window met: accept as built'
    case 'choose-stacks':
      return 'Choose the next stacks'
    case 'decide':
      return 'Decide on the readings'
    case 'said':
      return waits.text
  }
}

const ofBuild = (number: number) => (number === 0 ? 'as found' : `of trial ${number}`)
