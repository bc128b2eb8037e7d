import { onScopeDispose } from 'vue'
import { useRoute } from 'vue-router'

/**
 * For what goes on to another place once something is written: whoever went elsewhere meanwhile is not fetched back.
 * @returns to be called when it is sent; the answer tells afterwards whether the person is still where he was
 */
export function useStillHere(): () => () => boolean {
  const route = useRoute()
  let gone = false
  onScopeDispose(() => (gone = true))
  return () => {
    const at = route.fullPath
    return () => !gone && route.fullPath === at
  }
}
