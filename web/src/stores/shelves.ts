import type { DrawerLine, Gauge } from '@moray/contract/replies'
import { routes } from '@moray/contract/routes'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { defineStore } from 'pinia'
import { getJson } from '../wire/client.ts'
import { onLive } from '../wire/live.ts'
import { useLoaded } from './use-loaded.ts'

export const useDrawer = defineStore('drawer', () => {
  const lines = useLoaded<DrawerLine[]>()
  const load = () => lines.run(() => getJson<DrawerLine[]>(routes.drawer))
  onLive((e) => {
    if (lines.value.value && (e === 'again' || ['drawer', 'trial', 'accepted'].includes(e.kind))) void load()
  })
  return { lines: lines.value, error: lines.error, load }
})

export const useGauges = defineStore('gauges', () => {
  const gauges = useLoaded<Gauge[]>()
  const load = () => gauges.run(() => getJson<Gauge[]>(routes.gauges))
  return { gauges: gauges.value, error: gauges.error, load }
})

export const useDrives = defineStore('drives', () => {
  const sheets = useLoaded<DriveSheet[]>()
  const load = () => sheets.run(() => getJson<DriveSheet[]>(routes.drives))
  return { sheets: sheets.value, error: sheets.error, load }
})
