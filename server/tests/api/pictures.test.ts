import { performance as nodePerformance } from 'node:perf_hooks'
import type { JobReply } from '@moray/contract/replies'
import sharp from 'sharp'
import { beforeAll, describe, expect, it } from 'vitest'
import { hashOf } from '../../src/files/file-store.ts'
import { remade } from '../../src/files/picture.ts'
import { testApp, type TestApp } from '../test-app.ts'

/** What no picture that is served may hold. */
const SECRET = 'PLACE-59.9139N-10.7522E'
const secret = Buffer.from(SECRET)
const TAKEN = '2026:11:28 14:05:09'

let plain: { jpeg: Buffer; png: Buffer; webp: Buffer; gif: Buffer }
beforeAll(async () => {
  const made = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#8a3b12' } })
  plain = {
    jpeg: await made()
      .withExif({ IFD0: { Copyright: SECRET }, IFD2: { DateTimeOriginal: TAKEN } })
      .jpeg()
      .toBuffer(),
    png: await made().png().toBuffer(),
    webp: await made()
      .withExif({ IFD0: { Copyright: SECRET } })
      .webp()
      .toBuffer(),
    gif: await made().gif().toBuffer(),
  }
})

/** A segment of a JPEG, put in behind its beginning. */
function withSegment(marker: number, text: Buffer, { fill = 0, length = text.length + 2 } = {}): Buffer {
  const head = Buffer.from([0xff, marker, length >> 8, length & 0xff])
  return Buffer.concat([
    plain.jpeg.subarray(0, 2),
    Buffer.alloc(fill, 0xff),
    head,
    text,
    plain.jpeg.subarray(2),
  ])
}
/** A chunk of a PNG, put in before its end. */
function withChunk(name: string, text: Buffer): Buffer {
  const chunk = Buffer.alloc(12 + text.length)
  chunk.writeUInt32BE(text.length, 0)
  chunk.write(name, 4, 'latin1')
  text.copy(chunk, 8)
  const end = plain.png.length - 12
  return Buffer.concat([plain.png.subarray(0, end), chunk, plain.png.subarray(end)])
}
const exif = Buffer.concat([Buffer.from('Exif\0\0II*\0\x08\0\0\0\0\0\0\0\0\0', 'latin1'), secret])

/** Ways in which a place, or anything else, hides in a picture. */
const HIDDEN: Record<string, () => Buffer> = {
  'in Exif': () => plain.jpeg,
  'in Exif behind fill bytes': () => withSegment(0xe1, exif, { fill: 3 }),
  'in a list of further pictures': () => withSegment(0xe2, Buffer.concat([Buffer.from('MPF\0'), secret])),
  'in APP4': () => withSegment(0xe4, secret),
  'in APP11': () => withSegment(0xeb, secret),
  'in APP13': () => withSegment(0xed, secret),
  'in a comment': () => withSegment(0xfe, secret),
  'in a segment that is longer than the file': () => withSegment(0xe1, exif, { length: 65_000 }),
  'behind the end, as a film': () => Buffer.concat([plain.jpeg, Buffer.from('ftypmp42'), secret]),
  'in a second picture behind the end': () => Buffer.concat([plain.jpeg, plain.jpeg, secret]),
  'in a text of a PNG': () => withChunk('tEXt', Buffer.concat([Buffer.from('GPS\0'), secret])),
  'in the provenance of a PNG': () => withChunk('caBX', secret),
  'behind the end of a PNG': () => Buffer.concat([plain.png, secret]),
  'in a WebP': () => plain.webp,
  'in a comment of a GIF': () =>
    Buffer.concat([
      plain.gif.subarray(0, plain.gif.length - 1),
      Buffer.from([0x21, 0xfe, secret.length]),
      secret,
      Buffer.from([0, 0x3b]),
    ]),
}

const send = (app: TestApp, content: Buffer, job = 'lomvi-skarv', query = 'subject=job') =>
  app.request(`/api/jobs/${job}/files?${query}`, {
    method: 'POST',
    headers: { 'x-moray-person': 'ylva', 'content-type': 'application/octet-stream' },
    body: content as BodyInit,
  })
const served = async (app: TestApp, hash: string) =>
  Buffer.from(await (await app.request(`/api/files/${hash}`)).arrayBuffer())

describe('a picture', () => {
  it.each(Object.keys(HIDDEN))('is served without what was hidden %s, or refused', async (where) => {
    const app = await testApp()
    const file = HIDDEN[where]!()
    expect(file.includes(SECRET)).toBe(true)
    const r = await send(app, file)
    expect([201, 415]).toContain(r.status)
    if (r.status === 415) return
    const { attachments } = (await r.json()) as JobReply
    const shown = await served(app, attachments.at(-1)!.hash)
    expect(shown.includes(SECRET)).toBe(false)
    // and it is the picture still
    expect(await sharp(shown).metadata()).toMatchObject({ width: 60, height: 40 })
  })
  it('of an older Moray is made anew each time it is shown', async () => {
    const app = await testApp()
    const hash = await app.db.transaction(async (tx) => {
      const kept = await app.deps.files.put(tx, plain.jpeg)
      await tx.query('insert into file (hash, type, bytes, at) values ($1, $2, $3, now())', [
        kept,
        'image/jpeg',
        plain.jpeg.length,
      ])
      return kept
    })
    const shown = await served(app, hash)
    expect(shown.includes(SECRET)).toBe(false)
    expect(await sharp(shown).metadata()).toMatchObject({ width: 60, height: 40, format: 'jpeg' })
  })
  it('stands upright whichever way the camera was held, and is no larger than a screen needs', async () => {
    const held = await sharp({ create: { width: 3000, height: 1000, channels: 3, background: '#123' } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
    const { content } = await remade(held)
    expect(await sharp(content).metadata()).toMatchObject({ width: 667, height: 2000 })
  })
  it('keeps what its file was: hash, size, and when it was taken', async () => {
    const app = await testApp()
    expect((await send(app, plain.jpeg)).status).toBe(201)
    const [row] = await app.db.query<{ came: object }>(
      "select came from attachment where job_id = 'lomvi-skarv' order by id desc limit 1",
    )
    expect(row!.came).toEqual({
      hash: hashOf(plain.jpeg),
      type: 'image/jpeg',
      bytes: plain.jpeg.length,
      taken: TAKEN,
    })
    // the file itself is not kept
    expect(await app.deps.files.get(app.db, hashOf(plain.jpeg))).toBeUndefined()
  })
  it('of a drive that was struck is kept as it came besides, and never served', async () => {
    const app = await testApp()
    const opened = await app.post<JobReply>('/api/jobs', {
      sheetId: 'teist-6',
      serial: 'T-1',
      boat: 'Terna',
      owner: 'Vik',
      water: 'salt',
      complaint: 'hit a log',
      scope: { usual: 'strike' },
    })
    expect(opened.status, JSON.stringify(opened.body).slice(0, 300)).toBe(201)
    const job = opened.body.id
    expect((await send(app, plain.jpeg, job)).status).toBe(201)
    const original = hashOf(plain.jpeg)
    expect(Buffer.from((await app.deps.files.get(app.db, original)) as Uint8Array)).toEqual(plain.jpeg)
    const [row] = await app.db.query<{ job_id: string }>('select job_id from original where hash = $1', [
      original,
    ])
    expect(row!.job_id).toBe(job)
    expect((await app.request(`/api/files/${original}`)).status).toBe(404)
  })
  it('of hundreds of thousands of pieces holds nobody up', async () => {
    const chunk = withChunk('teSt', Buffer.alloc(0)).subarray(plain.png.length - 12, plain.png.length)
    const end = plain.png.length - 12
    const many = Buffer.concat([
      plain.png.subarray(0, end),
      Buffer.concat(Array<Buffer>(750_000).fill(chunk)),
      plain.png.subarray(end),
    ])
    const before = nodePerformance.eventLoopUtilization()
    await remade(many).catch(() => undefined)
    // what takes long is done beside the server's own thread
    expect(nodePerformance.eventLoopUtilization(before).active).toBeLessThan(500)
  })
  it('names something that the job has: any other text is no place for it', async () => {
    const app = await testApp()
    for (const of of ['%00', '%EF%BF%BF', 'anything', 'x'.repeat(5000)])
      expect((await send(app, plain.png, 'lomvi-skarv', `subject=job&of=${of}`)).status, of).toBe(422)
  })
})
