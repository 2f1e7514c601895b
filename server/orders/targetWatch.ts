import { and, asc, eq, inArray, isNull, lte, or } from 'drizzle-orm'
import { isOver, standingAt } from '#core/orders'
import { CLOCK, lookout, recordEvent } from '#server/kit'
import type { Service } from '#server/kit'
import { orders } from '../tables'

const LOOK_EVERY_MS = 5_000
const BATCH = 200

/**
 * One look at promises that become close or past, each made an event once for a promise; answers how many were told
 * of. What is over counts as told, so that the look goes over it once only. Several servers share the rows, none
 * waits for another.
 */
async function lookAtTargets(service: Service): Promise<number> {
  const now = service.clock()
  let told = 0
  for (;;) {
    const { rows, events } = await service.writer.transaction(
      async (tx) => {
        const found = await tx
          .select()
          .from(orders)
          .where(
            and(
              or(
                and(eq(orders.toldStanding, 'none'), lte(orders.closeAt, now)),
                and(eq(orders.toldStanding, 'close'), lte(orders.closeAt, now), lte(orders.completionDueAt, now)),
              ),
              isNull(orders.clockStoppedAt),
            ),
          )
          .orderBy(asc(orders.id))
          .limit(BATCH)
          .for('update', { skipLocked: true })
        let made = 0
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
          made++
        }
        const over = found.filter((order) => isOver(order.state) || order.discardedAt).map((order) => order.id)
        if (over.length) await tx.update(orders).set({ toldStanding: 'over' }).where(inArray(orders.id, over))
        return { rows: found.length, events: made }
      },
      { isolationLevel: 'read committed' },
    )
    told += events
    if (events) service.publisher.nudge()
    if (rows < BATCH) return told
  }
}

export const targetWatch = (service: Service) => lookout('watching targets', LOOK_EVERY_MS, () => lookAtTargets(service))
