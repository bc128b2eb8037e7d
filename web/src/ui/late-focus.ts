import { onScopeDispose } from 'vue'

/** Long enough that a second, accidental Enter of the step before does not set off the next one. */
const PAUSE_MS = 700

/**
 * Puts the focus on the one action that is due, so that Enter (or a foot switch) does it: after a pause, and
 * only when nobody has put the focus elsewhere meanwhile.
 */
export function useLateFocus(find: () => HTMLElement | null | undefined): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  onScopeDispose(() => clearTimeout(timer))
  return () => {
    clearTimeout(timer)
    timer = setTimeout(() => {
      const active = document.activeElement
      if (active === null || active === document.body) find()?.focus({ preventScroll: true })
    }, PAUSE_MS)
  }
}
