import { EventEmitter } from 'node:events'
import { asc, eq, inArray, isNull, sql } from 'drizzle-orm'
import { events, settings } from '../tables'
import type { Db, Tx } from './database'
import { logger } from './logger'

export type PublishedEvent = typeof events.$inferSelect & { seq: number }

/** Reads events inside the publishing transaction: writes mails and notices exactly once. */
export type Subscriber = (tx: Tx, batch: PublishedEvent[]) => Promise<void>

const BATCH = 200
const SEQUENCE = 'event_sequence'
const LOOK_AGAIN_MS = 2_000

/**
 * Gives committed events their place in the order everybody reads them in, lets subscribers write
 * what follows from them in the same transaction, then tells listeners in this process. An event
 * whose server died after its commit is picked up by the next look.
 */
export class Publisher {
  readonly published = new EventEmitter().setMaxListeners(0)
  private running: Promise<void> | null = null
  private again = false
  private timer: NodeJS.Timeout

  constructor(
    private readonly db: Db,
    private readonly subscribers: Subscriber[],
  ) {
    this.timer = setInterval(() => this.nudge(), LOOK_AGAIN_MS)
    this.timer.unref()
  }

  /** Something was committed; publish it soon. */
  nudge(): void {
    if (this.running) {
      this.again = true
      return
    }
    this.running = this.publish()
      .catch((error: unknown) => logger.error({ error }, 'publishing events failed; it is tried again'))
      .finally(() => {
        this.running = null
        if (this.again) {
          this.again = false
          this.nudge()
        }
      })
  }

  async stop(): Promise<void> {
    clearInterval(this.timer)
    this.again = false
    await this.running
  }

  private async publish(): Promise<void> {
    for (;;) {
      const batch = await this.db.transaction((tx) => this.publishBatch(tx), { isolationLevel: 'read committed' })
      for (const event of batch) this.published.emit('event', event)
      if (batch.length < BATCH) return
    }
  }

  private async publishBatch(tx: Tx): Promise<PublishedEvent[]> {
    const [sequence] = await tx.select().from(settings).where(eq(settings.name, SEQUENCE)).for('update')
    if (!sequence) {
      await tx.insert(settings).ignore().values({ name: SEQUENCE, value: 0 })
      return this.publishBatch(tx)
    }
    const waiting = await tx.select().from(events).where(isNull(events.seq)).orderBy(asc(events.id)).limit(BATCH)
    if (!waiting.length) return []
    const last = Number(sequence.value)
    const batch = waiting.map((event, index) => ({ ...event, seq: last + index + 1 }))
    const places = sql.join(
      batch.map((event) => sql`when ${event.id} then ${event.seq}`),
      sql` `,
    )
    await tx
      .update(events)
      .set({ seq: sql`case ${events.id} ${places} end` })
      .where(
        inArray(
          events.id,
          batch.map((event) => event.id),
        ),
      )
    await tx
      .update(settings)
      .set({ value: last + batch.length })
      .where(eq(settings.name, SEQUENCE))
    for (const subscriber of this.subscribers) await subscriber(tx, batch)
    return batch
  }
}
