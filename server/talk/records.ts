import { and, asc, eq, inArray, isNotNull, isNull, ne } from 'drizzle-orm'
import type { Said, Talk } from '#contract/field'
import { hears } from '#core/talk'
import type { Speaker } from '#core/talk'
import type { Outgoing, Reader } from '#server/kit'
import { attachments, comments, orderMessages, requestOrders, requests, vendors, visits } from '../tables'

/**
 * The second door of this room: what was said on an order, for the pages of those who are on it. It knows tables and kit
 * only, so that rooms which this one builds on may come in by it.
 */
interface Row extends Outgoing<Omit<Said, 'mine'>> {
  accountId: number | null
  visitId: number | null
}

/** Everything that was said on an order, in its order: to whomever, and what reporters wrote of the requests it answers. */
async function allSaid(db: Reader, orderId: number): Promise<Row[]> {
  const [said, photos, heard] = await Promise.all([
    db.select().from(orderMessages).where(eq(orderMessages.orderId, orderId)).orderBy(asc(orderMessages.at), asc(orderMessages.id)),
    db
      .select({ id: attachments.id, messageId: attachments.messageId })
      .from(attachments)
      .where(and(eq(attachments.orderId, orderId), isNotNull(attachments.messageId)))
      .orderBy(asc(attachments.id)),
    db
      .select({ comment: comments })
      .from(comments)
      .innerJoin(requestOrders, eq(requestOrders.requestId, comments.requestId))
      .where(and(eq(requestOrders.orderId, orderId), eq(comments.kind, 'message'), isNull(comments.messageId)))
      .orderBy(asc(comments.at), asc(comments.id)),
  ])
  const rows = [
    ...said.map(({ id, mark, speaker, audience, authorName: who, text, at, accountId, visitId }) => ({
      ...{ id, mark, speaker, audience, who, text, at, accountId, visitId },
      photos: photos.filter(({ messageId }) => messageId === id).map((photo) => ({ id: photo.id })),
    })),
    ...heard.map(({ comment: { id, authorName: who, text, at, accountId } }) => ({
      // Numbers of their own, beside those of what was said on the order.
      ...{ id: 1_000_000_000 + id, mark: null, who, text, at, accountId },
      ...{ speaker: accountId === null ? ('reporter' as const) : ('desk' as const), audience: 'reporter' as const, visitId: null, photos: [] },
    })),
  ]
  return rows.sort((a, b) => a.at.getTime() - b.at.getTime())
}

interface Listener {
  is: Speaker
  accountId: number | null
  /** Of the vendor. */
  visitId: number | null
}
const heardBy = (rows: readonly Row[], { is, accountId, visitId }: Listener): Outgoing<Said>[] =>
  rows
    .filter((said) => hears({ is, visitId }, said))
    .map(({ accountId: by, visitId: of, ...said }) => ({
      ...said,
      mine: is === 'vendor' ? said.speaker === 'vendor' && of === visitId : by !== null && by === accountId,
    }))

/** Names of those who reported what an order answers and can be written to. */
export async function reportersOf(db: Reader, orderId: number): Promise<{ requestId: number; name: string | null; email: string }[]> {
  const rows = await db
    .select({ requestId: requests.id, name: requests.reporterName, email: requests.reporterEmail })
    .from(requestOrders)
    .innerJoin(requests, eq(requests.id, requestOrders.requestId))
    .where(and(eq(requestOrders.orderId, orderId), isNotNull(requests.reporterEmail)))
  return rows.map(({ email, ...row }) => ({ ...row, email: email! }))
}

const toReporters = (reporters: readonly { name: string | null }[]): Talk['to'] =>
  reporters.length
    ? [{ audience: 'reporter', visitId: null, label: `${[...new Set(reporters.map(({ name }) => name ?? 'Somebody'))].join(' and ')}, who reported it` }]
    : []

/** For a technician who is on it: nobody’s address, nothing that is between desk and vendor. */
export async function jobTalk(db: Reader, orderId: number, accountId: number | null): Promise<Outgoing<Talk>> {
  const [rows, reporters] = await Promise.all([allSaid(db, orderId), reportersOf(db, orderId)])
  return {
    rows: heardBy(rows, { is: 'crew', accountId, visitId: null }),
    to: [{ audience: 'ours', visitId: null, label: 'The desk' }, ...toReporters(reporters)],
  }
}

/** For a vendor, by their pass: what is between them and the desk. */
export async function passTalk(db: Reader, orderId: number, visitId: number): Promise<Outgoing<Talk>> {
  const rows = await allSaid(db, orderId)
  return { rows: heardBy(rows, { is: 'vendor', accountId: null, visitId }), to: [{ audience: 'vendor', visitId, label: 'The desk' }] }
}

/** For the desk: all of it, and everybody who can be written to. */
export async function deskTalk(db: Reader, orderId: number, accountId: number | null): Promise<Outgoing<Talk>> {
  const [rows, reporters, sent] = await Promise.all([
    allSaid(db, orderId),
    reportersOf(db, orderId),
    db
      .select({ visitId: visits.id, technicianId: visits.technicianId, vendor: vendors.name })
      .from(visits)
      .leftJoin(vendors, eq(vendors.id, visits.vendorId))
      .where(and(eq(visits.orderId, orderId), ne(visits.state, 'recalled')))
      .orderBy(asc(visits.id)),
  ])
  // The last visit of each vendor is the one they look at.
  const last = new Map(sent.flatMap(({ vendor, visitId }) => (vendor ? [[vendor, visitId] as const] : [])))
  const others: Talk['to'] = [
    ...[...last].map(([name, visitId]) => ({ audience: 'vendor' as const, visitId, label: `${name}, vendor` })),
    ...toReporters(reporters),
  ]
  return {
    rows: heardBy(rows, { is: 'desk', accountId, visitId: null }),
    // Whoever is there comes first; without anybody, what is said among us is a note.
    to: sent.some(({ technicianId }) => technicianId)
      ? [{ audience: 'ours', visitId: null, label: 'Our people on it' }, ...others]
      : [...others, { audience: 'ours', visitId: null, label: 'The desk alone' }],
  }
}

/** Whether our people on a job may see what was said, or a photo that was never said anything with. */
export async function isForCrew(db: Reader, messageId: number | null): Promise<boolean> {
  if (messageId === null) return true
  const [said] = await db.select().from(orderMessages).where(eq(orderMessages.id, messageId))
  return !!said && hears({ is: 'crew', visitId: null }, said)
}

/** Of which vendor’s visit on an order something may be said to; null where there is none. */
export async function vendorVisit(db: Reader, orderId: number, visitId: number): Promise<number | null> {
  const [visit] = await db
    .select({ id: visits.id })
    .from(visits)
    .where(and(eq(visits.id, visitId), eq(visits.orderId, orderId), isNotNull(visits.vendorId), inArray(visits.state, ['planned', 'on_site', 'ended'])))
  return visit?.id ?? null
}
