import { and, asc, eq, isNotNull, isNull, ne, or, sql } from 'drizzle-orm'
import { remindOn } from '#core/documents'
import { CLOCK, lookout, recordEvent, takeDue } from '#server/kit'
import type { Service, Works } from '#server/kit'
import { calledThing } from '#server/registers'
import { documents } from '../tables'
import { toldOn } from './changeDocument'
import { siteOfDocument } from './documentRows'
import { todayAt } from './today'

const LOOK_EVERY_MS = 5_000

/** Documents that are to be reminded of on a day, "2026-11-23", and were not. */
const isEnding = (today: string) =>
  and(
    isNotNull(documents.validUntil),
    isNotNull(documents.remindDays),
    isNull(documents.retiredAt),
    or(isNull(documents.remindedOf), ne(documents.remindedOf, documents.validUntil)),
    sql`date_sub(${documents.validUntil}, interval ${documents.remindDays} day) <= ${today}`,
  )
/** Nowhere is it later in the day than this. */
const latestDay = (now: Date) => new Date(now.getTime() + 14 * 3_600_000).toISOString().slice(0, 10)

/** One look at documents that end soon, each reminded of once for its end. */
const lookAtEnds = (service: Service): Promise<void> =>
  takeDue(service, { table: documents, where: (now) => isEnding(latestDay(now)) }, async (tx, now, most) => {
    const today = await todayAt(tx, null, now)
    const rows = await tx
      .select({ document: documents, siteId: sql<number | null>`${siteOfDocument}`, called: calledThing(documents.on, documents.recordId) })
      .from(documents)
      .where(isEnding(today))
      .orderBy(asc(documents.id))
      .limit(most)
      .for('update', { skipLocked: true })
    for (const { document, siteId, called } of rows) {
      const { id, on, recordId, title, validUntil } = document
      await tx.update(documents).set({ remindedOf: validUntil }).where(eq(documents.id, id))
      // One that ended while nobody could be reminded is not told of afterwards.
      if (!remindOn(document) || validUntil! < today) continue
      await recordEvent(tx, CLOCK, now, {
        kind: 'document.ending',
        siteId,
        ...toldOn(on, recordId),
        details: { title, documentId: id, until: validUntil!, called },
      })
    }
    return rows.length
  })

export const documentWorks: Works = (service) => [lookout('watching documents', LOOK_EVERY_MS, () => lookAtEnds(service))]
