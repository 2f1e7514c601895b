import { and, asc, eq, lte } from 'drizzle-orm'
import { createTransport } from 'nodemailer'
import type { Transporter } from 'nodemailer'
import { logger } from '#server/kit'
import type { Service } from '#server/kit'
import { mails } from '../tables'

const LOOK_MS = 700
const BATCH = 20
const MAX_ATTEMPTS = 8

/** Sends waiting mails over SMTP. A mail that fails is tried again later, and later still. */
export class Postman {
  private timer: NodeJS.Timeout | null = null
  private working: Promise<void> | null = null
  private readonly transport: Transporter

  constructor(
    private readonly service: Service,
    smtpUrl: string,
  ) {
    this.transport = createTransport({ url: smtpUrl, pool: true, maxConnections: 2, tls: { rejectUnauthorized: false } } as never)
  }

  start(): void {
    this.timer = setInterval(() => {
      this.working ??= this.round()
        .catch((error: unknown) => logger.error({ error }, 'sending mail failed; it is tried again'))
        .finally(() => {
          this.working = null
        })
    }, LOOK_MS)
  }

  async stop(): Promise<void> {
    if (this.timer) clearInterval(this.timer)
    await this.working
    this.transport.close()
  }

  private async round(): Promise<void> {
    const { db, clock } = this.service
    for (;;) {
      const sent = await db.transaction(async (tx) => {
        const waiting = await tx
          .select()
          .from(mails)
          .where(and(eq(mails.state, 'waiting'), lte(mails.nextAt, clock())))
          .orderBy(asc(mails.id))
          .limit(BATCH)
          .for('update', { skipLocked: true })
        for (const mail of waiting)
          await tx
            .update(mails)
            .set(await this.deliver(mail))
            .where(eq(mails.id, mail.id))
        return waiting.length
      })
      if (sent < BATCH) return
    }
  }

  private async deliver(mail: typeof mails.$inferSelect): Promise<Partial<typeof mails.$inferInsert>> {
    const now = this.service.clock()
    try {
      await this.transport.sendMail({
        from: '"Help desk" <desk@skerry.example>',
        to: mail.to,
        subject: mail.subject,
        text: mail.text,
        date: now,
        messageId: `<mail-${mail.id}@evrix.example>`,
      })
      return { state: 'sent', sentAt: now, attempts: mail.attempts + 1 }
    } catch (error) {
      const attempts = mail.attempts + 1
      return {
        attempts,
        lastError: String(error).slice(0, 300),
        state: attempts >= MAX_ATTEMPTS ? 'failed' : 'waiting',
        nextAt: new Date(now.getTime() + 2 ** attempts * 1000),
      }
    }
  }
}
