import { useIntervalFn } from '@vueuse/core'
import { useCopies } from '../wire/queries.ts'

/** Copies of the shop, asked for again every second while one is being made or brought back. */
export function useWatchedCopies() {
  const store = useCopies()
  useIntervalFn(() => {
    if (store.copies?.running) void store.load()
  }, 1000)
  return store
}
