import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterEach } from 'vitest'
import { loadBodies } from '../src/wire/client.ts'

// as in a page that has stood for a second
await loadBodies()

// files that share a worker share this library: it is told anew for each of them
disableAutoUnmount()
enableAutoUnmount(afterEach)

// there is no server here: what no test answers fails at once, and reaches nobody who happens to listen
globalThis.fetch = () => Promise.reject(new TypeError('no server in these tests'))
