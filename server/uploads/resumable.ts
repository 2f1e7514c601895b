import { MemoryLocker, Server } from '@tus/server'
import type { Request, Response } from 'express'
import { LARGEST_UPLOAD, randomToken, signedIn } from '#server/kit'
import type { Service } from '#server/kit'
import { ownerOf, Pieces } from './pieces'

export const UPLOADS_PATH = '/api/uploads'

/**
 * Answers the resumable upload protocol (tus 1.0, creation) to whoever is signed in: a photo from a phone goes on where
 * the line broke. Two lines that send to one upload at once are kept apart here by a lock, across servers by the
 * position in the database.
 */
export function resumable(service: Service): (request: Request, response: Response) => Promise<void> {
  const locker = new MemoryLocker()
  return async (request, response) => {
    const now = service.clock()
    const who = await signedIn(service.db, request, now)
    const server = new Server({
      path: UPLOADS_PATH,
      datastore: new Pieces(service.writer, ownerOf(who), now),
      locker,
      maxSize: LARGEST_UPLOAD,
      relativeLocation: true,
      allowedOrigins: () => false,
      namingFunction: randomToken,
    })
    await server.handle(request, response)
  }
}
