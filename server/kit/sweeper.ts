import { and, isNotNull, isNull, lt, sql } from 'drizzle-orm'
import { LONGEST_WITHOUT_SIGNAL_DAYS } from '#core/field'
import { attachments, idempotencyKeys } from '../tables'
import type { Tx } from './database'
import { logger } from './logger'
import { sweepMails } from './outbox'
import type { Service } from './service'
import { lockSetting, saveSetting } from './settings'
import { sweepUploads } from './uploads'

const LOOK_MS = 10 * 60_000
const HOUR = 3_600_000
/** How long each is kept (our own choice, no source). */
const KEEP = {
  /** Answers of changes, which may hold private links. */
  answers: 24 * HOUR,
  /** That a change was made: longer than a phone that was away may still send it again. */
  keys: (LONGEST_WITHOUT_SIGNAL_DAYS + 5) * 24 * HOUR,
  /** Files sent ahead of a report that never came. */
  unclaimed: 3 * 24 * HOUR,
  /** Text of mails that never went out. */
  unsent: 14 * 24 * HOUR,
  uploads: 6 * HOUR,
}
const SWEPT = 'swept_at'

/** Removes what of a room has had its time at this moment. */
export type Sweep = (tx: Tx, now: Date) => Promise<void>

/** Removes what nobody needs any more, room by room, once an hour, by whichever server comes first. */
export class Sweeper {
  private timer: NodeJS.Timeout | null = null
  private working: Promise<void> | null = null

  constructor(
    private readonly service: Service,
    private readonly sweeps: readonly Sweep[],
  ) {}

  start(): void {
    this.timer = setInterval(() => this.look(), LOOK_MS)
    this.timer.unref()
    this.look()
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer)
    await this.working
  }

  private look(): void {
    this.working ??= this.sweepWhenDue()
      .catch((error: unknown) => logger.error({ error }, 'sweeping failed; it is tried again'))
      .finally(() => (this.working = null))
  }

  private async sweepWhenDue(): Promise<void> {
    const now = this.service.clock()
    await this.service.db.transaction(async (tx) => {
      const last = await lockSetting(tx, SWEPT, 0)
      if (now.getTime() - Number(last) < HOUR) return
      for (const sweep of [sweepKit, ...this.sweeps]) await sweep(tx, now)
      await saveSetting(tx, SWEPT, now.getTime())
    })
    await sweepUploads(this.service, new Date(Date.now() - KEEP.uploads))
  }
}

const sweepKit: Sweep = async (tx, now) => {
  const before = (ms: number) => new Date(now.getTime() - ms)
  await tx
    .update(idempotencyKeys)
    .set({ answer: sql`NULL` })
    .where(and(lt(idempotencyKeys.at, before(KEEP.answers)), isNotNull(idempotencyKeys.answer)))
  await tx.delete(idempotencyKeys).where(lt(idempotencyKeys.at, before(KEEP.keys)))
  await tx.delete(attachments).where(and(isNotNull(attachments.claimHash), isNull(attachments.requestId), lt(attachments.at, before(KEEP.unclaimed))))
  await sweepMails(tx, before(KEEP.unsent))
}
