import { readonly, ref, type Ref } from 'vue'
import { useShop } from '../stores/shop.ts'
import { asWireError, postJson, type WireError } from './client.ts'

/**
 * Sends one kind of write and keeps what went wrong. While it is unsure whether the server got a request, the
 * same request keeps its id, so that pressing the button again cannot write twice.
 */
export function useWrite<Reply>(): {
  busy: Readonly<Ref<boolean>>
  error: Readonly<Ref<WireError | null>>
  send: (path: string, body: object) => Promise<Reply | undefined>
  clear: () => void
} {
  const busy = ref(false)
  const error = ref<WireError | null>(null)
  let open: { key: string; id: string } | null = null
  const shop = useShop()

  async function send(path: string, body: object): Promise<Reply | undefined> {
    if (busy.value) return undefined
    const key = `${path} ${JSON.stringify(body)}`
    if (open?.key !== key) open = { key, id: crypto.randomUUID() }
    busy.value = true
    error.value = null
    try {
      const reply = await postJson<Reply>(path, body, shop.personId, open.id)
      open = null
      return reply
    } catch (e) {
      const wire = asWireError(e)
      if (!wire.unsure) open = null
      error.value = wire
      return undefined
    } finally {
      busy.value = false
    }
  }
  return {
    busy: readonly(busy),
    error: readonly(error) as Ref<WireError | null>,
    send,
    clear: () => (error.value = null),
  }
}
