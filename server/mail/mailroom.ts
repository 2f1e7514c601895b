import { createHash } from 'node:crypto'
import type { AddressInfo } from 'node:net'
import { and, eq } from 'drizzle-orm'
import { SMTPServer } from 'smtp-server'
import type { SMTPServerDataStream, SMTPServerSession } from 'smtp-server'
import { readTag } from '#core/requests'
import { isDuplicate, logger, storeFile } from '#server/kit'
import type { Service, Tx } from '#server/kit'
import { incomingMails, sites } from '../tables'
import type { MailReader } from './mailReader'

/** A mail larger than this is kept whole for the desk, which decides; its sender is told. */
export const LARGEST_MAIL = 25 * 1024 * 1024
/** A mail server offers this much; larger ones are refused while their sender is still there. */
const LARGEST_TAKEN = 200 * 1024 * 1024
/** Whoever still holds a line when the server ends is told to come back (421) after this long, in the middle of a mail too. */
const LET_FINISH_MS = 1_000
/** How far into a mail its Message-ID is looked for. */
const HEADER_BYTES = 64 * 1024

/**
 * Takes mail for the sites' addresses by SMTP. A mail is in the database before the sender hears that
 * it was taken; what is made of it comes after, and survives a restart in between.
 */
export class Mailroom {
  private readonly server: SMTPServer

  constructor(
    private readonly service: Service,
    private readonly reader: MailReader,
  ) {
    this.server = new SMTPServer({
      authOptional: true,
      size: LARGEST_TAKEN,
      closeTimeout: LET_FINISH_MS,
      disabledCommands: ['STARTTLS', 'AUTH'],
      banner: 'Evrix mailroom',
      onRcptTo: (address, _session, done) => {
        this.siteOf(address.address).then(
          (site) => done(site ? null : Object.assign(new Error('No such mailbox here'), { responseCode: 550 })),
          (error: unknown) => done(this.later(error)),
        )
      },
      onData: (stream, session, done) => {
        this.take(stream, session).then(
          () =>
            stream.sizeExceeded ? done(Object.assign(new Error('The mail is larger than 200 MB; nothing of it was kept'), { responseCode: 552 })) : done(),
          (error: unknown) => {
            stream.resume()
            done(this.later(error))
          },
        )
      },
    })
    this.server.on('error', (error) => logger.warn({ error }, 'a mail connection failed'))
  }

  listen(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, this.service.config.host, () => resolve((this.server.server.address() as AddressInfo).port))
    })
  }

  stop(): Promise<void> {
    return new Promise((resolve) => this.server.close(() => resolve()))
  }

  /** Says "try again later", which every mail server does. */
  private later(error: unknown): Error {
    logger.error({ error }, 'a mail could not be kept')
    return Object.assign(new Error('Not now; send it again later'), { responseCode: 451 })
  }

  private async siteOf(address: string) {
    const [site] = await this.service.db
      .select({ id: sites.id })
      .from(sites)
      .where(eq(sites.deskEmail, readTag(address).mailbox))
    return site
  }

  /** The message goes into the file store as it comes; one mail for several sites is kept once. */
  private async take(stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> {
    const { db, clock } = this.service
    const sender = session.envelope.mailFrom ? session.envelope.mailFrom.address.toLowerCase() : ''
    const siteIds = new Map<string, number>()
    for (const { address } of session.envelope.rcptTo) siteIds.set(address, (await this.siteOf(address))!.id)
    await db
      .transaction(async (tx) => {
        const shape = new Shape()
        const file = await storeFile(tx, stream, clock(), (chunk) => shape.see(chunk))
        if (stream.sizeExceeded) throw new NothingKept()
        const onceKey = shape.onceKey(sender)
        for (const [address, siteId] of siteIds) {
          const mail = {
            siteId,
            onceKey,
            messageId: shape.messageId,
            sender: sender.slice(0, 190),
            recipient: address.slice(0, 250),
            receivedAt: clock(),
            state: 'waiting' as const,
            reason: file.bytes > LARGEST_MAIL ? 'too large' : null,
            fileId: file.id,
          }
          if (!(await here(tx, siteId, onceKey))) await tx.insert(incomingMails).values(mail)
          else if (siteIds.size === 1) throw new NothingKept()
        }
      })
      .catch((error: unknown) => {
        // The same message again, or the same at the same moment: it is here already.
        if (!(error instanceof NothingKept) && !isDuplicate(error)) throw error
      })
    this.reader.nudge()
  }
}

/** Takes back what was written of a mail that is not kept. */
class NothingKept extends Error {}

async function here(tx: Tx, siteId: number, onceKey: string): Promise<boolean> {
  const [row] = await tx
    .select({ id: incomingMails.id })
    .from(incomingMails)
    .where(and(eq(incomingMails.siteId, siteId), eq(incomingMails.onceKey, onceKey)))
  return row !== undefined
}

/** What tells one message from another, read as it passes by: its Message-ID, and a hash of its body. */
class Shape {
  private header = ''
  private readonly body = createHash('sha256')
  private inBody = false

  see(chunk: Buffer): void {
    if (this.inBody) return void this.body.update(chunk)
    this.header += chunk.toString('latin1')
    const end = /\r?\n\r?\n/.exec(this.header)
    if (!end && this.header.length < HEADER_BYTES) return
    const cut = end ? end.index + end[0].length : this.header.length
    this.body.update(Buffer.from(this.header.slice(cut), 'latin1'))
    this.header = this.header.slice(0, cut)
    this.inBody = true
  }

  get messageId(): string | null {
    return /^message-id:\s*(<[^>\r\n]{1,240}>)/im.exec(this.header)?.[1] ?? null
  }

  /** Relays add headers of their own, so only what its writer gave it counts: without a Message-ID, all of it. */
  onceKey(sender: string): string {
    const body = this.body.copy().digest('hex')
    return `sha256:${createHash('sha256')
      .update([this.messageId ?? this.header, sender, body].join('\n'))
      .digest('hex')}`
  }
}
