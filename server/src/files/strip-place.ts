/**
 * Takes out of a picture what a camera writes beside it: the place, the owner, the time, a preview. How the picture lies (the
 * orientation of a JPEG) stays. What is no such picture, or breaks off, comes back unchanged.
 */
export function stripPlace(content: Uint8Array, type: string): Uint8Array {
  if (type === 'image/jpeg') return stripJpeg(content)
  if (type === 'image/png') return stripPng(content)
  if (type === 'image/webp') return stripWebp(content)
  return content
}

function join(parts: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(parts.reduce((n, p) => n + p.length, 0))
  let at = 0
  for (const p of parts) {
    all.set(p, at)
    at += p.length
  }
  return all
}

const APP1 = 0xe1
const APP13 = 0xed
const COMMENT = 0xfe
const START_OF_SCAN = 0xda

/** JPEG: segments up to the scan (ITU T.81, B.1.1); APP1 holds Exif and XMP, APP13 the captions, FE comments. */
function stripJpeg(content: Uint8Array): Uint8Array {
  const view = new DataView(content.buffer, content.byteOffset, content.byteLength)
  const kept: Uint8Array[] = [content.subarray(0, 2)]
  let orientation = 1
  let at = 2
  while (at + 4 <= content.length && content[at] === 0xff) {
    const marker = content[at + 1]!
    if (marker === START_OF_SCAN) break
    const end = at + 2 + view.getUint16(at + 2)
    if (end > content.length) return content
    if (marker === APP1) orientation = orientationOf(content.subarray(at + 4, end)) ?? orientation
    else if (marker !== APP13 && marker !== COMMENT) kept.push(content.subarray(at, end))
    at = end
  }
  if (orientation !== 1) kept.splice(1, 0, orientationSegment(orientation))
  return join([...kept, content.subarray(at)])
}

const ORIENTATION_TAG = 0x0112

/** Orientation out of an Exif block (TIFF 6.0, section 2: header, then entries of 12 bytes); undefined without one. */
function orientationOf(exif: Uint8Array): number | undefined {
  if (exif.length < 20 || String.fromCharCode(...exif.subarray(0, 4)) !== 'Exif') return undefined
  const tiff = exif.subarray(6)
  const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.byteLength)
  const little = tiff[0] === 0x49
  const first = view.getUint32(4, little)
  if (first + 2 > tiff.length) return undefined
  const count = view.getUint16(first, little)
  for (let i = 0; i < count; i++) {
    const entry = first + 2 + 12 * i
    if (entry + 12 > tiff.length) return undefined
    if (view.getUint16(entry, little) === ORIENTATION_TAG) {
      const value = view.getUint16(entry + 8, little)
      return value >= 1 && value <= 8 ? value : undefined
    }
  }
  return undefined
}

/** The smallest APP1 that says nothing but how the picture lies. */
function orientationSegment(orientation: number): Uint8Array {
  const exif = [0x45, 0x78, 0x69, 0x66, 0, 0]
  const header = [0x4d, 0x4d, 0, 42, 0, 0, 0, 8]
  const entry = [0x01, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation, 0, 0]
  const body = [...exif, ...header, 0, 1, ...entry, 0, 0, 0, 0]
  const length = body.length + 2
  return Uint8Array.from([0xff, APP1, length >> 8, length & 0xff, ...body])
}

const PNG_ASIDE = new Set(['eXIf', 'tEXt', 'zTXt', 'iTXt', 'tIME'])

/** PNG: length, name, data and sum, chunk by chunk (ISO 15948, 5.3). */
function stripPng(content: Uint8Array): Uint8Array {
  return stripChunks(
    content,
    8,
    (at, view) => {
      const length = view.getUint32(at)
      return { end: at + 12 + length, name: nameAt(content, at + 4) }
    },
    PNG_ASIDE,
  )
}

/** WebP: RIFF chunks, padded to even length; the header's length and flags are put right. */
function stripWebp(content: Uint8Array): Uint8Array {
  const stripped = stripChunks(
    content,
    12,
    (at, view) => {
      const length = view.getUint32(at + 4, true)
      return { end: at + 8 + length + (length % 2), name: nameAt(content, at) }
    },
    new Set(['EXIF', 'XMP ']),
  )
  if (stripped === content) return content
  const view = new DataView(stripped.buffer)
  view.setUint32(4, stripped.length - 8, true)
  const EXIF_AND_XMP = 0x0c
  if (nameAt(stripped, 12) === 'VP8X') stripped[20] = stripped[20]! & ~EXIF_AND_XMP
  return stripped
}

const nameAt = (content: Uint8Array, at: number) => String.fromCharCode(...content.subarray(at, at + 4))

function stripChunks(
  content: Uint8Array,
  from: number,
  chunk: (at: number, view: DataView) => { end: number; name: string },
  aside: ReadonlySet<string>,
): Uint8Array {
  const view = new DataView(content.buffer, content.byteOffset, content.byteLength)
  const kept = [content.subarray(0, from)]
  let at = from
  while (at + 8 <= content.length) {
    const { end, name } = chunk(at, view)
    if (end > content.length) break
    if (!aside.has(name)) kept.push(content.subarray(at, end))
    at = end
  }
  return join([...kept, content.subarray(at)])
}
