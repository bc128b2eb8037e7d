import { useSessionStorage } from '@vueuse/core'
import { newRequestId } from '../wire/request-id.ts'

/** What was sent to a place and of which nobody knows yet whether it arrived. */
interface Unsure {
  content: string
  id: string
}

/** By place; kept over a reload of the page, so that pressing the button again afterwards does not write twice either. */
const unsure = useSessionStorage<Record<string, Unsure>>('moray.unsure', {})

/**
 * Request ids by intention. Sending the very same to the same place again, while it is not known what became of it, is the same intention and keeps
 * its id. As soon as something else was sent there it is another one, whatever its content: readings repeat by nature, and each of them counts.
 */
export function useIntention() {
  return {
    /** @param place what is written to @param content all that is sent, and by whom */
    idOf(place: string, content: string): string {
      const before = unsure.value[place]
      if (before?.content === content) return before.id
      const id = newRequestId()
      unsure.value = { ...unsure.value, [place]: { content, id } }
      return id
    },
    /** It is known what became of it. */
    settled(place: string, id: string): void {
      if (unsure.value[place]?.id !== id) return
      const { [place]: _known, ...others } = unsure.value
      unsure.value = others
    },
  }
}
