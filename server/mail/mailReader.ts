import { and, asc, eq, inArray } from 'drizzle-orm'
import { Refusal } from '#core/kit'
import { moveRequest, readTag, splitQuoted, summaryOfMail, whyIgnored } from '#core/requests'
import { inThread, logger, readFileSent, recordEvent } from '#server/kit'
import type { Service, Tx } from '#server/kit'
import { createRequest, hearReporter, requestFacts, saveRequestMove } from '#server/requests'
import { attachments, followers, incomingMails, mails, requests, sites } from '../tables'
import type { ReadMail } from './readMime.worker'

type Incoming = typeof incomingMails.$inferSelect
type Site = typeof sites.$inferSelect
type Outcome = Pick<Incoming, 'state'> & { reason?: string; requestId?: number }

const LOOK_MS = 1_500
const MAX_ATTEMPTS = 5
const LONGEST_DESCRIPTION = 4_000

const readInThread = inThread<Uint8Array, ReadMail>('readMime.worker')

/** A mail taken apart, in a thread of its own. */
export const readMime = (raw: Buffer): Promise<ReadMail> => readInThread(new Uint8Array(raw))

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
    let failing: Incoming | null = null
    try {
      return await db.transaction(
        async (tx) => {
          const [mail] = await tx
            .select()
            .from(incomingMails)
            .where(eq(incomingMails.state, 'waiting'))
            .orderBy(asc(incomingMails.id))
            .limit(1)
            .for('update', { skipLocked: true })
          if (!mail) return false
          failing = mail
          const outcome = await this.outcomeOf(tx, mail, clock())
          await tx
            .update(incomingMails)
            .set({ state: outcome.state, reason: outcome.reason ?? null, requestId: outcome.requestId ?? null, subject: outcome.subject })
            .where(eq(incomingMails.id, mail.id))
          publisher.nudge()
          return true
        },
        { isolationLevel: 'read committed' },
      )
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
    let read: ReadMail
    try {
      read = await readMime(mail.raw)
    } catch (error) {
      await this.answerWith(tx, site!, mail, null, 'We could not read your mail.', now)
      return { state: 'refused', reason: `It could not be read: ${error instanceof Error ? error.message : 'unknown'}`, subject: null }
    }
    const subject = read.subject?.slice(0, 250) ?? null
    const ignored = whyIgnored({ sender: mail.sender, headers: read.headers, own: [site!.deskEmail] })
    if (ignored) return { state: 'ignored', reason: ignored, subject }
    if (mail.reason === 'too large') {
      await this.answerWith(tx, site!, mail, read, 'Your mail is larger than the 25 MB we can take.', now)
      return { state: 'refused', reason: 'It is larger than 25 MB; only its beginning was kept.', subject }
    }
    return { ...(await takeMail(tx, this.service, site!, mail, read, now)), subject }
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
    await tx.insert(mails).values({
      occasion: 'not_taken',
      to: mail.sender,
      from: site.deskEmail,
      subject: `Not taken: ${read?.subject ?? 'your mail'}`.slice(0, 250),
      text,
      inReplyTo: read?.messageId?.slice(0, 250),
      state: 'waiting',
      nextAt: now,
    })
  }
}

/** A person's mail: part of its conversation when it answers one of ours, a new request otherwise. */
export async function takeMail(tx: Tx, service: Service, site: Site, mail: Incoming, read: ReadMail, now: Date): Promise<Outcome> {
  const { text, quoted } = splitQuoted(read.text)
  const name = read.from?.name || mail.sender
  const known = await conversationOfMail(tx, service, site, mail, read)
  if (known) {
    const commentId = await hearReporter(tx, known, now, { name, text: text || '(no words)', quoted, by: 'mail' })
    await keepFiles(tx, site.id, read, { requestId: known.id, commentId }, now)
    // The answer to a question brings the request back to the desk.
    if (known.state === 'asked' && mail.sender === known.reporterEmail)
      await saveRequestMove(
        tx,
        { accountId: null, name },
        now,
        known,
        'answer',
        moveRequest(requestFacts(known), 'answer', text || name),
        { question: null },
        { reason: text },
      )
    return { state: 'joined', requestId: known.id }
  }
  const request = await createRequest(
    tx,
    service,
    site,
    {
      channel: 'email',
      placeId: null,
      summary: summaryOfMail(read.subject, text),
      description: (text || read.subject || '(no words)').slice(0, LONGEST_DESCRIPTION),
      name: (read.from?.name ?? '').slice(0, 120),
      email: read.from?.address ?? mail.sender,
    },
    now,
  )
  await keepFiles(tx, site.id, read, { requestId: request.id }, now)
  await recordEvent(tx, { accountId: null, name: name.slice(0, 120) }, now, {
    kind: 'request.report',
    siteId: site.id,
    requestId: request.id,
    to: 'new',
    details: { channel: 'email' },
  })
  return { state: 'request', requestId: request.id }
}

/** The request a mail belongs to: by the signed tag of its address, by the messages it answers, or by its writer's own earlier mail. */
async function conversationOfMail(tx: Tx, service: Service, site: Site, mail: Incoming, read: ReadMail) {
  const { tag } = readTag(mail.recipient)
  const tagged = tag && service.links.sign(`reply:${tag.requestId}`) === tag.signature ? tag.requestId : null
  const id = tagged ?? (await answeredRequest(tx, service, mail.sender, read.references))
  if (!id) return null
  const [request] = await tx
    .select()
    .from(requests)
    .where(and(eq(requests.id, id), eq(requests.siteId, site.id)))
    .for('update')
  return request ?? null
}

async function answeredRequest(tx: Tx, service: Service, sender: string, references: string[]): Promise<number | null> {
  for (const reference of [...references].reverse()) {
    const ours = /^<mail-(\d{1,10})\.([A-Za-z0-9_-]+)@/.exec(reference)
    if (ours && service.links.sign(`mail:${ours[1]}`) === ours[2]) {
      const [sent] = await tx
        .select({ requestId: mails.requestId })
        .from(mails)
        .where(eq(mails.id, Number(ours[1])))
      if (sent?.requestId) return sent.requestId
    }
  }
  if (!references.length) return null
  const own = await tx
    .select({ requestId: incomingMails.requestId, reporter: requests.reporterEmail, follower: followers.email })
    .from(incomingMails)
    .innerJoin(requests, eq(requests.id, incomingMails.requestId))
    .leftJoin(followers, and(eq(followers.requestId, requests.id), eq(followers.email, sender)))
    .where(and(inArray(incomingMails.onceKey, references.slice(-20)), inArray(incomingMails.state, ['request', 'joined'])))
  return own.find((row) => row.reporter === sender || row.follower)?.requestId ?? null
}

/** Pictures are written anew; anything else, also a picture that cannot be read, is kept as a document. */
async function keepFiles(tx: Tx, siteId: number, read: ReadMail, to: { requestId: number; commentId?: number }, now: Date): Promise<void> {
  for (const file of read.files) {
    const sent = { buffer: Buffer.from(file.content), originalname: file.name, mimetype: file.mime }
    if (!sent.buffer.length) continue
    try {
      await tx.insert(attachments).values({ siteId, ...to, ...(await readFileSent(sent)), shared: true, at: now })
    } catch (error) {
      if (!(error instanceof Refusal)) throw error
      await tx.insert(attachments).values({
        siteId,
        ...to,
        kind: 'document',
        name: file.name.slice(0, 160),
        mime: 'application/octet-stream',
        width: null,
        height: null,
        bytes: sent.buffer.length,
        content: sent.buffer,
        shared: true,
        at: now,
      })
    }
  }
}
