import { existsSync, readFileSync } from 'node:fs'
import { extname, join } from 'node:path'
import { serveStatic } from '@hono/node-server/serve-static'
import { errorBody } from '@moray/contract/errors'
import type { Context, Hono } from 'hono'

/**
 * Serves the built pages; index.html gets the response's nonce each time.
 * Unknown paths get the page (the browser's router knows them), unknown assets and API paths a plain 404.
 */
export function mountWeb(app: Hono, folder: string, nonceOf: (c: Context) => string) {
  app.all('/api/*', (c) =>
    c.json(errorBody('not-found', `There is no ${c.req.method} ${c.req.path.slice(0, 120)} here.`), 404),
  )
  const index = join(folder, 'index.html')
  const page = existsSync(index) ? readFileSync(index, 'utf8') : undefined
  const files = serveStatic({
    root: folder,
    // compressed at build time
    precompressed: true,
    onFound: (path, c) =>
      c.header(
        'cache-control',
        path.includes('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      ),
  })
  app.get('*', async (c, next) => {
    const { path } = c.req
    const isPage = path === '/' || path === '/index.html' || extname(path) === ''
    if (!isPage || path.startsWith('/assets/')) {
      const found = await files(c, next)
      return found ?? c.text('Not here.', 404)
    }
    if (page === undefined) return c.text('The pages are not built yet: npm run build.', 503)
    return c.body(page.replaceAll('%NONCE%', nonceOf(c)), 200, {
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'no-store',
    })
  })
}
