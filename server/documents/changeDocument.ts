import { eq } from 'drizzle-orm'
import type { ListKind } from '#core/lists'
import { conflict, notAllowed, notFound, storeFile } from '#server/kit'
import type { Asker, Happening, Reader, Tx } from '#server/kit'
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
): Promise<void> {
  const stored = await storeFile(tx, [content], now)
  await tx.insert(documentFiles).values({ documentId: document.id, number, name, mime, shows, bytes, storedId: stored.id, thumb, byName: by.name, at: now })
}
