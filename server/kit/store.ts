import { createHash } from 'node:crypto'
import { and, asc, eq } from 'drizzle-orm'
import { storedFiles, storedPieces } from '../tables'
import type { Reader, Tx } from './database'

const PIECE_BYTES = 1024 * 1024

export interface StoredFile {
  id: number
  bytes: number
  /** SHA-256 in hex. */
  checksum: string
}

/**
 * Keeps a file of any length in pieces, as it comes, in the transaction of what it belongs to. It lies in
 * the database, where every server finds it. `watch` sees each piece of the stream on its way.
 */
export async function storeFile(tx: Tx, stream: AsyncIterable<Buffer> | Iterable<Buffer>, now: Date, watch?: (chunk: Buffer) => void): Promise<StoredFile> {
  const [row] = await tx.insert(storedFiles).values({ bytes: 0, checksum: '', at: now }).$returningId()
  const { id } = row!
  const hash = createHash('sha256')
  let [bytes, position, waiting] = [0, 0, 0]
  let chunks: Buffer[] = []
  const write = async () => {
    if (waiting) await tx.insert(storedPieces).values({ fileId: id, position: position++, content: Buffer.concat(chunks) })
    chunks = []
    waiting = 0
  }
  for await (const chunk of stream) {
    watch?.(chunk)
    hash.update(chunk)
    bytes += chunk.length
    for (let at = 0; at < chunk.length; at += PIECE_BYTES) {
      const part = chunk.subarray(at, at + PIECE_BYTES)
      if (waiting + part.length > PIECE_BYTES) await write()
      chunks.push(part)
      waiting += part.length
    }
  }
  await write()
  const checksum = hash.digest('hex')
  await tx.update(storedFiles).set({ bytes, checksum }).where(eq(storedFiles.id, id))
  return { id, bytes, checksum }
}

/** The pieces of a kept file in order. @throws Error when what comes out is not what went in */
export async function* storedPiecesOf(db: Reader, fileId: number): AsyncGenerator<Buffer> {
  const [file] = await db.select().from(storedFiles).where(eq(storedFiles.id, fileId))
  if (!file) throw new Error(`There is no kept file ${fileId}.`)
  const hash = createHash('sha256')
  const positions = await db
    .select({ position: storedPieces.position })
    .from(storedPieces)
    .where(eq(storedPieces.fileId, fileId))
    .orderBy(asc(storedPieces.position))
  for (const { position } of positions) {
    const [piece] = await db
      .select({ content: storedPieces.content })
      .from(storedPieces)
      .where(and(eq(storedPieces.fileId, fileId), eq(storedPieces.position, position)))
    hash.update(piece!.content)
    yield piece!.content
  }
  if (hash.digest('hex') !== file.checksum) throw new Error(`The kept file ${fileId} is damaged: its checksum is another.`)
}

/** A kept file as a whole, or its beginning. @throws Error when it is damaged */
export async function readStored(db: Reader, fileId: number, most = Infinity): Promise<Buffer> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const piece of storedPiecesOf(db, fileId)) {
    chunks.push(piece)
    size += piece.length
    if (size >= most) break
  }
  return Buffer.concat(chunks).subarray(0, Number.isFinite(most) ? most : undefined)
}

export async function bytesStored(db: Reader, fileId: number): Promise<number> {
  const [file] = await db.select({ bytes: storedFiles.bytes }).from(storedFiles).where(eq(storedFiles.id, fileId))
  return file?.bytes ?? 0
}
