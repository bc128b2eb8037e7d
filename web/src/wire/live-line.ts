import { DEMO_EPOCH } from '@moray/contract/replies'
import type { QueryClient } from '@tanstack/vue-query'
import { useLocalStorage } from '@vueuse/core'
import { readonly, ref } from 'vue'
import { followLive, type Line } from './live.ts'
import { catchUp, hear } from './queries.ts'

const connected = ref(false)
let line: Line | undefined

/** Whether changes made elsewhere arrive here. */
export const liveConnected = readonly(connected)

/** Lets the live line keep what this page has read up to date. */
export function startLive(client: QueryClient) {
  line ??= followLive(
    (event) => hear(client, event),
    (last) => catchUp(client, last),
    (stands) => (connected.value = stands),
    Date.now,
    elsewhere,
  )
}

/** The history of the shop that this browser has seen last. */
const epoch = useLocalStorage('moray.epoch', '')

/** Another history than the one that is known here: everything is loaded anew. What was typed in a demo is of no use to the shop that comes after it. */
function elsewhere(now: string): void {
  const before = epoch.value
  epoch.value = now
  if (before === '' || before === now) return
  if (before.startsWith(DEMO_EPOCH) && !now.startsWith(DEMO_EPOCH))
    for (const key of Object.keys(localStorage))
      if (key.startsWith('moray.draft.')) localStorage.removeItem(key)
  window.location.reload()
}
