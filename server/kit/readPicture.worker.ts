import sharp from 'sharp'

export interface ReadPicture {
  content: Uint8Array
  width: number
  height: number
  /** A small copy for lists. */
  thumb: Uint8Array
}

const LONGEST_SIDE = 1_800
const THUMB_SIDE = 320
const MOST_PIXELS = 60_000_000

/** A picture decoded and written anew, upright, without position data, with a small copy; null when it is none that can be read. */
export default async function readPicture(sent: Uint8Array): Promise<ReadPicture | null> {
  try {
    const image = sharp(sent, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    const { format } = await image.metadata()
    if (!['jpeg', 'png', 'webp', 'heif', 'gif', 'avif'].includes(format)) return null
    const { data, info } = await image
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true })
    const thumb = await sharp(data).resize({ width: THUMB_SIDE, height: THUMB_SIDE, fit: 'inside', withoutEnlargement: true }).jpeg({ quality: 74 }).toBuffer()
    return { content: new Uint8Array(data), width: info.width, height: info.height, thumb: new Uint8Array(thumb) }
  } catch {
    return null
  }
}
