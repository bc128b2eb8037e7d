import { test as base, type BrowserContext, type Page } from '@playwright/test'
import { goTo, isOpen, NOWHERE } from '../pages.ts'
import { startServer, type Server } from '../servers.ts'

export { expect, type Page } from '@playwright/test'

/** Somebody has said who works at this screen. */
const WHO = 'ylva'
const PERSON = 'moray.person'
/** Of the same origin as the pages, and without a script. */
const QUIET = '/api/health'

/**
 * One window for all tests of a worker, as on a bench, where nobody opens a new browser for every job, nor loads the application anew. Each test
 * finds nothing kept in it, nobody listening, one tab, and no place open that another test was at. What has to be loaded anew is: `page.goto`.
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
    if (await isOpen(page)) await goTo(page, NOWHERE)
    else await page.goto(QUIET)
    // where little is shown, little is laid out anew
    await page.emulateMedia({ media: null, colorScheme: null, reducedMotion: 'reduce' })
    await page.setViewportSize({ width: 1280, height: 800 })
    await context.clearCookies()
    await page.evaluate(
      ([person, who]) => {
        localStorage.clear()
        sessionStorage.clear()
        localStorage.setItem(person, who)
        // an application that is open hears of it as it would from another tab
        for (const change of [{}, { key: person, newValue: who }])
          window.dispatchEvent(new StorageEvent('storage', { ...change, storageArea: localStorage }))
      },
      [PERSON, WHO] as const,
    )
    // what is still asked was asked of another test
    if (await page.getByRole('dialog').isVisible()) await page.goto(QUIET)
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

/** What a browser remembers in which somebody has said who works at it; nobody has where that is null. */
const remembers = (url: string, who: string | null = WHO) => ({
  cookies: [],
  origins: [{ origin: url, localStorage: who === null ? [] : [{ name: PERSON, value: who }] }],
})

interface Tests {
  /** Another server, with settings of its own, that begins anew or with the demo; it is gone after the test. @returns its address */
  server: (env: Record<string, string>, shop?: 'demo') => Promise<string>
  /** Another browser, of somebody else or of nobody; it is gone after the test. */
  another: (options?: { who?: string | null; viewport?: { width: number; height: number } }) => Promise<Page>
}

interface Workers {
  /** The shop of this worker, with a server of its own: what is done in it is seen by no other worker. A test that failed leaves it to nobody. */
  shop: Server
  window: Window
}

export const test = base.extend<Tests, Workers>({
  shop: [
    async ({ browserName: _ }, use) => {
      const shop = await startServer({}, process.env.MORAY_TEST_SHOP!)
      await use(shop)
      await shop.end()
    },
    { scope: 'worker', timeout: 240_000 },
  ],
  baseURL: async ({ shop }, use) => {
    await use(shop.url)
  },
  window: [
    async ({ browser, shop }, use, info) => {
      const { contextOptions, viewport } = info.project.use
      const window = new Window(() => browser.newContext({ ...contextOptions, baseURL: shop.url, viewport }))
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
      const context = await browser.newContext({
        storageState: remembers(baseURL!, who),
        ...(viewport ? { viewport } : {}),
      })
      opened.push(context)
      return context.newPage()
    })
    for (const context of opened) await context.close()
  },
  server: async ({ browserName: _ }, use) => {
    const started: Server[] = []
    await use(async (env, shop) => {
      const server = await startServer(env, shop && process.env.MORAY_TEST_SHOP)
      started.push(server)
      return server.url
    })
    await Promise.all(started.map((server) => server.end()))
  },
})
