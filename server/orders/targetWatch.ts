import { and, asc, eq, inArray, isNull, lte, or } from 'drizzle-orm'
import { isOver, standingAt } from '#core/orders'
import { CLOCK, lookout, recordEvent, takeDue } from '#server/kit'
import type { Service } from '#server/kit'
import { orders } from '../tables'

const LOOK_EVERY_MS = 5_000

/** Promises that became close or past since they were last told of. */
const isUntold = (now: Date) =>
  and(
    or(
      and(eq(orders.toldStanding, 'none'), lte(orders.closeAt, now)),
      and(eq(orders.toldStanding, 'close'), lte(orders.closeAt, now), lte(orders.completionDueAt, now)),
    ),
    isNull(orders.clockStoppedAt),
  )

/** One look at promises that become close or past, each made an event once for a promise. What is over counts as told, so that the look goes over it once only. */
const lookAtTargets = (service: Service): Promise<void> =>
  takeDue(service, { table: orders, where: isUntold }, async (tx, now, most) => {
    const found = await tx.select().from(orders).where(isUntold(now)).orderBy(asc(orders.id)).limit(most).for('update', { skipLocked: true })
    for (const order of found) {
      const running = !isOver(order.state) && !order.discardedAt
      const standing = standingAt(order, now) === 'past' ? 'past' : 'close'
      if (!running || order.toldStanding === standing) continue
      await recordEvent(tx, CLOCK, now, {
        kind: standing === 'past' ? 'order.past' : 'order.close_to',
        siteId: order.siteId,
        orderId: order.id,
        details: { dueAt: order.completionDueAt.toISOString() },
      })
      await tx.update(orders).set({ toldStanding: standing }).where(eq(orders.id, order.id))
    }
    const over = found.filter((order) => isOver(order.state) || order.discardedAt).map((order) => order.id)
    if (over.length) await tx.update(orders).set({ toldStanding: 'over' }).where(inArray(orders.id, over))
    return found.length
  })

export const targetWatch = (service: Service) => lookout('watching targets', LOOK_EVERY_MS, () => lookAtTargets(service))
