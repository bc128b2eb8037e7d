import { rmSync } from 'node:fs'
import { writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { endpoints } from '@moray/contract/endpoints'
import type { ForeignHead } from '@moray/contract/found'
import type { Hono } from 'hono'
import { halfName, sweepHalves } from '../copies/place.ts'
import { atOneMoment } from '../db/at-one-moment.ts'
import type { Deps } from '../deps.ts'
import { ZipError } from '../files/read-zip.ts'
import { onRead, paramsOf, rowId } from '../http/endpoint.ts'
import { Refusal } from '../http/refusal.ts'
import { write } from '../request/write.ts'
import { foreignHead } from './foreign-head.ts'
import { foreignFile, keepForeign } from './foreign.ts'
import { jobFile } from './job-file.ts'
import { jobZip, zipName } from './job-zip.ts'
import { readJobZip, type ForeignJob } from './read-job-zip.ts'
import { zipAnswer } from './zip-answer.ts'

export const MOST_ZIP_BYTES = 256 * 1024 * 1024

/** @param where folder of the shop, version of this Moray, and the published schema of a job */
export function mountExchange(
  app: Hono,
  deps: Deps,
  where: { data: string; moray: string; jobSchema: () => object },
) {
  const { db, files } = deps
  app.get(endpoints.jobZip.path, async (c) => {
    const { id } = paramsOf(c, endpoints.jobZip)
    const { file, zip } = await atOneMoment(db, async (tx) => {
      const made = await jobFile(tx, id, where.moray, deps.now())
      return { file: made, zip: await jobZip(tx, files, made) }
    })
    return zipAnswer(c, zip, zipName(file))
  })
  onRead(app, endpoints.foreignJobs, () => foreignHead(db))
  onRead(app, endpoints.foreignJob, (_, { id }) => foreignFile(db, rowId('Record', id)))
  app.post(endpoints.bringForeign.path, async (c) => {
    const content = new Uint8Array(await c.req.arrayBuffer())
    const came = await readSent(content, where)
    const reply = await write<ForeignHead[]>(c, deps, {
      body: content,
      work: async (tx, who) => ({
        told: (await keepForeign(tx, files, came, who)).told,
        subject: '',
        reply: () => foreignHead(tx),
      }),
      again: (tx) => foreignHead(tx),
    })
    return c.json(reply as object, 201)
  })
}

/** A zip is read by its list, which stands at its end: it is laid down meanwhile. */
async function readSent(
  content: Uint8Array,
  where: { data: string; jobSchema: () => object },
): Promise<ForeignJob> {
  if (!content.byteLength) throw new Refusal(422, 'empty', 'The file is empty.')
  sweepHalves(where.data)
  const half = halfName(join(where.data, 'sent-job.zip'))
  try {
    await writeFile(half, content, { mode: 0o600 })
    return await readJobZip(half, where.jobSchema())
  } catch (e) {
    if (e instanceof ZipError) throw new Refusal(422, 'bad-zip', `Nothing was taken: ${e.message}.`)
    throw e
  } finally {
    rmSync(half, { force: true })
  }
}
