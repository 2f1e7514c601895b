import { createHash, randomUUID } from 'node:crypto'
import { createReadStream, mkdirSync } from 'node:fs'
import { readdir, readFile, rm, stat } from 'node:fs/promises'
import path from 'node:path'
import { pipeline } from 'node:stream/promises'
import type { Request, Response } from 'express'
import multer from 'multer'
import { unavailability } from './database'
import { ProblemReply } from './problems'
import type { Service } from './service'

export const LARGEST_UPLOAD = 15 * 1024 * 1024

/** A file as it was sent: on disk while it is looked at, or in memory when it came by mail. */
export interface SentFile {
  path?: string
  buffer?: Buffer
  originalname: string
  mimetype: string
}

const folderOf = (service: Pick<Service, 'config'>) => path.join(service.config.dataDir, 'uploads')

/**
 * Takes the one file of a multipart request to disk. Called once it is known that its sender may send it;
 * nothing of it is read before.
 *
 * @throws MulterError, or ProblemReply when what was sent is no whole multipart body
 */
export async function receiveFile(service: Service, request: Request, response: Response): Promise<void> {
  const folder = folderOf(service)
  mkdirSync(folder, { recursive: true })
  const take = multer({
    storage: multer.diskStorage({ destination: folder, filename: (_request, _file, named) => named(null, randomUUID()) }),
    limits: { fileSize: LARGEST_UPLOAD, files: 1, fields: 0 },
  }).single('file')
  await new Promise<void>((resolve, reject) => {
    const cut = () => reject(cutOff())
    request.once('aborted', cut)
    take(request, response, (error: unknown) => {
      request.off('aborted', cut)
      if (!error) resolve()
      else reject(error instanceof multer.MulterError || unavailability(error) ? (error as Error) : cutOff())
    })
  })
}

const cutOff = () =>
  new ProblemReply(400, 'The file was not taken', 'It did not arrive whole. Nothing was saved; send it again.', {
    reasons: [{ code: 'cut_off', sentence: 'It did not arrive whole. Send it again.', field: 'file' }],
  })

/** What was taken to disk for a request is gone when it is answered. */
export async function dropReceived(request: Request): Promise<void> {
  if (request.file?.path) await rm(request.file.path, { force: true })
}

export const contentOf = async (file: SentFile): Promise<Buffer> => file.buffer ?? (await readFile(file.path!))

/** SHA-256 of what was sent, in hex. */
export async function fingerprintOf(file: SentFile): Promise<string> {
  const hash = createHash('sha256')
  if (file.buffer) hash.update(file.buffer)
  else await pipeline(createReadStream(file.path!), hash)
  return hash.digest('hex')
}

/** Removes what a server that died left behind. @param before files older than this, by the system's clock */
export async function sweepUploads(service: Service, before: Date): Promise<void> {
  const folder = folderOf(service)
  for (const name of await readdir(folder).catch(() => [])) {
    const file = path.join(folder, name)
    const found = await stat(file).catch(() => null)
    if (found && found.mtime < before) await rm(file, { force: true })
  }
}
