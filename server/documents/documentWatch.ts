import { and, asc, eq, isNotNull, isNull, ne, or, sql } from 'drizzle-orm'
import { remindOn } from '#core/documents'
import { logger, recordEvent } from '#server/kit'
import type { Service, Works } from '#server/kit'
import { calledThing } from '#server/registers'
import { documents } from '../tables'
import { toldOn } from './changeDocument'
import { siteOfDocument } from './documentRows'
import { todayAt } from './today'

const LOOK_EVERY_MS = 5_000
const BATCH = 100
const CLOCK = { accountId: null, name: 'The clock' }

/** Reminds of documents before they end, once for each end. */
export class DocumentWatch {
  private timer: NodeJS.Timeout | null = null
  private looking: Promise<unknown> = Promise.resolve()

  constructor(private readonly service: Service) {}

  start(): void {
    const look = () =>
      (this.looking = this.looking.then(() => this.look()).catch((error: unknown) => logger.error({ error }, 'watching documents failed; it is tried again')))
    this.timer = setInterval(look, LOOK_EVERY_MS)
    this.timer.unref()
    void look()
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer)
    await this.looking
  }

  /** One look; answers how many were told of. Several servers share the rows, none waits for another. */
  async look(): Promise<number> {
    const now = this.service.clock()
    let told = 0
    for (;;) {
      const found = await this.service.writer.transaction(
        async (tx) => {
          const today = await todayAt(tx, null, now)
          const rows = await tx
            .select({ document: documents, siteId: sql<number | null>`${siteOfDocument}`, called: calledThing(documents.on, documents.recordId) })
            .from(documents)
            .where(
              and(
                isNotNull(documents.validUntil),
                isNotNull(documents.remindDays),
                isNull(documents.retiredAt),
                or(isNull(documents.remindedOf), ne(documents.remindedOf, documents.validUntil)),
                sql`date_sub(${documents.validUntil}, interval ${documents.remindDays} day) <= ${today}`,
              ),
            )
            .orderBy(asc(documents.id))
            .limit(BATCH)
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
            told++
          }
          return rows.length
        },
        { isolationLevel: 'read committed' },
      )
      if (found) this.service.publisher.nudge()
      if (found < BATCH) return told
    }
  }
}

export const documentWorks: Works = (service) => [new DocumentWatch(service)]
