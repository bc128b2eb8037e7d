import { setFlagsFromString } from 'node:v8'

/** How much of a function of the embedded database runs before V8 translates it a second time, better: by itself it takes 1 800 000. */
const BUDGET = 40_000_000

/**
 * A start runs through thousands of the database's functions a few times each. Translating them all a second time took longer than running them:
 * the first answers come a third sooner without, and what runs often is translated all the same. Before the database is loaded.
 */
export const compileLate = (): void => setFlagsFromString(`--wasm-tiering-budget=${BUDGET}`)
