import { readonly, ref } from 'vue'

const gone = ref(false)
const wanted = ref('')

/** Parts of this page are no longer on the server: Moray was upgraded while it was open. */
export const pageIsStale = readonly(gone)
/** Where somebody wanted to go when that showed; '' where he went nowhere. */
export const staleWanted = readonly(wanted)

/** A part of this page could not be loaded. @param path of the place that was wanted */
export function moduleGone(path = ''): void {
  gone.value = true
  wanted.value = path
}
