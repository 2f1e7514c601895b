import { asc, eq } from 'drizzle-orm'
import { cleanText, plainName, withoutLinks } from '#core/kit'
import { whyIgnored } from '#core/requests'
import { anyLike, inThread, logger, readStored } from '#server/kit'
import type { Reader, Service, Tx } from '#server/kit'
import { mailStranger } from '#server/requests'
import { incomingMails, sites } from '../tables'
import type { ReadMail } from './readMime.worker'
import { takeMail } from './takeMail'
import type { Outcome } from './takeMail'

type Incoming = typeof incomingMails.$inferSelect
type Site = typeof sites.$inferSelect

const WAITING = eq(incomingMails.state, 'waiting')
const LOOK_MS = 1_500
const MAX_ATTEMPTS = 5
/** Of a mail over the limit only this much is looked at: who wrote it, and about what. */
const BEGINNING = 64 * 1024

const readInThread = inThread<Uint8Array, ReadMail>('readMime.worker')

/** A mail taken apart, in a thread of its own. */
export const readMime = (raw: Buffer): Promise<ReadMail> => readInThread(new Uint8Array(raw))

/** The message as it came, or its beginning. */
export const rawOf = (db: Reader, mail: Incoming, most?: number): Promise<Buffer> =>
  mail.fileId ? readStored(db, mail.fileId, most) : Promise.resolve((mail.raw ?? Buffer.alloc(0)).subarray(0, most))

/** Makes of every mail that was kept what it should become: a request, part of a conversation, or nothing. */
export class MailReader {
  private timer: NodeJS.Timeout | null = null
  private working: Promise<void> | null = null
  private again = false
  private stopped = false

  constructor(private readonly service: Service) {}

  start(): void {
    this.timer = setInterval(() => this.nudge(), LOOK_MS)
    this.nudge()
  }

  nudge(): void {
    if (this.stopped) return
    if (this.working) {
      this.again = true
      return
    }
    this.working = this.readAll()
      .catch((error: unknown) => logger.error({ error }, 'reading mail failed; it is tried again'))
      .finally(() => {
        this.working = null
        if (!this.again) return
        this.again = false
        this.nudge()
      })
  }

  async stop(): Promise<void> {
    this.stopped = true
    if (this.timer) clearInterval(this.timer)
    await this.working
  }

  private async readAll(): Promise<void> {
    while (!this.stopped && (await this.readNext()));
  }

  /** One mail, in one transaction with what it becomes: read twice it would still count once. */
  private async readNext(): Promise<boolean> {
    const { db, clock, publisher } = this.service
    if (!(await anyLike(db, incomingMails, WAITING))) return false
    let failing: Incoming | null = null
    try {
      return await db.transaction(async (tx) => {
        const [mail] = await tx.select().from(incomingMails).where(WAITING).orderBy(asc(incomingMails.id)).limit(1).for('update', { skipLocked: true })
        if (!mail) return false
        failing = mail
        const outcome = await this.outcomeOf(tx, mail, clock())
        await tx
          .update(incomingMails)
          .set({
            state: outcome.state,
            reason: outcome.reason ?? null,
            requestId: outcome.requestId ?? null,
            leftOut: outcome.leftOut ?? null,
            subject: outcome.subject,
          })
          .where(eq(incomingMails.id, mail.id))
        publisher.nudge()
        return true
      })
    } catch (error) {
      if (!failing) throw error
      await this.afterFailure(failing, error)
      return true
    }
  }

  private async afterFailure(mail: Incoming, error: unknown): Promise<void> {
    logger.error({ error, mail: mail.id }, 'a mail could not be made into a request')
    const attempts = mail.attempts + 1
    const given = attempts >= MAX_ATTEMPTS
    await this.service.db
      .update(incomingMails)
      .set({ attempts, ...(given ? { state: 'refused' as const, reason: `It could not be read: ${String(error).slice(0, 200)}` } : {}) })
      .where(eq(incomingMails.id, mail.id))
  }

  private async outcomeOf(tx: Tx, mail: Incoming, now: Date): Promise<Outcome & { subject: string | null }> {
    const [site] = await tx.select().from(sites).where(eq(sites.id, mail.siteId))
    const tooLarge = mail.reason === 'too large'
    let read: ReadMail
    try {
      read = await readMime(await rawOf(tx, mail, tooLarge ? BEGINNING : undefined))
    } catch (error) {
      await this.answerWith(tx, site!, mail, null, 'We could not read your mail.', now)
      return { state: 'refused', reason: `It could not be read: ${error instanceof Error ? error.message : 'unknown'}`.slice(0, 300), subject: null }
    }
    const subject = cleanText(read.subject ?? '').slice(0, 250) || null
    const ignored = whyIgnored({ sender: mail.sender, headers: read.headers, own: [site!.deskEmail] })
    if (ignored) return { state: 'ignored', reason: ignored.slice(0, 300), subject }
    if (tooLarge) {
      await this.answerWith(tx, site!, mail, read, 'Your mail is larger than the 25 MB we take without looking.', now)
      return { state: 'refused', reason: 'It is larger than 25 MB. It was kept whole; open it, or make a request of it.', subject }
    }
    return { ...(await takeMail(tx, this.service, site!, mail, cleanMail(read), now)), subject }
  }

  /** Tells a person what to do instead; programs are never answered. */
  private async answerWith(tx: Tx, site: Site, mail: Incoming, read: ReadMail | null, what: string, now: Date): Promise<void> {
    if (whyIgnored({ sender: mail.sender, headers: read?.headers ?? {}, own: [site.deskEmail] })) return
    const text = [
      what,
      '',
      'Nothing is lost: the desk sees that you wrote. To be sure, report it here, with photos one by one:',
      `${this.service.publicUrl()}/c/${site.code}`,
      '',
      `Or call ${site.deskPhone}. ${site.name}`,
    ].join('\n')
    await mailStranger(tx, now, {
      occasion: 'not_taken',
      site,
      to: mail.sender,
      subject: `Not taken: ${withoutLinks(read?.subject ?? 'your mail')}`,
      text,
      inReplyTo: read?.messageId?.slice(0, 250),
    })
  }
}

/** Everything of a mail that is text, cleaned as what comes in by any other door. */
export const cleanMail = (read: ReadMail): ReadMail => ({
  ...read,
  subject: read.subject === undefined ? undefined : cleanText(read.subject),
  text: cleanText(read.text),
  from: read.from && { ...read.from, name: plainName(read.from.name) },
  files: read.files.map((file) => ({ ...file, name: cleanText(file.name) })),
})
