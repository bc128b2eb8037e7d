import { ref, type Ref } from 'vue'
import { asWireError, type WireError } from '../wire/client.ts'

/** Something loaded from the server: its value, or why it is not there. A later load wins over an earlier one. */
export function useLoaded<T>(): {
  value: Ref<T | null>
  error: Ref<WireError | null>
  run: (load: () => Promise<T>) => Promise<void>
  set: (value: T | null) => void
} {
  const value = ref(null) as Ref<T | null>
  const error = ref<WireError | null>(null) as Ref<WireError | null>
  let turn = 0
  return {
    value,
    error,
    async run(load) {
      const mine = ++turn
      try {
        const loaded = await load()
        if (mine !== turn) return
        value.value = loaded
        error.value = null
      } catch (e) {
        if (mine === turn) error.value = asWireError(e)
      }
    },
    set(next) {
      turn++
      value.value = next
      error.value = null
    },
  }
}
