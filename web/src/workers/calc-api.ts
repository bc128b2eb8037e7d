import { calculateInTurns } from '@moray/contract/calculations/registry'
import type { ShimPlan } from '@moray/core/setting/shim-solve'

/** What a calculation says of itself while it works; a search also what it has found so far. */
export interface Progress {
  stage: string
  nodes: number
  gap?: number
  plan?: ShimPlan
}

/** How long a calculation works before it looks up: reports, and hears a cancel. */
const TURN_MS = 40

/** Any calculation of the registry, in turns, so that it can be watched and stopped. One at a time. */
export function createCalcApi() {
  let current = 0
  return {
    async run(name: string, input: object, report?: (p: Progress) => void): Promise<object | 'cancelled'> {
      const mine = ++current
      const turns = calculateInTurns(name, input)
      let turn = performance.now()
      for (;;) {
        const step = turns.next()
        if (step.done) return step.value
        if (performance.now() - turn < TURN_MS) continue
        report?.(step.value as Progress)
        await new Promise((resolve) => setTimeout(resolve))
        // a cancel, or a newer question, ends this one
        if (mine !== current) return 'cancelled'
        turn = performance.now()
      }
    },
    cancel() {
      current++
    },
  }
}

export type CalcApi = ReturnType<typeof createCalcApi>
