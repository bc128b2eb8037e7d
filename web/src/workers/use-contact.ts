import { wrap, type Remote } from 'comlink'
import { onScopeDispose, shallowReadonly, shallowRef, watch, type ShallowRef } from 'vue'
import { watched } from './loading.ts'
import type { ContactApi, PairAsked, PairPatches } from './contact-api.ts'

/**
 * Contact patches that follow what is asked, computed in a worker of their own. While one answer is on its way only the newest question waits:
 * what lies between is passed over, so that a drag is never behind the hand.
 */
export function useContact(asked: () => PairAsked[]): Readonly<ShallowRef<Record<string, PairPatches>>> {
  const patches = shallowRef<Record<string, PairPatches>>({})
  let running: { worker: Worker; failed: Promise<never>; remote: Remote<ContactApi> } | null = null
  let waiting: PairAsked[] | null = null
  let busy = false

  async function work() {
    if (busy) return
    busy = true
    if (!running) {
      const made = watched(new Worker(new URL('./contact.worker.ts', import.meta.url), { type: 'module' }))
      running = { ...made, remote: wrap<ContactApi>(made.worker) }
    }
    const { worker, remote, failed } = running
    try {
      while (waiting) {
        // a reactive proxy cannot be cloned into the worker
        const pairs = JSON.parse(JSON.stringify(waiting)) as PairAsked[]
        waiting = null
        patches.value = await Promise.race([remote.patches(pairs), failed])
      }
    } catch {
      // the page says that a part of it could not be loaded; the next question tries again
      worker.terminate()
      running = null
    } finally {
      busy = false
    }
  }
  watch(
    asked,
    (pairs) => {
      waiting = pairs
      void work()
    },
    { immediate: true },
  )
  onScopeDispose(() => running?.worker.terminate())
  return shallowReadonly(patches)
}
