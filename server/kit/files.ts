import path from 'node:path'
import { fileTypeFromBuffer } from 'file-type'
import { cleanText, refuse } from '#core/kit'
import { readPicture } from './pictures'
import { contentOf } from './uploads'
import type { SentFile } from './uploads'

/** A file as it is kept. */
export interface KeptContent {
  kind: 'picture' | 'document'
  name: string
  mime: string
  width: number | null
  height: number | null
  bytes: number
  content: Buffer
  thumb: Buffer | null
}

const NAMED_AS_PICTURE = /\.(jpe?g|png|gif|webp|heic|heif|avif|bmp|tiff?)$/i

/**
 * What was sent, ready to be kept. The content decides what it is: a picture is written anew without
 * position data and gets a small copy; anything else is kept as it came and is only ever downloaded.
 *
 * @throws Refusal at field "file" when there is none, it is empty, or what calls itself a picture is not one
 */
export async function readFileSent(sent: SentFile | undefined, givenName?: string): Promise<KeptContent> {
  if (!sent) refuse('file_missing', 'Choose a file to send.', 'file')
  const buffer = await contentOf(sent)
  if (!buffer.length) refuse('file_empty', 'The file is empty. Choose another.', 'file')
  const name = plainFileName(givenName || sent.originalname)
  const found = await fileTypeFromBuffer(buffer)
  if (found?.mime.startsWith('image/') || NAMED_AS_PICTURE.test(name) || (!found && /^image\/(?!svg)/.test(sent.mimetype))) {
    const picture = await readPicture(sent)
    return { kind: 'picture', name: `${path.parse(name).name || 'photo'}.jpg`, ...picture, bytes: picture.content.length }
  }
  return {
    kind: 'document',
    name,
    mime: found?.mime ?? 'application/octet-stream',
    width: null,
    height: null,
    bytes: buffer.length,
    content: buffer,
    thumb: null,
  }
}

/** A file name that is nothing but a name: no folders, no control characters, at most 120 characters. */
export function plainFileName(name: string): string {
  const last = name.split(/[\\/]/).at(-1)!
  const clean = cleanText(last)
    .replace(/[\p{Cc}\p{Zl}\p{Zp}\u200E\u200F"<>|:*?]/gu, '')
    .trim()
    .replace(/^\.+/, '')
  const { name: stem, ext } = path.parse(clean)
  return `${stem.slice(0, 120 - ext.length) || 'file'}${ext.slice(0, 12)}`
}
