import { test as base, type BrowserContext, type Page } from '@playwright/test'

export { expect, type Page } from '@playwright/test'

/** Somebody has said who works at this screen. */
const WHO = 'ylva'
const PERSON = 'moray.person'
/** Of the same origin as the pages, and without a script. */
const QUIET = '/api/health'

/**
 * One window for all tests of a worker, as on a bench, where nobody opens a new browser for every job: the application comes out of its store from
 * the second time on, which halves what a page costs. Each test finds it as if it were new: nothing kept, nobody listening, one tab.
 */
class Window {
  #context: BrowserContext | undefined
  #page: Page | undefined

  constructor(private readonly open: () => Promise<BrowserContext>) {}

  /** The tab, on a quiet page, with what an earlier test left in it gone. */
  async begin(): Promise<Page> {
    if (!this.#page || this.#page.isClosed()) await this.#anew()
    const [context, page] = [this.#context!, this.#page!]
    for (const other of context.pages()) if (other !== page) await other.close()
    page.removeAllListeners()
    await page.unrouteAll({ behavior: 'ignoreErrors' })
    await page.emulateMedia({ media: null, colorScheme: null, reducedMotion: 'reduce' })
    await page.setViewportSize({ width: 1280, height: 800 })
    await page.goto(QUIET)
    await context.clearCookies()
    await page.evaluate(
      ([person, who]) => {
        localStorage.clear()
        sessionStorage.clear()
        localStorage.setItem(person, who)
      },
      [PERSON, WHO] as const,
    )
    return page
  }

  get context(): BrowserContext {
    return this.#context!
  }

  async close() {
    await this.#context?.close()
    this.#context = this.#page = undefined
  }

  async #anew() {
    await this.close()
    this.#context = await this.open()
    this.#page = await this.#context.newPage()
  }
}

interface Tests {
  /** Another browser, of somebody else or of nobody; it is gone after the test. */
  another: (options?: { who?: string | null; viewport?: { width: number; height: number } }) => Promise<Page>
}

export const test = base.extend<Tests, { window: Window }>({
  window: [
    async ({ browser }, use, info) => {
      const { baseURL, contextOptions, viewport } = info.project.use
      const window = new Window(() => browser.newContext({ ...contextOptions, baseURL, viewport }))
      await use(window)
      await window.close()
    },
    { scope: 'worker' },
  ],
  page: async ({ window }, use) => {
    await use(await window.begin())
  },
  context: async ({ window, page: _ }, use) => {
    await use(window.context)
  },
  another: async ({ browser, baseURL }, use) => {
    const opened: BrowserContext[] = []
    await use(async ({ who = WHO, viewport } = {}) => {
      const named = who === null ? [] : [{ name: PERSON, value: who }]
      const context = await browser.newContext({
        storageState: { cookies: [], origins: [{ origin: baseURL!, localStorage: named }] },
        ...(viewport ? { viewport } : {}),
      })
      opened.push(context)
      return context.newPage()
    })
    for (const context of opened) await context.close()
  },
})
