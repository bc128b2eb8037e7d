import { proxy, wrap, type Remote } from 'comlink'
import { onScopeDispose, shallowReadonly, shallowRef, type ShallowRef } from 'vue'
import type { CalcApi, Progress } from './calc-api.ts'

/** Runs calculations in a worker of its own; the worker ends with the component that asked for it. */
export function useCalc(): {
  progress: Readonly<ShallowRef<Progress | null>>
  run: <T extends object>(name: string, input: object) => Promise<T | 'cancelled'>
  cancel: () => void
} {
  const progress = shallowRef<Progress | null>(null)
  let worker: Worker | null = null
  let remote: Remote<CalcApi> | null = null

  function api(): Remote<CalcApi> {
    worker ??= new Worker(new URL('./calc.worker.ts', import.meta.url), { type: 'module' })
    remote ??= wrap<CalcApi>(worker)
    return remote
  }
  onScopeDispose(() => worker?.terminate())

  return {
    progress: shallowReadonly(progress),
    async run<T extends object>(name: string, input: object) {
      progress.value = { stage: 'starting', nodes: 0 }
      try {
        // a reactive proxy cannot be cloned into the worker
        const plain = JSON.parse(JSON.stringify(input)) as object
        return (await api().run(
          name,
          plain,
          proxy((p: Progress) => (progress.value = p)),
        )) as T | 'cancelled'
      } finally {
        progress.value = null
      }
    },
    cancel: () => void remote?.cancel(),
  }
}
