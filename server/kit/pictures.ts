import { refuse } from '#core/kit'
import type { ReadPicture } from './readPicture.worker'
import { inThread } from './threads'
import { contentOf } from './uploads'
import type { SentFile } from './uploads'

export interface Picture {
  content: Buffer
  mime: 'image/jpeg'
  width: number
  height: number
  thumb: Buffer
}

const read = inThread<Uint8Array, ReadPicture | null>('readPicture.worker')

/**
 * A picture as it is kept: decoded and written anew, upright, without position data, with a small
 * copy. The content decides what it is, never its name. One after the other, in a thread of its own:
 * a heap of photos makes their senders wait, not the desk.
 *
 * @throws Refusal at field "file" when it is not a picture that can be read
 */
export async function readPicture(file: SentFile | undefined): Promise<Picture> {
  if (!file) refuse('file_missing', 'Choose a photo to send.', 'file')
  const picture = await read(new Uint8Array(await contentOf(file)))
  if (!picture) refuse('not_a_picture', 'This is not a picture we can read. Send a JPEG, PNG or WebP.', 'file')
  return { ...picture, content: Buffer.from(picture.content), thumb: Buffer.from(picture.thumb), mime: 'image/jpeg' }
}
