import type { Page } from './test.ts'

/** Where the window keeps what it has counted, over every page that is loaded in it. */
const KEPT = 'counted'

export interface Counted {
  taps: number
  keys: number
  /** Fields and choices that got a value. */
  entries: number
}

/**
 * Counts in the window what a hand does: a tap for every pointer that goes down, two for a choice out of a list that opens, a key for every key that goes
 * down. A field that a test fills at once counts its letters, and a tap where it had not got the hand.
 */
export async function countIn(page: Page): Promise<void> {
  await page.addInitScript(install, KEPT)
  await page.evaluate(install, KEPT)
  await page.evaluate((kept) => localStorage.removeItem(kept), KEPT)
}

function install(kept: string) {
  const listening = window as { counting?: true }
  if (listening.counting) return
  listening.counting = true
  const add = (what: 'taps' | 'keys' | 'entries', n: number) => {
    const now = JSON.parse(localStorage.getItem(kept) ?? '{"taps":0,"keys":0,"entries":0}')
    now[what] += n
    localStorage.setItem(kept, JSON.stringify(now))
  }
  // where the page has put the hand by itself
  let held: EventTarget | null = null
  setInterval(() => (held = document.activeElement), 50)
  let lastKey = -Infinity
  const byKey = () => performance.now() - lastKey < 60
  addEventListener('pointerdown', () => add('taps', 1), true)
  addEventListener(
    'keydown',
    (e) => {
      lastKey = performance.now()
      // an Enter that a test presses after it has filled a field is a key as well
      if (e.key !== 'Shift') add('keys', 1)
    },
    true,
  )
  addEventListener(
    'change',
    (e) => {
      add('entries', 1)
      if (e.target instanceof HTMLSelectElement && !byKey()) add('taps', 2)
    },
    true,
  )
  addEventListener(
    'input',
    (e) => {
      const field = e.target
      const typed =
        field instanceof HTMLTextAreaElement ||
        (field instanceof HTMLInputElement && !['radio', 'checkbox'].includes(field.type))
      // a field that has not got the hand already is tapped, and its letters are typed
      if (!typed || byKey()) return
      add('taps', field === held ? 0 : 1)
      add('keys', field.value.length)
    },
    true,
  )
}

/** What was counted so far. */
export const counted = (page: Page): Promise<Counted> =>
  page.evaluate((kept) => JSON.parse(localStorage.getItem(kept) ?? '{"taps":0,"keys":0,"entries":0}'), KEPT)

/** Time of a hand, s: a second a tap, a third of that a key. */
export const seconds = ({ taps, keys }: Counted): number => taps + 0.3 * keys
