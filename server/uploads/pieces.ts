import { createHash } from 'node:crypto'
import { and, asc, eq, lt } from 'drizzle-orm'
import { DataStore, ERRORS, Upload } from '@tus/utils'
import { refuse } from '#core/kit'
import type { Db, Reader, SentFile, Sweep, Tx } from '#server/kit'
import { uploadPieces, uploads } from '../tables'

/** What one statement writes: a line that breaks loses less than this. */
const PIECE_BYTES = 256 * 1024
/** How long something that nobody took is kept: a phone may be without signal for a weekend (our own choice, no source). */
const KEPT_MS = 7 * 86_400_000

/** Whose an upload is. */
export const ownerOf = (who: { accountId: number | null }) => `account:${who.accountId}`

/**
 * Keeps what arrives by the resumable upload protocol (tus 1.0) in the database, where every server finds it. What was
 * received when a line breaks stays received.
 */
export class Pieces extends DataStore {
  override extensions = ['creation']

  constructor(
    private readonly db: Db,
    private readonly owner: string,
    private readonly now: Date,
  ) {
    super()
  }

  override async create(upload: Upload): Promise<Upload> {
    await this.db.insert(uploads).values({ id: upload.id, owner: this.owner, bytes: upload.size ?? 0, received: 0, at: this.now })
    return upload
  }

  override async getUpload(id: string): Promise<Upload> {
    const [found] = await this.db
      .select()
      .from(uploads)
      .where(and(eq(uploads.id, id), eq(uploads.owner, this.owner)))
    if (!found) throw ERRORS.FILE_NOT_FOUND
    return new Upload({ id, size: found.bytes, offset: found.received })
  }

  /** @returns how far the whole has come; what was received before the line broke counts */
  override async write(stream: AsyncIterable<Buffer>, id: string, offset: number): Promise<number> {
    let [at, waiting] = [offset, 0]
    let chunks: Buffer[] = []
    const keep = async () => {
      if (!waiting) return
      const content = Buffer.concat(chunks)
      chunks = []
      waiting = 0
      await this.append(id, at, content)
      at += content.length
    }
    try {
      for await (const chunk of stream) {
        chunks.push(chunk)
        waiting += chunk.length
        if (waiting >= PIECE_BYTES) await keep()
      }
    } finally {
      await keep()
    }
    return at
  }

  /** @throws ERRORS.INVALID_OFFSET when another server has taken that piece already */
  private append = (id: string, position: number, content: Buffer) =>
    this.db.transaction(async (tx) => {
      const [moved] = await tx
        .update(uploads)
        .set({ received: position + content.length })
        .where(and(eq(uploads.id, id), eq(uploads.owner, this.owner), eq(uploads.received, position)))
      if (!moved.affectedRows) throw ERRORS.INVALID_OFFSET
      await tx.insert(uploadPieces).values({ uploadId: id, position, content })
    })
}

/**
 * A file as it arrived, for whoever sent it.
 * @returns null when there is none of that name any more
 * @throws Refusal when not all of it is there, or it is not what was sent
 */
export async function readUpload(
  db: Reader,
  who: { accountId: number | null },
  { upload, checksum }: { upload: string; checksum: string },
): Promise<SentFile | null> {
  const [found] = await db
    .select()
    .from(uploads)
    .where(and(eq(uploads.id, upload), eq(uploads.owner, ownerOf(who))))
  if (!found) return null
  if (found.received < found.bytes) refuse('upload_unfinished', 'Not all of it has arrived yet. Send the rest.', 'upload')
  const pieces = await db
    .select({ content: uploadPieces.content })
    .from(uploadPieces)
    .where(eq(uploadPieces.uploadId, upload))
    .orderBy(asc(uploadPieces.position))
  const buffer = Buffer.concat(pieces.map(({ content }) => content))
  if (createHash('sha256').update(buffer).digest('hex') !== checksum) refuse('upload_damaged', 'It did not arrive as it was sent. Send it again.', 'checksum')
  return { buffer, originalname: 'photo', mimetype: 'application/octet-stream' }
}

/** It was taken for something, and is not needed any more. */
export async function dropUpload(tx: Tx, id: string): Promise<void> {
  await tx.delete(uploads).where(eq(uploads.id, id))
}

/** Files that were sent in pieces, and nobody took. */
export const sweepSent: Sweep = async (tx, now) => {
  await tx.delete(uploads).where(lt(uploads.at, new Date(now.getTime() - KEPT_MS)))
}
