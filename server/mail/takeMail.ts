import { and, eq, inArray } from 'drizzle-orm'
import { plainName, Refusal } from '#core/kit'
import { fitMail, moveRequest, readTag, replySecret, splitQuoted } from '#core/requests'
import { keepAttachment, readFileSent, recordEvent, storeFile } from '#server/kit'
import type { KeptContent, Service, Tx } from '#server/kit'
import { createRequest, hearReporter, hearSomebody, requestFacts, saveRequestMove } from '#server/requests'
import { followers, incomingMails, mails, requests, sites } from '../tables'
import type { ReadMail } from './readMime.worker'

type Incoming = typeof incomingMails.$inferSelect
type Site = typeof sites.$inferSelect
export type Outcome = Pick<Incoming, 'state'> & { reason?: string; requestId?: number; leftOut?: string | null }

/** Files of this size and more lie in the file store. */
const LARGE_FILE = 8 * 1024 * 1024

/**
 * A person's mail: part of its conversation when its reporter answers one of ours, a note to the desk when
 * somebody else does, a new request otherwise, also of somebody who follows: that is a thread of their own.
 */
export async function takeMail(tx: Tx, service: Service, site: Site, mail: Incoming, read: ReadMail, now: Date): Promise<Outcome> {
  const name = plainName(read.from?.name ?? '') || mail.sender
  const thread = await threadOfMail(tx, service, mail, read)
  const known = thread ? await lockThread(tx, site, thread.requestId) : null
  if (!known || thread!.followerId !== null) return newRequest(tx, service, site, mail, read, now, known)
  // What a reply repeats is folded away; in a new mail it is what the mail is about.
  const { text, quoted } = splitQuoted(read.text)
  const words = text || '(no words)'
  const address = known.reporterEmail
  const reporters = address !== null && (mail.sender === address || read.from?.address === address)
  const commentId = reporters
    ? await hearReporter(tx, known, now, { name: name.slice(0, 120), text: words, quoted, by: 'mail' })
    : await hearSomebody(tx, known, now, { name, address: read.from?.address ?? mail.sender, text: words, quoted })
  await keepFiles(tx, site.id, read, { requestId: known.id, commentId, shared: reporters }, now)
  // The answer to a question brings the request back to the desk.
  if (known.state === 'asked' && reporters)
    await saveRequestMove(
      tx,
      { accountId: null, name: name.slice(0, 120) },
      now,
      known,
      'answer',
      moveRequest(requestFacts(known), 'answer', words),
      { question: null },
      { reason: text },
    )
  return { state: 'joined', requestId: known.id }
}

async function newRequest(
  tx: Tx,
  service: Service,
  site: Site,
  mail: Incoming,
  read: ReadMail,
  now: Date,
  followed: typeof requests.$inferSelect | null,
): Promise<Outcome> {
  const { summary, description, leftOut } = fitMail(read.subject, read.text)
  const name = plainName(read.from?.name ?? '').slice(0, 120)
  const request = await createRequest(
    tx,
    service,
    site,
    {
      channel: 'email',
      placeId: followed?.placeId ?? null,
      summary,
      description,
      name,
      email: read.from?.address ?? mail.sender,
    },
    now,
  )
  await keepFiles(tx, site.id, read, { requestId: request.id, shared: true }, now)
  await recordEvent(tx, { accountId: null, name: name || mail.sender.slice(0, 120) }, now, {
    kind: 'request.report',
    siteId: site.id,
    requestId: request.id,
    to: 'new',
    details: { channel: 'email', ...(followed ? { follows: followed.number } : {}) },
  })
  return { state: 'request', requestId: request.id, leftOut }
}

interface Thread {
  requestId: number
  followerId: number | null
}

/** The thread a mail belongs to: by the signed tag of its address, by the messages it answers, or by its writer's own earlier mail. */
async function threadOfMail(tx: Tx, service: Service, mail: Incoming, read: ReadMail): Promise<Thread | null> {
  const { tag } = readTag(mail.recipient)
  if (tag && service.links.sign(replySecret(tag)) === tag.signature) {
    if (tag.kind === 'r') return { requestId: tag.id, followerId: null }
    const [follower] = await tx.select().from(followers).where(eq(followers.id, tag.id))
    if (follower) return { requestId: follower.requestId, followerId: follower.id }
  }
  for (const reference of [...read.references].reverse()) {
    const ours = /^<mail-(\d{1,10})\.([A-Za-z0-9_-]+)@/.exec(reference)
    if (!ours || service.links.sign(`mail:${ours[1]}`) !== ours[2]) continue
    const [sent] = await tx
      .select({ requestId: mails.requestId, followerId: mails.followerId })
      .from(mails)
      .where(eq(mails.id, Number(ours[1])))
    if (sent?.requestId) return { requestId: sent.requestId, followerId: sent.followerId }
  }
  if (!read.references.length) return null
  const earlier = await tx
    .select({ requestId: incomingMails.requestId, reporter: requests.reporterEmail })
    .from(incomingMails)
    .innerJoin(requests, eq(requests.id, incomingMails.requestId))
    .where(and(inArray(incomingMails.messageId, read.references.slice(-20)), inArray(incomingMails.state, ['request', 'joined'])))
  const own = earlier.find((row) => row.reporter === mail.sender)
  return own ? { requestId: own.requestId!, followerId: null } : null
}

async function lockThread(tx: Tx, site: Site, requestId: number) {
  const [request] = await tx
    .select()
    .from(requests)
    .where(and(eq(requests.id, requestId), eq(requests.siteId, site.id)))
    .for('update')
  return request ?? null
}

/** Pictures are written anew; anything else, also a picture that cannot be read, is kept as a document. All of them are kept. */
async function keepFiles(tx: Tx, siteId: number, read: ReadMail, to: { requestId: number; commentId?: number; shared: boolean }, now: Date): Promise<void> {
  for (const file of read.files) {
    const sent = { buffer: Buffer.from(file.content), originalname: file.name, mimetype: file.mime }
    if (!sent.buffer.length) continue
    const { content, ...row } = await asKept(sent)
    const large = content.length >= LARGE_FILE
    const storedId = large ? (await storeFile(tx, [content], now)).id : null
    await keepAttachment(tx, { siteId, ...to, ...row, content: large ? null : content, storedId, at: now })
  }
}

async function asKept(sent: { buffer: Buffer; originalname: string; mimetype: string }): Promise<KeptContent> {
  try {
    return await readFileSent(sent)
  } catch (error) {
    if (!(error instanceof Refusal)) throw error
    const name = sent.originalname.slice(0, 120) || 'file'
    return { kind: 'document', name, mime: 'application/octet-stream', width: null, height: null, bytes: sent.buffer.length, content: sent.buffer, thumb: null }
  }
}
