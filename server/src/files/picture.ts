import exifr from 'exifr'
import sharp from 'sharp'
import { Refusal } from '../http/refusal.ts'
import { hashOf } from './file-store.ts'

/** Longest side of a picture that is kept: sharp enough to see a pit, small enough for a workshop's line. */
const LONGEST = 2000
/** As many as a good phone takes; a small file can unpack to far more. */
const MOST_PIXELS = 64_000_000
const MOST_SECONDS = 20

/** What a picture file was when it came. */
export interface Came {
  /** SHA-256 of the file. */
  hash: string
  type: string
  bytes: number
  /** When it was taken, as the camera wrote it without a zone; left out where it did not say. */
  taken?: string
}

export interface Remade {
  /** The picture made anew: its pixels, upright, and nothing that was written beside them. */
  content: Uint8Array
  type: string
  came: Came
}

/** The kinds that are taken, by what is in the file and not by its name; and what each is kept as. */
const KINDS: Record<string, { type: string; kept: 'jpeg' | 'png' | 'webp' }> = {
  jpeg: { type: 'image/jpeg', kept: 'jpeg' },
  png: { type: 'image/png', kept: 'png' },
  webp: { type: 'image/webp', kept: 'webp' },
  gif: { type: 'image/gif', kept: 'png' },
}

/**
 * Makes a picture anew out of its pixels. Whatever a camera, or somebody, has put into the file beside them is left behind: the place, the owner, a
 * preview, a second picture, a film.
 * @throws Refusal 415 when it is no picture that can be read
 */
export async function remade(content: Uint8Array): Promise<Remade> {
  const source = Buffer.from(content.buffer, content.byteOffset, content.byteLength)
  const said = await saidBeside(source)
  const kind = KINDS[said?.format ?? '']
  if (!said || !kind) throw notAPicture()
  const made = await pixels(source, kind.kept)
  const taken = said.exif && (await takenAt(said.exif))
  return {
    content: made,
    type: KINDS[kind.kept]!.type,
    came: {
      hash: hashOf(content),
      type: kind.type,
      bytes: content.byteLength,
      ...(taken ? { taken } : {}),
    },
  }
}

const notAPicture = () =>
  new Refusal(
    415,
    'not-a-picture',
    'Only pictures are kept here (JPEG, PNG, WebP, GIF) that can be read whole, by what is in the file, not by its name.',
  )

/** What is said in the file beside the pixels; undefined where it cannot be read. */
async function saidBeside(source: Buffer): Promise<sharp.Metadata | undefined> {
  try {
    return await sharp(source, { limitInputPixels: MOST_PIXELS }).metadata()
  } catch {
    return undefined
  }
}

async function pixels(source: Buffer, kept: 'jpeg' | 'png' | 'webp'): Promise<Uint8Array> {
  try {
    const image = sharp(source, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
      .timeout({ seconds: MOST_SECONDS })
      .autoOrient()
      .resize({ width: LONGEST, height: LONGEST, fit: 'inside', withoutEnlargement: true })
    const encoded =
      kept === 'jpeg'
        ? image.jpeg({ quality: 88 })
        : kept === 'png'
          ? image.png({ compressionLevel: 9 })
          : image.webp({ quality: 88 })
    return await encoded.toBuffer()
  } catch {
    throw notAPicture()
  }
}

/** When the camera says that it took the picture; undefined when it does not, or not in a way that can be read. */
async function takenAt(block: Buffer): Promise<string | undefined> {
  try {
    // the block begins with its name, and what follows is a TIFF
    const tiff = block.subarray(block.subarray(0, 4).toString('latin1') === 'Exif' ? 6 : 0)
    const exif = (await exifr.parse(tiff, { pick: ['DateTimeOriginal'], reviveValues: false })) as
      | { DateTimeOriginal?: unknown }
      | undefined
    const text = exif?.DateTimeOriginal
    return typeof text === 'string' && /^[\d: ]{10,19}$/.test(text) ? text : undefined
  } catch {
    return undefined
  }
}
