import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const SRC = join(import.meta.dirname, '../src')
/** A date of now; one that is told from a text or a number is none. */
const CLOCK = /\bnew Date\(\s*\)|\bnew Date(?![\w(])|(?<!new )\bDate\(/

it('core takes the time as an argument: nowhere in it is a date made of nothing', () => {
  const files = readdirSync(SRC, { recursive: true, encoding: 'utf8' }).filter((f) => f.endsWith('.ts'))
  expect(files.length).toBeGreaterThan(150)
  const withClock = files.filter((f) => CLOCK.test(readFileSync(join(SRC, f), 'utf8')))
  expect(withClock).toEqual([])
  for (const clock of ['new Date()', 'new Date( )', 'Date()', 'x = new Date'])
    expect(CLOCK.test(clock), clock).toBe(true)
})
