import { useIntention } from './intention.ts'
import type { BodyOf, ReplyOf } from '@moray/contract/endpoint'
import { computed, readonly, ref, type Ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import { endpoints } from '@moray/contract/endpoints'
import {
  asWireError,
  send as sendNow,
  WireError,
  type ParamsFor,
  type WriteEndpoint,
} from '../wire/client.ts'

export interface Write {
  busy: Readonly<Ref<boolean>>
  error: Readonly<Ref<WireError | null>>
  /**
   * Sends, and answers undefined when it was refused. What comes while another one is under way waits its turn; the very same again is
   * the same.
   */
  send: <E extends WriteEndpoint>(
    endpoint: E,
    params: ParamsFor<E>,
    body: BodyOf<E>,
  ) => Promise<ReplyOf<E> | undefined>
  clear: () => void
}

/**
 * Sends writes and keeps what went wrong. While it is unsure whether the server got a request, the same request keeps its id, so that pressing the
 * button again cannot write twice (intention.ts).
 */
export function useWrite(): Write {
  const shop = useShop()
  return useWriteAs(() => {
    // an empty shop begins without anybody
    if (!shop.somebody && shop.people.length) shop.asking = true
    return shop.personId
  })
}

/** The same under another name than that of whoever works at this screen: the lead who stands beside it. */
export function useWriteAs(person: () => string): Write {
  const shop = useShop()
  const underWay = ref(0)
  const error = ref<WireError | null>(null)
  const intention = useIntention()
  let turn: Promise<unknown> = Promise.resolve()
  const sending = new Map<string, Promise<unknown>>()

  /** @param meant name and id as they were when it was meant: the name at this screen may be another one when its turn comes */
  async function one<E extends WriteEndpoint>(
    endpoint: E,
    params: ParamsFor<E>,
    body: BodyOf<E>,
    meant: { who: string; place: string; id: string },
  ): Promise<ReplyOf<E> | undefined> {
    error.value = null
    const { who, place, id } = meant
    if (who === '' && endpoint !== endpoints.addPerson) {
      error.value = new WireError('nobody', 'Say first who is working here; what you typed is still there.')
      return undefined
    }
    try {
      const reply = await sendNow(endpoint, params, body, who, id)
      intention.settled(place, id)
      return reply
    } catch (e) {
      const wire = asWireError(e)
      if (!wire.unsure) intention.settled(place, id)
      if (wire.code === 'code-needed') shop.codeFor = who
      error.value = wire
      return undefined
    }
  }
  return {
    busy: computed(() => underWay.value > 0),
    error: readonly(error) as Ref<WireError | null>,
    send(endpoint, params, body) {
      const who = person()
      const place = `${endpoint.path} ${JSON.stringify(params)}`
      const content = `${who} ${JSON.stringify(body)}`
      const key = `${place} ${content}`
      const same = sending.get(key)
      if (same) return same as ReturnType<typeof one<typeof endpoint>>
      underWay.value++
      const meant = { who, place, id: intention.idOf(place, content) }
      const mine = turn.then(() => one(endpoint, params, body, meant))
      sending.set(key, mine)
      turn = mine.finally(() => {
        underWay.value--
        sending.delete(key)
      })
      return mine
    },
    clear: () => (error.value = null),
  }
}
