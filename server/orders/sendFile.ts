import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Response } from 'express'
import { storedPiecesOf } from '#server/kit'
import type { Reader } from '#server/kit'
import type { attachments } from '../tables'

type Kept = typeof attachments.$inferSelect

/** Sends a kept file so that no browser can take it for anything else: pictures are shown, documents only downloaded. */
export async function sendFile(db: Reader, response: Response, file: Kept, small = false): Promise<void> {
  if (file.kind === 'document') sendDownload(response, file.name)
  else guardFile(response).setHeader('Content-Type', file.mime)
  if (small && file.thumb) response.end(file.thumb)
  else if (file.storedId) await pipeline(Readable.from(storedPiecesOf(db, file.storedId)), response)
  else response.end(file.content)
}

/** The head of an answer that is only ever downloaded, under this name. */
export function sendDownload(response: Response, name: string): void {
  guardFile(response).attachment(name).type('application/octet-stream')
}

/** No browser guesses what a file is, or runs anything in it. */
export function guardFile(response: Response): Response {
  response.setHeader('X-Content-Type-Options', 'nosniff')
  response.setHeader('Content-Security-Policy', "default-src 'none'; sandbox")
  response.setHeader('Cache-Control', 'private, max-age=3600')
  return response
}
