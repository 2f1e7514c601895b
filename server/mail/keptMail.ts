import { eq } from 'drizzle-orm'
import { bytesStored, maySee, notFound } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { incomingMails } from '../tables'
import { cleanMail, rawOf, readMime } from './mailReader'
import { readPlainly } from './readMime.worker'
import type { ReadMail } from './readMime.worker'

export type KeptMailRecord = typeof incomingMails.$inferSelect

/** A mail that came in, at a site of theirs. @throws ProblemReply 404 */
export async function keptMail(db: Reader, who: Asker, id: number): Promise<KeptMailRecord> {
  const [mail] = await db.select().from(incomingMails).where(eq(incomingMails.id, id))
  if (!mail || !maySee(who, mail.siteId)) throw notFound('mail')
  return mail
}

export async function lockKeptMail(tx: Tx, who: Asker, id: number): Promise<KeptMailRecord> {
  const [mail] = await tx.select().from(incomingMails).where(eq(incomingMails.id, id)).for('update')
  if (!mail || !maySee(who, mail.siteId)) throw notFound('mail')
  return mail
}

/** All of a mail, cleaned; one that no parser takes is read as the plain text it is. */
export async function readWhole(db: Reader, mail: KeptMailRecord): Promise<ReadMail> {
  const raw = await rawOf(db, mail)
  return cleanMail(await readMime(raw).catch(() => readPlainly(raw)))
}

export const bytesOf = async (db: Reader, mail: KeptMailRecord): Promise<number> => (mail.fileId ? bytesStored(db, mail.fileId) : (mail.raw?.length ?? 0))
