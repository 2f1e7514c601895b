import { eq } from 'drizzle-orm'
import { documentWords } from '#core/documents'
import type { DocumentFields } from '#core/documents'
import type { ListKind } from '#core/lists'
import { conflict, notAllowed, notFound, storeFile } from '#server/kit'
import type { Asker, Happening, Reader, Tell, Tx } from '#server/kit'
import { seenThing } from '#server/registers'
import { documentFiles, documents } from '../tables'
import type { DocumentRecord } from './documentRows'
import type { SentDocument } from './sentDocument'

/** On whose timeline a document is told of. */
export const toldOn = (on: ListKind, recordId: number): Pick<Happening, 'orderId' | 'requestId' | 'register' | 'recordId'> =>
  on === 'orders' ? { orderId: recordId } : on === 'requests' ? { requestId: recordId } : { register: on, recordId }

/** What documents are kept with, to be changed by who asks. @throws ProblemReply 404, 403 */
export async function mayKeepWith(db: Reader, who: Asker, on: ListKind, id: number): Promise<{ siteId: number | null; called: string }> {
  const thing = await seenThing(db, who, on, id)
  if (!thing.mayEdit) throw notAllowed()
  return thing
}

/** A document that may be changed by who asks, as they saw it, held. @throws ProblemReply 404, 403, 409 */
export async function lockDocument(tx: Tx, who: Asker, { id, version }: { id: number; version: number }) {
  const [document] = await tx.select().from(documents).where(eq(documents.id, id)).for('update')
  if (!document) throw notFound('document')
  const thing = await mayKeepWith(tx, who, document.on, document.recordId)
  if (document.version !== version) throw conflict(document.version, [])
  return { document, thing }
}

/** The same before a file is read. @throws ProblemReply 404, 403 */
export async function mayChangeDocument(db: Reader, who: Asker, id: number): Promise<void> {
  const [document] = await db.select().from(documents).where(eq(documents.id, id))
  if (!document) throw notFound('document')
  await mayKeepWith(db, who, document.on, document.recordId)
}

export async function keepFile(
  tx: Tx,
  document: Pick<DocumentRecord, 'id'>,
  number: number,
  { name, mime, shows, bytes, content, thumb }: SentDocument,
  by: Asker,
  now: Date,
  /** Where its content is kept already. */
  kept?: number,
): Promise<number> {
  const storedId = kept ?? (await storeFile(tx, [content], now)).id
  await tx.insert(documentFiles).values({ documentId: document.id, number, name, mime, shows, bytes, storedId, thumb, byName: by.name, at: now })
  return storedId
}

/**
 * Keeps a document with a record, an order or a request; whoever calls has seen to it that it may be.
 * @param kept where its content is kept already, for one that is kept with several @returns with where it is kept now
 */
export async function keepDocument(
  { tx, who, now, tell }: { tx: Tx; who: Asker; now: Date; tell: Tell },
  { on, id, siteId }: { on: ListKind; id: number; siteId: number | null },
  said: Omit<DocumentFields, 'title'> & { title?: string },
  file: SentDocument,
  kept?: number,
): Promise<{ id: number; storedId: number }> {
  const title = said.title || file.name.replace(/\.[^.]+$/, '').slice(0, 140)
  const words = documentWords(title, file.name, file.inside)
  const [saved] = await tx
    .insert(documents)
    .values({ ...said, on, recordId: id, title, words, addedBy: who.accountId! })
    .$returningId()
  const storedId = await keepFile(tx, saved!, 1, file, who, now, kept)
  await tell({ kind: 'document.add', siteId, ...toldOn(on, id), details: { title, documentId: saved!.id } })
  return { id: saved!.id, storedId }
}
