import { Hono } from 'hono'
import { compress } from 'hono/compress'
import { NONCE, secureHeaders } from 'hono/secure-headers'
import { routes } from '@moray/contract/routes'
import { mountCalc } from './calc/routes.ts'
import type { Deps } from './deps.ts'
import { mountDrawer } from './drawer/routes.ts'
import { mountDrives } from './drives/routes.ts'
import { mountEstimates } from './estimates/routes.ts'
import { mountFaults } from './faults/routes.ts'
import { MOST_FILE_BYTES, mountFiles } from './files/routes.ts'
import { mountGauges } from './gauges/routes.ts'
import { mountGrades } from './grades/routes.ts'
import { answerError } from './http/errors.ts'
import { bodyLimit, sameOrigin } from './http/guards.ts'
import { mountJobs } from './jobs/routes.ts'
import { mountLive } from './live/live.ts'
import { mountPeople } from './people/routes.ts'
import { mountRoute } from './route/routes.ts'
import { mountShop } from './shop/routes.ts'
import { mountTray } from './tray/routes.ts'
import { mountWeb } from './web/static.ts'

export interface AppOptions {
  /** Folder of the built pages. */
  webFolder: string
  /** Host names besides this machine's own that may be used. */
  hosts?: string[]
}

const KB = 1024

/** The whole HTTP side, without a socket; tests call `app.request`. */
export function createApp(deps: Deps, options: AppOptions): Hono {
  const app = new Hono()
  app.onError((e, c) => answerError(e, c, deps.log))
  app.use(
    secureHeaders({
      contentSecurityPolicy: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", NONCE],
        fontSrc: ["'self'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
      },
      crossOriginOpenerPolicy: 'same-origin',
      referrerPolicy: 'no-referrer',
      strictTransportSecurity: false,
      xFrameOptions: 'DENY',
    }),
  )
  app.use(sameOrigin(options.hosts ?? []))
  // a little above what a picture may have, so that it is refused by name and not by its stream
  const limitOf = (path: string) =>
    path.startsWith('/api/calc/')
      ? 2048 * KB
      : /^\/api\/jobs\/[^/]+\/files$/.test(path)
        ? MOST_FILE_BYTES + KB
        : 256 * KB
  app.use('/api/*', (c, next) => bodyLimit(limitOf(c.req.path))(c, next))
  app.use(async (c, next) => (c.req.path === routes.live ? next() : compress()(c, next)))

  app.get(routes.health, async (c) => {
    await deps.db.query('select 1')
    return c.json({ ok: true })
  })
  mountLive(app, deps.live)
  mountPeople(app, deps)
  mountJobs(app, deps)
  mountRoute(app, deps)
  mountTray(app, deps)
  mountGrades(app, deps)
  mountEstimates(app, deps)
  mountFaults(app, deps)
  mountFiles(app, deps)
  mountShop(app, deps)
  mountDrawer(app, deps)
  mountGauges(app, deps)
  mountDrives(app, deps)
  mountCalc(app)
  mountWeb(app, options.webFolder, (c) => c.get('secureHeadersNonce') ?? '')
  return app
}
