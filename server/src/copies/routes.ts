import { createWriteStream, rmSync } from 'node:fs'
import { statfs } from 'node:fs/promises'
import { basename, join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { ReadableStream } from 'node:stream/web'
import { endpoints } from '@moray/contract/endpoints'
import type { Copies } from '@moray/contract/copies'
import type { Context, Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { atTheMachine } from '../devices/known-device.ts'
import { onRead, onWrite } from '../http/endpoint.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import { mustBeLead } from '../request/rights.ts'
import { write } from '../request/write.ts'
import { isEmptyShop } from './into-open-shop.ts'
import { nameOf } from './names.ts'
import { halfName, sweepHalves } from './place.ts'
import { setCopies } from './settings.ts'

/** So much of the disk stays free when a copy is sent in. */
const KEPT_FREE = 512 * 1024 * 1024

/** @param data folder of the shop, where a copy that is sent in is laid down meanwhile */
export function mountCopies(app: Hono, deps: Deps, data: string) {
  const { copies } = deps
  onRead(app, endpoints.copies, () => copies.state())
  onRead(app, endpoints.copyNotice, () => copies.notice())
  onWrite(app, endpoints.makeCopy, async () => {
    if (!(await copies.begin(false))) throw busy()
    return copies.state()
  })
  onWrite(app, endpoints.setCopies, (c, _, body) =>
    write<Copies>(c, deps, {
      body: body.text,
      async work(tx, who) {
        mustBeLead(who, 'Where copies of the shop go')
        return { told: await setCopies(tx, body.checked), subject: '', reply: () => copies.state(tx) }
      },
      again: (tx) => copies.state(tx),
    }),
  )
  onWrite(app, endpoints.bringBackCopy, async (c, _, body) => {
    await mustBeEmptyHere(c, deps)
    const { name } = body.checked
    const { folder } = await copies.state()
    // a name of ours has no way out of the folder in it
    if (name !== basename(name) || !nameOf(name)) throw notFound('Copy', name.slice(0, 80))
    if (!copies.beginBringingBack(join(folder, name))) throw busy()
    return copies.state()
  })
  app.post(endpoints.sendCopy.path, async (c) => {
    await mustBeEmptyHere(c, deps)
    if (!c.req.raw.body) throw new Refusal(422, 'empty', 'The file is empty.')
    sweepHalves(data)
    const half = halfName(join(data, 'sent-copy.zip'))
    const gone = () => rmSync(half, { force: true })
    try {
      await keepStream(c.req.raw.body as ReadableStream, half, await roomIn(data))
    } catch (e) {
      gone()
      throw e
    }
    if (!copies.beginBringingBack(half, gone)) {
      gone()
      throw busy()
    }
    return c.json(await copies.state(), 201)
  })
}

const busy = () =>
  new Refusal(409, 'copying', 'A copy is being made or brought back already; wait until it is done.')

async function mustBeEmptyHere(c: Context, deps: Deps) {
  if (!atTheMachine(c))
    throw new Refusal(403, 'machine-only', 'A copy is brought back on the machine that Moray runs on.')
  if (!(await isEmptyShop(deps.db)))
    throw new Refusal(
      409,
      'not-empty',
      'This shop is not empty; nothing was changed. A copy comes back into an empty shop: stop Moray and use "npm run restore", which says what it would replace.',
    )
}

async function roomIn(folder: string): Promise<number> {
  const s = await statfs(folder)
  return Math.max(0, Number(s.bavail) * Number(s.bsize) - KEPT_FREE)
}

async function keepStream(body: ReadableStream, file: string, most: number) {
  let bytes = 0
  const counted = new Transform({
    transform(part: Buffer, _, done) {
      bytes += part.byteLength
      if (bytes > most)
        done(
          new Refusal(
            413,
            'too-large',
            'The file is larger than what is free on the disk; nothing was kept.',
          ),
        )
      else done(null, part)
    },
  })
  await pipeline(Readable.fromWeb(body), counted, createWriteStream(file, { mode: 0o600, flags: 'wx' }))
  if (bytes === 0) throw new Refusal(422, 'empty', 'The file is empty.')
}
