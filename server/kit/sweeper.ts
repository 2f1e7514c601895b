import { and, eq, isNotNull, isNull, lt, or, sql } from 'drizzle-orm'
import { attachments, idempotencyKeys, mails, reporterLinks, sessions, settings, signInTries } from '../tables'
import type { Tx } from './database'
import { logger } from './logger'
import type { Service } from './service'
import { sweepUploads } from './uploads'
import { lockSetting } from './settings'

const LOOK_MS = 10 * 60_000
const HOUR = 3_600_000
/** How long each is kept (our own choice, no source). */
const KEEP = {
  /** Answers of changes, which may hold private links. */
  answers: 24 * HOUR,
  /** Files sent ahead of a report that never came. */
  unclaimed: 3 * 24 * HOUR,
  tries: 24 * HOUR,
  /** Text of mails that never went out. */
  unsent: 14 * 24 * HOUR,
  uploads: 6 * HOUR,
}
const SWEPT = 'swept_at'

/** Private links of every kind, as mails carry them. */
const LINK = '/(t|p|a|mine)/[A-Za-z0-9_-]{43}'

/** A mail as it is kept once it was sent: its links lead nowhere. */
export const withoutPrivateLinks = (text: string): string => text.replace(new RegExp(LINK, 'g'), '/…')

/** Removes what nobody needs any more, once an hour, by whichever server comes first. */
export class Sweeper {
  private timer: NodeJS.Timeout | null = null
  private working: Promise<void> | null = null

  constructor(private readonly service: Service) {}

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
    this.working ??= sweepWhenDue(this.service)
      .catch((error: unknown) => logger.error({ error }, 'sweeping failed; it is tried again'))
      .finally(() => (this.working = null))
  }
}

async function sweepWhenDue(service: Service): Promise<void> {
  const now = service.clock()
  await service.db.transaction(
    async (tx) => {
      const last = await lockSetting(tx, SWEPT, 0)
      if (now.getTime() - Number(last) < HOUR) return
      await sweep(tx, now)
      await tx.update(settings).set({ value: now.getTime() }).where(eq(settings.name, SWEPT))
    },
    { isolationLevel: 'read committed' },
  )
  await sweepUploads(service, new Date(Date.now() - KEEP.uploads))
}

/** Everything that has had its time at this moment. */
export async function sweep(tx: Tx, now: Date): Promise<void> {
  const before = (ms: number) => new Date(now.getTime() - ms)
  await tx.delete(idempotencyKeys).where(lt(idempotencyKeys.at, before(KEEP.answers)))
  await tx.delete(sessions).where(lt(sessions.expiresAt, now))
  await tx.delete(reporterLinks).where(lt(reporterLinks.expiresAt, now))
  await tx.delete(signInTries).where(lt(signInTries.nextAt, before(KEEP.tries)))
  await tx.delete(attachments).where(and(isNotNull(attachments.claimHash), isNull(attachments.requestId), lt(attachments.at, before(KEEP.unclaimed))))
  // Mails sent before links were taken out of them, and those given up long ago.
  await tx
    .update(mails)
    .set({ text: without(mails.text), html: without(mails.html) })
    .where(and(or(eq(mails.state, 'sent'), and(eq(mails.state, 'failed'), lt(mails.nextAt, before(KEEP.unsent)))), sql`${mails.text} regexp ${LINK}`))
}

const without = (column: typeof mails.text | typeof mails.html) => sql`regexp_replace(${column}, ${LINK}, '/…')`
