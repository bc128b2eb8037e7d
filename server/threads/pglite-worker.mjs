// the thread of the database while we run from source (src/threads.ts)
import { register } from 'tsx/esm/api'
register()
await import('../src/db/pglite-worker.ts')
