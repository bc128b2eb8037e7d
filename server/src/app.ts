import { Hono, type MiddlewareHandler } from 'hono'
import { bodyLimit } from 'hono/body-limit'
import { compress } from 'hono/compress'
import { NONCE, secureHeaders } from 'hono/secure-headers'
import { endpoints } from '@moray/contract/endpoints'
import { allSchemas } from '@moray/contract/schemas'
import { mountCalc } from './calc/routes.ts'
import { mountCopies } from './copies/routes.ts'
import type { Deps } from './deps.ts'
import { knownDevicesOnly, stillKnown } from './devices/known-device.ts'
import { mountDevices } from './devices/routes.ts'
import { mountDrawer } from './drawer/routes.ts'
import { mountDrives } from './drives/routes.ts'
import { mountEstimates } from './estimates/routes.ts'
import { mountExchange, MOST_ZIP_BYTES } from './exchange/routes.ts'
import { mountFaults } from './faults/routes.ts'
import { MOST_FILE_BYTES, mountFiles, PICTURE_POLICY } from './files/routes.ts'
import { mountGauges } from './gauges/routes.ts'
import { mountGrades } from './grades/routes.ts'
import { onRead } from './http/endpoint.ts'
import { answerError } from './http/errors.ts'
import { sameOrigin } from './http/guards.ts'
import { Refusal } from './http/refusal.ts'
import { mountJobs } from './jobs/routes.ts'
import { mountLive } from './live/live.ts'
import { mountPeople } from './people/routes.ts'
import { mountPrivacy } from './privacy/routes.ts'
import { mountRow } from './row/routes.ts'
import { mountSearch } from './search/routes.ts'
import { mountSetting } from './setting/routes.ts'
import { mountShop } from './shop/routes.ts'
import { mountScope } from './scope/routes.ts'
import { mountSteps } from './steps/routes.ts'
import { mountUnits } from './units/routes.ts'
import { mountWeb } from './web/static.ts'

export interface AppOptions {
  /** Folder of the built pages. */
  webFolder: string
  /** Folder of the shop. */
  data: string
  /** Version of this Moray. */
  moray: string
  /** The published schema of a job, read when it is needed. */
  jobSchema: () => object
  /** Host names besides this machine's own that may be used. */
  hosts?: string[]
  /** Port that is listened on, and whether beyond this machine. */
  reachable?: { port: () => number; beyond: boolean }
  /** A port for a proxy on this machine: whatever comes in there has to be paired, also where the proxy leaves no trace. */
  proxyPort?: number
  /** How the database answered when it was last asked; asked by the way, so that a busy one does not silence us. */
  databaseAnswers?: () => boolean
}

declare module 'hono' {
  interface ContextVariableMap {
    /** The answer is a picture that may do nothing when it is opened by itself. */
    pictureOnly: boolean
  }
}

const KB = 1024

/** The whole HTTP side, without a socket; tests call `app.request`. */
export function createApp(deps: Deps, options: AppOptions): Hono {
  const app = new Hono()
  app.onError((e, c) => answerError(e, c, deps.log))
  app.use(pictures)
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
      permissionsPolicy: { geolocation: [], microphone: [], payment: [], usb: [] },
      referrerPolicy: 'no-referrer',
      strictTransportSecurity: false,
      xFrameOptions: 'DENY',
    }),
  )
  app.use('/api/*', compress({ encoding: 'gzip' }))
  app.use(sameOrigin(options.hosts ?? []))
  app.use('/api/*', knownDevicesOnly(deps.db, deps.now, options.proxyPort))
  const [stranger, usual] = [limit(2 * KB), limit(256 * KB)]
  const [calculation, picture, zip] = [limit(2048 * KB), limit(MOST_FILE_BYTES + KB), limit(MOST_ZIP_BYTES)]
  app.use('/api/*', (c, next) => {
    const { path } = c.req
    // whoever is not let in yet has a code and a name to say
    if (path === endpoints.pairDevice.path) return stranger(c, next)
    // it is counted while it comes, against what the disk has room for
    if (path === endpoints.sendCopy.path) return next()
    if (path === endpoints.bringForeign.path) return zip(c, next)
    if (path.startsWith('/api/calc/') || path === endpoints.importSheet.path) return calculation(c, next)
    return /^\/api\/jobs\/[^/]+\/files$/.test(path) ? picture(c, next) : usual(c, next)
  })

  app.use('/api/*', (c, next) => {
    c.set('checkElsewhere', deps.calc.check)
    return next()
  })

  onRead(app, endpoints.health, () =>
    Promise.resolve({
      ok: true,
      database: options.databaseAnswers?.() === false ? 'silent' : 'answers',
    } as const),
  )
  onRead(app, endpoints.schemas, () => Promise.resolve(allSchemas()))
  mountLive(app, deps.live, deps.db, (c) => stillKnown(deps.db, c))
  mountPeople(app, deps)
  mountJobs(app, deps)
  mountSteps(app, deps)
  mountScope(app, deps)
  mountSetting(app, deps)
  mountRow(app, deps)
  mountGrades(app, deps)
  mountEstimates(app, deps)
  mountFaults(app, deps)
  mountFiles(app, deps)
  mountShop(app, deps)
  mountCopies(app, deps, options.data)
  mountExchange(app, deps, options)
  mountPrivacy(app, deps)
  mountSearch(app, deps)
  mountUnits(app, deps)
  mountDevices(app, deps, options.reachable ?? { port: () => 0, beyond: false })
  mountDrawer(app, deps)
  mountGauges(app, deps)
  mountDrives(app, deps)
  mountCalc(app, deps.calc)
  mountWeb(app, options.webFolder, (c) => c.get('secureHeadersNonce') ?? '')
  return app
}

/** Runs outside the general headers, which would overwrite a picture's own stricter policy. */
const pictures: MiddlewareHandler = async (c, next) => {
  await next()
  if (c.get('pictureOnly')) c.header('content-security-policy', PICTURE_POLICY)
}

/** Refuses bodies above `maxSize` bytes, by their stated length or while they arrive. */
const limit = (maxSize: number) =>
  bodyLimit({
    maxSize,
    onError: () => {
      throw new Refusal(
        413,
        'too-large',
        `The body is larger than ${Math.round(maxSize / KB)} kB, the most that is taken here.`,
      )
    },
  })
