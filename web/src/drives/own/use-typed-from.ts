import type { SourceKind } from '@moray/core/drives/own/source'
import { useStorage } from '@vueuse/core'

/** Where what is typed for a sheet comes from, and its page: kept, since one goes through a manual page by page. */
export const useTypedFrom = (id: string) => ({
  from: useStorage<'usual' | SourceKind>(`moray.from.${id}`, 'usual'),
  page: useStorage(`moray.page.${id}`, ''),
})
