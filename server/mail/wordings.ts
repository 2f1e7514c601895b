import { and, eq } from 'drizzle-orm'
import type { Occasion, Wording } from '#core/requests'
import type { Tx } from '#server/kit'
import { mailWordings } from '../tables'

/** A site writes these words on this occasion, instead of the usual ones. */
export async function setWording(tx: Tx, siteId: number, occasion: Occasion, { subject, text }: Wording): Promise<void> {
  await tx.insert(mailWordings).values({ siteId, occasion, subject, text }).onDuplicateKeyUpdate({ set: { subject, text } })
}

/** The usual words again. */
export async function dropOwnWording(tx: Tx, siteId: number, occasion: Occasion): Promise<void> {
  await tx.delete(mailWordings).where(and(eq(mailWordings.siteId, siteId), eq(mailWordings.occasion, occasion)))
}
