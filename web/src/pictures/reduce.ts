/** Longest side of a picture that is kept; sharp enough to see a pit, small enough for a workshop's line. */
const LONGEST = 2000
const QUALITY = 0.85

/** Scales a picture down in the browser and turns it the right way up; one that is small enough is sent as it is. */
export async function reducePicture(file: Blob): Promise<Blob> {
  const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' })
  const scale = LONGEST / Math.max(bitmap.width, bitmap.height)
  if (scale >= 1 && file.size < 1_500_000) return file
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(bitmap.width * Math.min(1, scale))
  canvas.height = Math.round(bitmap.height * Math.min(1, scale))
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height)
  bitmap.close()
  return new Promise((done, fail) =>
    canvas.toBlob(
      (blob) => (blob ? done(blob) : fail(new Error('The picture could not be reduced.'))),
      'image/jpeg',
      QUALITY,
    ),
  )
}
