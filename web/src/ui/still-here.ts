import { onScopeDispose } from 'vue'
import { useRouter } from 'vue-router'

/**
 * For what goes on to another place once something is written: whoever went elsewhere meanwhile, or has just begun to, is not fetched back.
 * @returns to be called when it is sent; the answer tells afterwards whether the person is still where he was
 */
export function useStillHere(): () => () => boolean {
  let moves = 0
  // before, not after: a place that is still being loaded is not in the address yet
  const noMore = useRouter().beforeEach(() => {
    moves++
  })
  onScopeDispose(() => {
    moves++
    noMore()
  })
  return () => {
    const then = moves
    return () => moves === then
  }
}
