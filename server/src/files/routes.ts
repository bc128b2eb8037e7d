import { endpoints } from '@moray/contract/endpoints'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { paramsOf } from '../http/endpoint.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import { changeOnJob } from '../job/on-job.ts'
import { attach } from './attachments.ts'
import { remade } from './picture.ts'

const MB = 1024 * 1024
export const MOST_FILE_BYTES = 25 * MB

/** A picture opened by itself may do nothing at all, whatever is in it. */
const PICTURE_POLICY = "default-src 'none'; style-src 'none'; sandbox"

export function mountFiles(app: Hono, deps: Deps) {
  app.post(endpoints.attach.path, async (c) => {
    const { id } = paramsOf(c, endpoints.attach)
    const content = new Uint8Array(await c.req.arrayBuffer())
    if (content.byteLength === 0) throw new Refusal(422, 'empty', 'The file is empty.')
    if (content.byteLength > MOST_FILE_BYTES)
      throw new Refusal(
        413,
        'too-large',
        `The picture is larger than ${MOST_FILE_BYTES / MB} MB; take it at a lower resolution.`,
      )
    const about = {
      subject: c.req.query('subject') ?? '',
      subjectId: c.req.query('of') ?? '',
      note: (c.req.query('note') ?? '').trim(),
    }
    // before anything is locked: it takes a moment
    const picture = await remade(content)
    return c.json(
      await changeOnJob(c, deps, id, content, (at) => attach(at, deps.files, picture, content, about)),
      201,
    )
  })
  app.get(endpoints.file.path, async (c) => {
    const { hash } = paramsOf(c, endpoints.file)
    const [row] = await deps.db.query<{ type: string; made: boolean | null }>(
      'select type, made from file where hash = $1',
      [hash],
    )
    const content = row && (await deps.files.get(deps.db, hash))
    if (!content) throw notFound('File', hash)
    if (content === 'damaged')
      throw new Refusal(
        410,
        'damaged',
        'This picture is no longer what was taken: its file was changed on the disk. It is not shown; add the picture again to mend it.',
      )
    // one of an older Moray may hold what a camera wrote beside it
    const shown = row.made ? { content, type: row.type } : await remade(content)
    c.set('pictureOnly', true)
    return c.body(shown.content as Uint8Array<ArrayBuffer>, 200, {
      'content-type': shown.type,
      // the name is the content: it never changes
      'cache-control': 'private, max-age=31536000, immutable',
    })
  })
}

export { PICTURE_POLICY }
