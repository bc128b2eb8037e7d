import type { QueryClient } from '@tanstack/vue-query'
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
  )
}
