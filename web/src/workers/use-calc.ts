import { proxy, wrap, type Remote } from 'comlink'
import { onScopeDispose, shallowReadonly, shallowRef, type ShallowRef } from 'vue'
import type { CalcApi, Progress } from './calc-api.ts'
import { watched } from './loading.ts'

/** Runs calculations in a worker of its own; the worker ends with the component that asked for it. */
export function useCalc(): {
  progress: Readonly<ShallowRef<Progress | null>>
  run: <T extends object>(name: string, input: object) => Promise<T | 'cancelled'>
  cancel: () => void
} {
  const progress = shallowRef<Progress | null>(null)
  let running: { worker: Worker; failed: Promise<never>; remote: Remote<CalcApi> } | null = null

  function api() {
    if (running) return running
    const made = watched(new Worker(new URL('./calc.worker.ts', import.meta.url), { type: 'module' }))
    running = { ...made, remote: wrap<CalcApi>(made.worker) }
    // the next question tries a worker of its own
    made.failed.catch(() => {
      running?.worker.terminate()
      running = null
    })
    return running
  }
  onScopeDispose(() => running?.worker.terminate())

  return {
    progress: shallowReadonly(progress),
    async run<T extends object>(name: string, input: object) {
      progress.value = { stage: 'starting', nodes: 0 }
      try {
        // a reactive proxy cannot be cloned into the worker
        const plain = JSON.parse(JSON.stringify(input)) as object
        const { remote, failed } = api()
        const answer = remote.run(
          name,
          plain,
          proxy((p: Progress) => (progress.value = p)),
        )
        return (await Promise.race([answer, failed])) as T | 'cancelled'
      } finally {
        progress.value = null
      }
    },
    cancel: () => void running?.remote.cancel(),
  }
}
