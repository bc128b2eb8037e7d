import { onScopeDispose } from 'vue'
import { useRouter } from 'vue-router'

/**
 * For what goes on to another place once something is written: whoever went elsewhere meanwhile, or has just begun to, is not fetched back.
 * @returns to be called when it is sent; the answer tells afterwards, once, whether the person is still where he was
 */
export function useStillHere(): () => () => boolean {
  const router = useRouter()
  let gone = false
  onScopeDispose(() => (gone = true))
  return () => {
    let moved = false
    // a place that is still being loaded is not in the address yet
    const noMore = router.beforeEach(() => {
      moved = true
    })
    return () => {
      noMore()
      return !gone && !moved
    }
  }
}
