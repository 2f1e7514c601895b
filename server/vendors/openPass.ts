import { and, eq, gt, gte, isNull, or } from 'drizzle-orm'
import { SEEN_IN_FIELD } from '#core/orders'
import { ProblemReply, sha256 } from '#server/kit'
import type { Reader, Tx } from '#server/kit'
import { lockOrderById } from '#server/orders'
import { events, orders, sites, vendorPasses, vendors, visits } from '../tables'

/** The one job a pass opens. @throws ProblemReply 404 when unknown, expired, revoked or not approved */
export async function openPass(db: Reader, token: string, now: Date) {
  const [found] = await db
    .select({ pass: vendorPasses, visit: visits, order: orders, vendor: vendors, site: sites })
    .from(vendorPasses)
    .innerJoin(visits, eq(visits.id, vendorPasses.visitId))
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .innerJoin(vendors, eq(vendors.id, visits.vendorId))
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .where(and(eq(vendorPasses.tokenHash, sha256(token)), gt(vendorPasses.expiresAt, now), or(isNull(vendorPasses.revokedAt), eq(visits.answer, 'declined'))))
  if (found?.visit.answer === 'declined')
    throw new ProblemReply(410, 'You declined this job', `The desk has been told. If you can come after all, call ${found.site.deskPhone}.`)
  const open =
    found &&
    found.visit.state !== 'recalled' &&
    (SEEN_IN_FIELD.includes(found.order.state) || found.visit.state === 'ended') &&
    !(await reopenedSince(db, found.order.id, found.visit.endedAt))
  if (!found || !open)
    throw new ProblemReply(404, 'The link does not work', 'It has expired, was taken back, or was not copied whole. Call the desk that sent it.')
  return found
}

/** An order that was opened again after this visit ended is another job: the old pass tells nothing of it. */
async function reopenedSince(db: Reader, orderId: number, endedAt: Date | null): Promise<boolean> {
  if (!endedAt) return false
  const [reopened] = await db
    .select({ id: events.id })
    .from(events)
    .where(and(eq(events.orderId, orderId), eq(events.kind, 'order.reopen'), gte(events.at, endedAt)))
    .limit(1)
  return reopened !== undefined
}

export type OpenPass = Awaited<ReturnType<typeof openPass>>

/** The same, with the order locked for a change; the vendor acts by name. */
export async function lockPass(tx: Tx, token: string, now: Date) {
  const { order } = await openPass(tx, token, now)
  const locked = await lockOrderById(tx, order.id)
  const found = await openPass(tx, token, now)
  return { ...found, order: locked!, worker: { accountId: null, name: found.vendor.name } }
}
