import exifr from 'exifr'
import { describe, expect, it } from 'vitest'
import { stripPlace } from '../src/files/strip-place.ts'

/** An Exif block (big-endian TIFF) that says how the picture lies, who made it, and where. */
function exif(orientation: number): number[] {
  const tag = (id: number, type: number, count: number, value: number[]) => [
    id >> 8,
    id & 255,
    0,
    type,
    0,
    0,
    0,
    count,
    ...value,
  ]
  const at = (n: number) => [0, 0, n >> 8, n & 255]
  const ifd0 = [
    0,
    3,
    ...tag(0x0112, 3, 1, [0, orientation, 0, 0]),
    ...tag(0x013b, 2, 4, [0x59, 0x6c, 0x76, 0]),
    ...tag(0x8825, 4, 1, at(50)),
    0,
    0,
    0,
    0,
  ]
  const rational = (d: number, m: number, s: number) => [d, m, s].flatMap((n) => [...at(n), 0, 0, 0, 1])
  const gps = [
    0,
    4,
    ...tag(1, 2, 2, [0x4e, 0, 0, 0]),
    ...tag(2, 5, 3, at(104)),
    ...tag(3, 2, 2, [0x45, 0, 0, 0]),
    ...tag(4, 5, 3, at(128)),
    0,
    0,
    0,
    0,
  ]
  return [0x4d, 0x4d, 0, 42, 0, 0, 0, 8, ...ifd0, ...gps, ...rational(62, 28, 12), ...rational(6, 9, 30)]
}
const segment = (marker: number, body: number[]) => [
  0xff,
  marker,
  (body.length + 2) >> 8,
  (body.length + 2) & 255,
  ...body,
]
const EXIF_HEAD = [0x45, 0x78, 0x69, 0x66, 0, 0]
const APP0 = segment(0xe0, [0x4a, 0x46, 0x49, 0x46, 0, 1, 1, 0, 0, 1, 0, 1, 0, 0])
const SCAN = [...segment(0xda, [1, 1, 0, 0, 63, 0]), 1, 2, 3, 0xff, 0xd9]
const jpeg = (orientation: number) =>
  Uint8Array.from([
    0xff,
    0xd8,
    ...APP0,
    ...segment(0xe1, [...EXIF_HEAD, ...exif(orientation)]),
    ...segment(0xfe, [0x68, 0x69]),
    ...SCAN,
  ])

const chunk = (name: string, body: number[]) => [
  0,
  0,
  0,
  body.length,
  ...[...name].map((c) => c.charCodeAt(0)),
  ...body,
  0,
  0,
  0,
  0,
]
const riff = (name: string, body: number[]) => [
  ...[...name].map((c) => c.charCodeAt(0)),
  body.length,
  0,
  0,
  0,
  ...body,
  ...(body.length % 2 ? [0] : []),
]

describe('what a camera writes beside a picture', () => {
  it('goes, place and name alike; how the picture lies stays, and so does the picture', async () => {
    const before = jpeg(6)
    expect(await exifr.gps(Buffer.from(before))).toMatchObject({
      latitude: expect.closeTo(62.47, 2),
      longitude: expect.closeTo(6.158, 2),
    })
    const after = stripPlace(before, 'image/jpeg')
    expect(await exifr.gps(Buffer.from(after))).toBeUndefined()
    expect(await exifr.orientation(Buffer.from(after))).toBe(6)
    const text = Buffer.from(after).toString('latin1')
    expect(text).not.toContain('Ylv')
    expect([...after.slice(-SCAN.length)]).toEqual(SCAN)
    expect([...after.slice(0, 2)]).toEqual([0xff, 0xd8])
  })
  it('leaves nothing at all where the picture lies as it is', async () => {
    const after = stripPlace(jpeg(1), 'image/jpeg')
    expect(Buffer.from(after).toString('latin1')).not.toContain('Exif')
    expect([...after]).toEqual([0xff, 0xd8, ...APP0, ...SCAN])
    expect(stripPlace(after, 'image/jpeg')).toEqual(after)
  })
  it('goes out of PNG and WebP chunk by chunk', () => {
    const head = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]
    const png = [
      ...head,
      ...chunk('IHDR', [1]),
      ...chunk('eXIf', [9]),
      ...chunk('tEXt', [9, 9]),
      ...chunk('IDAT', [5]),
      ...chunk('IEND', []),
    ]
    expect([...stripPlace(Uint8Array.from(png), 'image/png')]).toEqual([
      ...head,
      ...chunk('IHDR', [1]),
      ...chunk('IDAT', [5]),
      ...chunk('IEND', []),
    ])
    const body = [
      ...riff('VP8X', [0x1c, 0, 0, 0, 0, 0, 0, 0, 0, 0]),
      ...riff('VP8 ', [1, 2, 3]),
      ...riff('EXIF', [9, 9]),
      ...riff('XMP ', [9]),
    ]
    const webp = Uint8Array.from([
      ...[...'RIFF'].map((c) => c.charCodeAt(0)),
      body.length + 4,
      0,
      0,
      0,
      ...[...'WEBP'].map((c) => c.charCodeAt(0)),
      ...body,
    ])
    const after = stripPlace(webp, 'image/webp')
    expect(after[4]).toBe(after.length - 8)
    expect(after[20]).toBe(0x10)
    expect(Buffer.from(after).toString('latin1')).not.toMatch(/EXIF|XMP/)
  })
  it.each([
    ['a JPEG that breaks off in a segment', [0xff, 0xd8, 0xff, 0xe1, 0xff, 0xff, 1, 2]],
    ['a JPEG that ends at once', [0xff, 0xd8, 0xff]],
  ])('%s comes back unchanged', (_, bytes) => {
    expect([...stripPlace(Uint8Array.from(bytes), 'image/jpeg')]).toEqual(bytes)
  })
  it('never grows a picture by more than its few bytes, nor throws, whatever the bytes are', () => {
    let state = 7
    const random = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32
    for (let i = 0; i < 500; i++)
      for (const [type, start] of [
        ['image/jpeg', [0xff, 0xd8, 0xff, 0xe1]],
        ['image/png', [0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10]],
        ['image/webp', [0x52, 0x49, 0x46, 0x46, 1, 2, 3, 4, 0x57, 0x45, 0x42, 0x50]],
      ] as const) {
        const bytes = Uint8Array.from([
          ...start,
          ...Array.from({ length: Math.floor(random() * 200) }, () => Math.floor(random() * 256)),
        ])
        expect(stripPlace(bytes, type).length).toBeLessThanOrEqual(bytes.length + 40)
      }
  })
})
