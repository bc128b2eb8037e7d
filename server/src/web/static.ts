import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs'
import { extname, join, relative, sep } from 'node:path'
import type { Context, Hono } from 'hono'
import { errorBody } from '@moray/contract/errors'

const TYPES: Record<string, string> = {
  '.html': 'text/html; charset=utf-8',
  '.js': 'text/javascript; charset=utf-8',
  '.css': 'text/css; charset=utf-8',
  '.svg': 'image/svg+xml',
  '.png': 'image/png',
  '.woff2': 'font/woff2',
  '.woff': 'font/woff',
  '.json': 'application/json',
}

/**
 * Serves the built pages. Files are read once at start; index.html gets the response's nonce each time.
 * Unknown paths get the page (the browser's router knows them), unknown assets and API paths a plain 404.
 */
export function mountWeb(app: Hono, folder: string, nonceOf: (c: Context) => string) {
  app.all('/api/*', (c) =>
    c.json(errorBody('not-found', `There is no ${c.req.method} ${c.req.path} here.`), 404),
  )
  const files = existsSync(folder) ? readAll(folder) : new Map<string, Uint8Array<ArrayBuffer>>()
  const index = files.get('/index.html')
  const page = index && new TextDecoder().decode(index)
  app.get('*', (c) => {
    const path = c.req.path
    const file = path === '/index.html' ? undefined : files.get(path)
    if (file)
      return c.body(file, 200, {
        'content-type': TYPES[extname(path)] ?? 'application/octet-stream',
        'cache-control': path.startsWith('/assets/') ? 'public, max-age=31536000, immutable' : 'no-cache',
      })
    if (path.startsWith('/assets/') || extname(path)) return c.text('Not here.', 404)
    if (page === undefined) return c.text('The pages are not built yet: npm run build.', 503)
    return c.body(page.replaceAll('%NONCE%', nonceOf(c)), 200, {
      'content-type': TYPES['.html']!,
      'cache-control': 'no-store',
    })
  })
}

function readAll(folder: string): Map<string, Uint8Array<ArrayBuffer>> {
  const files = new Map<string, Uint8Array<ArrayBuffer>>()
  for (const entry of readdirSync(folder, { recursive: true, encoding: 'utf8' })) {
    const full = join(folder, entry)
    if (!statSync(full).isFile()) continue
    files.set(`/${relative(folder, full).split(sep).join('/')}`, new Uint8Array(readFileSync(full)))
  }
  return files
}
