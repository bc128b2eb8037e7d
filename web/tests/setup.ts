import { disableAutoUnmount, enableAutoUnmount } from '@vue/test-utils'
import { afterEach } from 'vitest'

// files that share a worker share this library: it is told anew for each of them
disableAutoUnmount()
enableAutoUnmount(afterEach)
