import { beforeAll, describe, TestRunner } from 'vitest'
import { kinds, use } from './databases.ts'

/**
 * Runs each file of API tests on every database there is, one after the other, in the same worker: what the tests share is read and compiled once.
 * The file itself is read once for each, so that nothing of it is left over from the other.
 */
export default class OnEveryDatabase extends TestRunner {
  override importFile(filepath: string, source: 'collect' | 'setup'): unknown {
    if (source === 'setup') return super.importFile(filepath, source)
    for (const [n, kind] of kinds().entries())
      describe(`on ${kind}`, async () => {
        beforeAll(() => use(kind))
        use(kind)
        await super.importFile(`${filepath}?on=${n}`, source)
      })
    return undefined
  }
}
