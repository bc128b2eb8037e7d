import type { Context } from 'hono'

/** A zip that the browser saves under a name. */
export const zipAnswer = (c: Context, zip: Buffer, name: string) =>
  c.body(new Uint8Array(zip), 200, {
    'content-type': 'application/zip',
    'content-disposition': `attachment; filename="${name}"`,
  })
