import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { notFound, Refusal } from '../http/refusal.ts'
import { onJob } from '../jobs/on-job.ts'
import { attach } from './attachments.ts'

export const MOST_FILE_BYTES = 10 * 1024 * 1024

export function mountFiles(app: Hono, deps: Deps) {
  const write = onJob(deps)
  app.post('/api/jobs/:id/files', async (c) => {
    const content = new Uint8Array(await c.req.arrayBuffer())
    if (content.byteLength === 0) throw new Refusal(422, 'empty', 'The file is empty.')
    if (content.byteLength > MOST_FILE_BYTES)
      throw new Refusal(413, 'too-large', 'The picture is larger than 10 MB; take it at a lower resolution.')
    const about = {
      subject: c.req.query('subject') ?? '',
      subjectId: c.req.query('of') ?? '',
      note: c.req.query('note') ?? '',
    }
    return write(c, 'picture', (at) => attach(at, deps.files, content, about))
  })
  app.get('/api/files/:hash', async (c) => {
    const hash = c.req.param('hash')
    const [row] = await deps.db.query<{ type: string }>('select type from file where hash = $1', [hash])
    const content = row && deps.files.get(hash)
    if (!content) throw notFound('File', hash)
    return c.body(content, 200, {
      'content-type': row.type,
      // the name is the content: it never changes
      'cache-control': 'private, max-age=31536000, immutable',
      'content-security-policy': "default-src 'none'",
    })
  })
}
