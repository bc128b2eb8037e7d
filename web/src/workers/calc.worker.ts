import { calculateSteps } from '@moray/contract/calculations/registry'
import { expose } from 'comlink'

export interface Progress {
  stage: string
  nodes: number
}

const TURN_MS = 40
let cancelled = false

/** Any calculation of the registry, off the page's thread; between turns it reports, and hears a cancel. */
const api = {
  async run(name: string, input: object, report?: (p: Progress) => void): Promise<object | 'cancelled'> {
    cancelled = false
    const steps = calculateSteps(name, input)
    let turn = performance.now()
    for (;;) {
      const step = steps.next()
      if (step.done) return step.value
      if (performance.now() - turn < TURN_MS) continue
      report?.(step.value as Progress)
      await new Promise((resolve) => setTimeout(resolve))
      if (cancelled) return 'cancelled'
      turn = performance.now()
    }
  },
  cancel() {
    cancelled = true
  },
}

export type CalcApi = typeof api
expose(api, self as never)
