import { eq } from 'drizzle-orm'
import { PRIORITIES } from '#core/requests'
import type { Priority } from '#core/requests'
import { endClosures } from '#server/closures/records'
import { recordEvent, takeNumber } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { orders, orderShares } from '../tables'
import type { OrderRecord } from './orderRecord'
import { dueIn, promiseFor } from './targetOf'

type Columns = typeof orders.$inferInsert
/** What is known of an order when it begins: what it is about, how urgent, since when its promise runs, and who pays. */
type Beginning = Pick<Columns, 'siteId' | 'summary' | 'description'> &
  Partial<
    Pick<
      Columns,
      | 'placeId'
      | 'assetId'
      | 'categoryId'
      | 'tradeId'
      | 'vendorId'
      | 'consequence'
      | 'urgency'
      | 'hazardSeverity'
      | 'hazardLikelihood'
      | 'prioritySentence'
      | 'contactName'
      | 'contactPhone'
      | 'outsideReference'
      | 'kind'
      | 'teamId'
      | 'leadId'
      | 'supervisorId'
      | 'estimateMinor'
      | 'leadOrderId'
    >
  > & {
    priority: Priority
    promisedFrom: Date
    payerId: number
    /** Days until it is to be done, where that is not what its priority promises. */
    dueDays?: number | null
  }

/** A draft led by whoever makes it, at the cost of one payer. `details` say where it came from. */
export async function beginOrder(
  tx: Tx,
  who: Asker,
  now: Date,
  beginning: Beginning,
  details: { request?: string; template?: string; findings?: string; callBackOf?: string },
): Promise<{ id: number; number: string }> {
  const { promisedFrom, payerId, dueDays, ...columns } = beginning
  const { siteId, priority, categoryId } = columns
  const promise = dueDays
    ? await dueIn(tx, siteId, priority, promisedFrom, categoryId ?? null, dueDays)
    : await promiseFor(tx, siteId, priority, promisedFrom, categoryId ?? null)
  const number = await takeNumber(tx, siteId, 'order')
  const [saved] = await tx
    .insert(orders)
    .values({
      kind: 'repair',
      leadId: who.accountId,
      ...columns,
      ...promise,
      number,
      state: 'draft',
      priorityRank: PRIORITIES.indexOf(priority) + 1,
      createdAt: now,
      createdBy: who.accountId,
    })
    .$returningId()
  const { id } = saved!
  await tx.insert(orderShares).values({ orderId: id, payerId, shareBp: 10_000, position: 0 })
  await recordEvent(tx, who, now, { kind: 'order.create', siteId, orderId: id, to: 'draft', details })
  return { id, number }
}

/** An order is taken back as if it had not been made; it stays to be found and put back. */
export async function takeBackOrder(tx: Tx, who: Asker, now: Date, order: OrderRecord, details: { request: string }): Promise<void> {
  await tx
    .update(orders)
    .set({ discardedAt: now, version: order.version + 1 })
    .where(eq(orders.id, order.id))
  await endClosures(tx, who, order, now)
  await recordEvent(tx, who, now, { kind: 'order.discard', siteId: order.siteId, orderId: order.id, from: order.state, to: order.state, details })
}
