import { buffer } from 'node:stream/consumers'
import { eq } from 'drizzle-orm'
import { createTransport } from 'nodemailer'
import type { Transporter } from 'nodemailer'
import { replySecret, taggedAddress } from '#core/requests'
import { lockWaitingMails, logger, mailsWait, noteSending, storedPiecesOf, withoutPrivateLinks } from '#server/kit'
import type { Mail, Service } from '#server/kit'
import { sites } from '../tables'

const LOOK_MS = 700
const BATCH = 20
const MAX_ATTEMPTS = 8
/** What a person at the desk typed; everything else is the work of a program. */
const TYPED = ['message', 'question']

/** Sends waiting mails over SMTP. A mail that fails is tried again later, and later still. */
export class Postman {
  private timer: NodeJS.Timeout | null = null
  private working: Promise<void> | null = null
  private ending = false
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

  /** Ends after the mail that is on its way: what was sent is noted, the rest waits for whoever comes next. */
  async stop(): Promise<void> {
    this.ending = true
    if (this.timer) clearInterval(this.timer)
    await this.working
    this.transport.close()
  }

  private async round(): Promise<void> {
    const { db, clock } = this.service
    while (!this.ending && (await mailsWait(db, clock()))) {
      const taken = await db.transaction(async (tx) => {
        const waiting = await lockWaitingMails(tx, clock(), BATCH)
        for (const mail of waiting) if (!this.ending) await noteSending(tx, mail.id, await this.deliver(mail))
        return waiting.length
      })
      if (taken < BATCH) return
    }
  }

  /** From the site's own address; replies about a request come back with its tag, signed. */
  private async senderOf(mail: Mail): Promise<{ from: string; replyTo?: string }> {
    const { db, links } = this.service
    const [site] = mail.from
      ? await db.select({ name: sites.name }).from(sites).where(eq(sites.deskEmail, mail.from))
      : await db.select({ name: sites.name, deskEmail: sites.deskEmail }).from(sites).limit(1)
    const address = mail.from ?? (site as { deskEmail?: string } | undefined)?.deskEmail ?? 'desk@evrix.example'
    const from = `"${(site?.name ?? 'Help desk').replaceAll('"', '')}" <${address}>`
    if (!mail.from || !mail.requestId) return { from }
    const tag = mail.followerId ? ({ kind: 'f', id: mail.followerId } as const) : ({ kind: 'r', id: mail.requestId } as const)
    return { from, replyTo: taggedAddress(mail.from, { ...tag, signature: links.sign(replySecret(tag)) }) }
  }

  private async fileOf(id: number): Promise<Buffer> {
    return buffer(storedPiecesOf(this.service.db, id))
  }

  private async deliver(mail: Mail): Promise<Pick<Mail, 'attempts' | 'state'> & Partial<Mail>> {
    const now = this.service.clock()
    const { invitation, several } = calendarParts(mail.calendar)
    try {
      await this.transport.sendMail({
        ...(await this.senderOf(mail)),
        to: mail.to,
        subject: mail.subject,
        text: mail.text,
        ...(mail.html ? { html: mail.html } : {}),
        date: now,
        ...(invitation ? { icalEvent: invitation } : {}),
        attachments: [...several, ...(mail.fileId ? [{ filename: mail.fileName ?? 'file', content: await this.fileOf(mail.fileId) }] : [])],
        messageId: `<mail-${mail.id}.${this.service.links.sign(`mail:${mail.id}`)}@evrix.example>`,
        ...(mail.inReplyTo ? { inReplyTo: mail.inReplyTo, references: mail.inReplyTo } : {}),
        // What no person wrote says so, and no program answers it (RFC 3834 section 5).
        ...(TYPED.includes(mail.occasion)
          ? {}
          : { headers: { 'Auto-Submitted': mail.occasion === 'received' || mail.occasion === 'not_taken' ? 'auto-replied' : 'auto-generated' } }),
      })
      // What was sent has its links with the person it was sent to; here they are needed no longer.
      return {
        state: 'sent',
        sentAt: now,
        attempts: mail.attempts + 1,
        text: withoutPrivateLinks(mail.text),
        html: mail.html && withoutPrivateLinks(mail.html),
      }
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

/**
 * One invitation goes along with the words, as calendar programs expect it; of several each is a part of its own: an object
 * of iTIP is about one thing (RFC 5546, 3.2), and a mail may hold several (RFC 6047, its examples; both from memory).
 */
export function calendarParts(calendar: string | null) {
  const objects = calendar?.match(/BEGIN:VCALENDAR[^]*?END:VCALENDAR\r\n/g) ?? []
  const methodOf = (object: string) => /^METHOD:(\w+)/m.exec(object)![1]!
  const [first, second] = objects
  if (first && !second) return { invitation: { method: methodOf(first), filename: 'invitation.ics', content: first }, several: [] }
  const several = objects.map((content, n) => ({
    filename: `invitation-${n + 1}.ics`,
    content,
    contentType: `text/calendar; charset=utf-8; method=${methodOf(content)}`,
    contentDisposition: 'inline' as const,
  }))
  return { invitation: null, several }
}
