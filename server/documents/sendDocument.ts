import { Readable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { Response } from 'express'
import { storedPiecesOf } from '#server/kit'
import type { Reader } from '#server/kit'
import { guardFile, sendDownload } from '#server/orders'
import type { documentFiles } from '../tables'

/** A version as it is kept. A picture is shown; whatever else there is, the page shows it or it is saved: no browser opens it by itself. */
export async function sendDocument(db: Reader, response: Response, file: typeof documentFiles.$inferSelect, small = false): Promise<void> {
  if (file.shows !== 'picture') sendDownload(response, file.name)
  else guardFile(response).type(file.mime)
  if (small && file.thumb) response.end(file.thumb)
  else await pipeline(Readable.from(storedPiecesOf(db, file.storedId)), response)
}
