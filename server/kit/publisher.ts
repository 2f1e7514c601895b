import { EventEmitter } from 'node:events'
import { and, asc, eq, inArray, isNull, lte, sql } from 'drizzle-orm'
import { accountRoles, events, notices, settings, untoldEvents } from '../tables'
import { isDeadlock, unavailability } from './database'
import type { Db, Tx } from './database'
import { anyLike } from './anyLike'
import { logger } from './logger'
import { openHolders } from './who'
import { lockSetting } from './settings'

export type PublishedEvent = typeof events.$inferSelect & { seq: number }

/** Reads an event inside the publishing transaction: writes mails and notices exactly once. */
export type Subscriber = (tx: Tx, event: PublishedEvent) => Promise<void>

const BATCH = 200
const SEQUENCE = 'event_sequence'
const LOOK_AGAIN_MS = 2_000
/** So often somebody is tried to be told of an event before it is set aside. */
export const TELLING_TRIES = 3
const TRY_AGAIN_MS = 3_000

/**
 * Gives committed events their place in the order everybody reads them in, lets subscribers write
 * what follows from them in the same transaction, then tells listeners in this process. An event
 * whose server died after its commit is picked up by the next look. One that subscribers fail over
 * holds up nobody: it is tried again, and in the end set aside for an administrator.
 */
export class Publisher {
  readonly published = new EventEmitter().setMaxListeners(0)
  private running: Promise<void> | null = null
  private again = false
  /** Whether what somebody failed over before is to be looked for with the next round. */
  private looksBack = true
  private timer: NodeJS.Timeout
  private looking: Promise<void> | null = null

  constructor(
    private readonly db: Db,
    private readonly subscribers: Subscriber[],
    private readonly clock: () => Date,
  ) {
    this.timer = setInterval(() => (this.looking ??= this.look().finally(() => (this.looking = null))), LOOK_AGAIN_MS)
    this.timer.unref()
  }

  /** What nobody was told of, as after a server that died, is published. */
  private async look(): Promise<void> {
    const waits = async () => (await anyLike(this.db, events, isNull(events.seq))) || (await anyLike(this.db, untoldEvents, this.dueAgain()))
    // Whoever cannot look tries, and logs why that fails.
    if (!(await waits().catch(() => true))) return
    this.lookBack()
    this.nudge()
  }

  private dueAgain = () => and(isNull(untoldEvents.setAsideAt), lte(untoldEvents.nextAt, this.clock()))

  /** The next round looks for what somebody failed over before as well. */
  lookBack(): void {
    this.looksBack = true
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
    await this.looking
    this.again = false
    await this.running
  }

  private async publish(): Promise<void> {
    for (;;) {
      const batch = await this.publishBatch()
      for (const event of batch) this.published.emit('event', event)
      if (batch.length < BATCH) return
    }
  }

  /** All of them in one go; where somebody fails over one, the same again with each event by itself. */
  private async publishBatch(): Promise<PublishedEvent[]> {
    const looksBack = this.looksBack
    this.looksBack = false
    try {
      return await this.db.transaction((tx) => this.round(tx, looksBack, (event) => this.follow(tx, event)))
    } catch (error) {
      this.looksBack ||= looksBack
      if (unavailability(error) || isDeadlock(error)) throw error
      return this.db.transaction((tx) => this.round(tx, looksBack, (event) => this.tell(tx, event, 0)))
    }
  }

  private async round(tx: Tx, looksBack: boolean, tell: (event: PublishedEvent) => Promise<void>): Promise<PublishedEvent[]> {
    const last = Number(await lockSetting(tx, SEQUENCE, 0))
    if (looksBack) await this.tellAgain(tx)
    const waiting = await tx.select().from(events).where(isNull(events.seq)).orderBy(asc(events.id)).limit(BATCH)
    if (!waiting.length) return []
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
    for (const event of batch) await tell(event)
    return batch
  }

  /** Events over which somebody failed before, whose time has come again. */
  private async tellAgain(tx: Tx): Promise<void> {
    const due = await tx
      .select({ event: events, attempts: untoldEvents.attempts })
      .from(untoldEvents)
      .innerJoin(events, eq(events.id, untoldEvents.eventId))
      .where(this.dueAgain())
      .orderBy(asc(untoldEvents.eventId))
      .limit(20)
    for (const { event, attempts } of due) await this.tell(tx, event as PublishedEvent, attempts)
  }

  private async follow(tx: Tx, event: PublishedEvent): Promise<void> {
    for (const subscriber of this.subscribers) await subscriber(tx, event)
  }

  /** What follows from one event, or nothing of it: written in a savepoint of its own. */
  private async tell(tx: Tx, event: PublishedEvent, before: number): Promise<void> {
    try {
      await tx.transaction((savepoint) => this.follow(savepoint, event))
      if (before) await tx.delete(untoldEvents).where(eq(untoldEvents.eventId, event.id))
    } catch (error) {
      // With the database gone, or the round given up for another change, nobody can be told of anything: all of it is taken back.
      if (unavailability(error) || isDeadlock(error)) throw error
      logger.error({ error, event: event.id, kind: event.kind }, 'nobody could be told of an event')
      await this.keepUntold(tx, event, before + 1, error)
    }
  }

  private async keepUntold(tx: Tx, event: PublishedEvent, attempts: number, error: unknown): Promise<void> {
    const now = this.clock()
    const given = attempts >= TELLING_TRIES
    const row = {
      attempts,
      error: String(error instanceof Error ? error.message : error).slice(0, 300),
      nextAt: new Date(now.getTime() + TRY_AGAIN_MS * attempts),
      setAsideAt: given ? now : null,
    }
    await tx
      .insert(untoldEvents)
      .values({ eventId: event.id, ...row })
      .onDuplicateKeyUpdate({ set: row })
    if (!given) return
    const whom =
      event.siteId === null
        ? await tx.selectDistinct({ id: accountRoles.accountId }).from(accountRoles).where(eq(accountRoles.role, 'administrator'))
        : await openHolders(tx, 'setup.edit', event.siteId)
    if (whom.length)
      await tx
        .insert(notices)
        .ignore()
        .values(
          whom.map(({ id }) => ({
            eventId: event.id,
            accountId: id,
            sentence: `Nobody could be told of “${event.kind}”: it was set aside. Send it again in Setup.`,
            orderId: event.orderId,
            requestId: event.requestId,
            at: now,
          })),
        )
  }
}

/** The publisher tries it once more with its next round; failing again, it is set aside again. */
export async function tryTellingAgain(tx: Tx, eventId: number, now: Date): Promise<void> {
  await tx.update(untoldEvents).set({ setAsideAt: null, nextAt: now }).where(eq(untoldEvents.eventId, eventId))
}
