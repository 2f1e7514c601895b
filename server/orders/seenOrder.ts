import { eq } from 'drizzle-orm'
import { maySee, notFound, statement } from '#server/kit'
import type { Asker, Reader } from '#server/kit'
import { orders } from '../tables'
import type { OrderRecord } from './orderRecord'

/** The order by itself. @throws ProblemReply 404 when it is not theirs to see */
export async function seenOrder(db: Reader, who: Asker, id: number): Promise<OrderRecord> {
  const [order] = await find(db, { id })
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  return order
}

const find = statement(['id'], (db, { id }) => db.select().from(orders).where(eq(orders.id, id)))
