import type { LiveEvent } from '@moray/contract/replies'
import { routes } from '@moray/contract/routes'
import { readonly, ref } from 'vue'

type Listener = (event: LiveEvent | 'again') => void

const listeners = new Set<Listener>()
const connected = ref(false)
let source: EventSource | null = null

/** Whether changes made elsewhere arrive here. */
export const liveConnected = readonly(connected)

/**
 * Calls back for every change that any browser has committed, and with 'again' when the line was down in
 * between, so that whoever listens loads afresh. @returns ends the subscription
 */
export function onLive(listener: Listener): () => void {
  listeners.add(listener)
  return () => listeners.delete(listener)
}

export function startLive() {
  if (source) return
  let lost = false
  source = new EventSource(routes.live)
  source.addEventListener('hello', () => {
    connected.value = true
    if (lost) for (const l of listeners) l('again')
    lost = false
  })
  source.addEventListener('change', (e) => {
    const event = JSON.parse((e as MessageEvent<string>).data) as LiveEvent
    for (const l of listeners) l(event)
  })
  source.addEventListener('error', () => {
    connected.value = false
    lost = true
    // the browser gives up for good after some answers; then a fresh line is needed
    if (source?.readyState === EventSource.CLOSED) {
      source = null
      setTimeout(startLive, 3000)
    }
  })
}
