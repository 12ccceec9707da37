const LONGEST_SIDE = 1600
const QUALITY = 0.82

/** A photograph made small on the device, as base64 of a JPEG. Throws with a sentence where it is no picture. */
export async function smallPicture(file: Blob): Promise<string> {
  const picture = await createImageBitmap(file).catch(() => {
    throw new Error('This is no picture that can be read here. JPEG, PNG and WebP are.')
  })
  const scale = Math.min(1, LONGEST_SIDE / Math.max(picture.width, picture.height))
  const canvas = document.createElement('canvas')
  canvas.width = Math.max(1, Math.round(picture.width * scale))
  canvas.height = Math.max(1, Math.round(picture.height * scale))
  canvas.getContext('2d')!.drawImage(picture, 0, 0, canvas.width, canvas.height)
  picture.close()
  return canvas.toDataURL('image/jpeg', QUALITY).replace(/^[^,]*,/, '')
}
