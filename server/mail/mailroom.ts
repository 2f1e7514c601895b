import { createHash } from 'node:crypto'
import type { AddressInfo } from 'node:net'
import { eq } from 'drizzle-orm'
import { SMTPServer } from 'smtp-server'
import type { SMTPServerDataStream, SMTPServerSession } from 'smtp-server'
import { readTag } from '#core/requests'
import { logger } from '#server/kit'
import type { Service } from '#server/kit'
import { incomingMails, sites } from '../tables'
import type { MailReader } from './mailReader'

export const LARGEST_MAIL = 25 * 1024 * 1024
/** Of a mail that is too large, this much is kept: who wrote it, and about what. */
const KEPT_OF_TOO_LARGE = 64 * 1024

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
          () => done(),
          (error: unknown) => done(this.later(error)),
        )
      },
    })
    this.server.on('error', (error) => logger.warn({ error }, 'a mail connection failed'))
  }

  listen(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.server.once('error', reject)
      this.server.listen(port, '127.0.0.1', () => resolve((this.server.server.address() as AddressInfo).port))
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

  private async take(stream: SMTPServerDataStream, session: SMTPServerSession): Promise<void> {
    const { raw, hash, tooLarge } = await readUpTo(stream, LARGEST_MAIL)
    const sender = session.envelope.mailFrom ? session.envelope.mailFrom.address.toLowerCase() : ''
    const messageId = /^message-id:\s*(<[^>\r\n]{1,240}>)/im.exec(
      raw
        .subarray(0, KEPT_OF_TOO_LARGE)
        .toString('latin1')
        .split(/\r?\n\r?\n/)[0]!,
    )?.[1]
    for (const { address } of session.envelope.rcptTo) {
      const site = (await this.siteOf(address))!
      await this.service.db
        .insert(incomingMails)
        .ignore()
        .values({
          siteId: site.id,
          onceKey: messageId ?? `sha256:${hash}`,
          sender: sender.slice(0, 190),
          recipient: address.slice(0, 250),
          receivedAt: this.service.clock(),
          state: 'waiting',
          reason: tooLarge ? 'too large' : null,
          raw: tooLarge ? raw.subarray(0, KEPT_OF_TOO_LARGE) : raw,
        })
    }
    this.reader.nudge()
  }
}

/** Reads all of it, keeping no more than `most` bytes. */
async function readUpTo(stream: AsyncIterable<Buffer>, most: number): Promise<{ raw: Buffer; hash: string; tooLarge: boolean }> {
  const chunks: Buffer[] = []
  const hash = createHash('sha256')
  let size = 0
  for await (const chunk of stream) {
    hash.update(chunk)
    size += chunk.length
    if (size <= most) chunks.push(chunk)
  }
  return { raw: Buffer.concat(chunks), hash: hash.digest('hex'), tooLarge: size > most }
}
