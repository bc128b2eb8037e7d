// a thread for calculations while we run from source (src/threads.ts)
import { register } from 'tsx/esm/api'
register()
const { default: run } = await import('../src/calc/worker.ts')
export default run
