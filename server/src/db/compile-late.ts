import { setFlagsFromString } from 'node:v8'

/** How much of a function of the embedded database runs before V8 optimizes it; V8's own default is 1 800 000. */
const BUDGET = 40_000_000

/**
 * Delays optimizing the embedded database's code. A start runs thousands of its functions a few times each, and V8's compiler threads then compete with
 * them: on two cores, reading a job's record in the first minute took 5.8 ms on average, and 4.8 ms with this. What runs often is optimized all the
 * same. To be called before the database is loaded.
 */
export const compileLate = (): void => setFlagsFromString(`--wasm-tiering-budget=${BUDGET}`)
