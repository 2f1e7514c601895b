import sharp from 'sharp'
import { refuse } from '#core/kit'

export interface Picture {
  content: Buffer
  mime: 'image/jpeg'
  width: number
  height: number
}

const LONGEST_SIDE = 1_800
const MOST_PIXELS = 60_000_000

/**
 * A picture as it is kept: decoded and written anew, upright, without position data. The content
 * decides what it is, never its name. Runs on sharp's own threads.
 *
 * @throws Refusal at field "file" when it is not a picture that can be read
 */
export async function readPicture(file: Express.Multer.File | undefined): Promise<Picture> {
  if (!file) refuse('file_missing', 'Choose a photo to send.', 'file')
  try {
    const image = sharp(file.buffer, { limitInputPixels: MOST_PIXELS, failOn: 'error' })
    const { format } = await image.metadata()
    if (!['jpeg', 'png', 'webp', 'heif', 'gif', 'avif'].includes(format)) throw new Error(`not taken: ${format}`)
    const { data, info } = await image
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 82 })
      .toBuffer({ resolveWithObject: true })
    return { content: data, mime: 'image/jpeg', width: info.width, height: info.height }
  } catch {
    refuse('not_a_picture', 'This is not a picture we can read. Send a JPEG, PNG or WebP.', 'file')
  }
}
