import { and, asc, eq, isNull, lte, sql } from 'drizzle-orm'
import * as contract from '#contract/field'
import type { LoneWork } from '#contract/field'
import { CHECK_IN_GRACE_MINUTES, isAlone, isOverdue } from '#core/field'
import { refuse } from '#core/kit'
import { isOver } from '#core/orders'
import { canAt, CLOCK, command, lookout, maySee, notAllowed, notFound, query, recordEvent, takeDue } from '#server/kit'
import type { Asker, Outgoing, Reader, Service, Works } from '#server/kit'
import { lockOrderById } from '#server/orders'
import { accounts, loneWatches, loneWork, orders, people, stints, technicians, vendors, visits } from '../tables'
import { jobCommand } from './jobCommand'
import { endWatch, everyMinutesOf, renew } from './loneRows'
import type { OnSite } from './onSite'
import { vendorThere } from './vendorThere'

const LOOK_EVERY_MS = 5_000

/** Whoever is there, our own or a vendor’s, is all right. @throws Refusal where nobody asks, or before they work */
export async function checkInOn({ tx, visit, order, at, tell }: OnSite): Promise<void> {
  const everyMinutes = await everyMinutesOf(tx, order.id)
  if (everyMinutes === null) refuse('not_alone', 'Nobody asks you to check in on this job.')
  const [watch] = await tx.select().from(loneWatches).where(eq(loneWatches.visitId, visit.id))
  if (!watch) refuse('clock_stands', 'Start the clock first: you are watched while you work.')
  // One that was recorded before the last says nothing new.
  if (at > watch.checkedAt) await renew(tx, visit.id, everyMinutes, at)
  await tell({ kind: 'lone.checkIn', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { wasTold: watch.toldAt !== null } })
}

export const checkIn = jobCommand(contract.checkIn, checkInOn)

/** Who is watched, and where they are called: our own people by their name; of a vendor whoever they say is there, or the firm. */
const WHO = {
  name: sql<string>`coalesce(${people.name}, ${vendorThere})`,
  phone: sql<string | null>`coalesce(${people.phone}, ${visits.therePhone}, ${vendors.phone})`,
}

async function loneWorkOf(db: Reader, orderId: number, now: Date): Promise<Outgoing<LoneWork>> {
  const rows = await db
    .select({ ...WHO, checkedAt: loneWatches.checkedAt, dueAt: loneWatches.dueAt })
    .from(loneWatches)
    .innerJoin(visits, eq(visits.id, loneWatches.visitId))
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(eq(visits.orderId, orderId))
    .orderBy(asc(WHO.name))
  return { everyMinutes: await everyMinutesOf(db, orderId), watched: rows.map((row) => ({ ...row, overdue: isOverdue(row.dueAt, now) })) }
}

async function seenOrder(db: Reader, who: Asker, orderId: number) {
  const [order] = await db.select({ id: orders.id, siteId: orders.siteId }).from(orders).where(eq(orders.id, orderId))
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  return order
}

export const readLoneWork = query(contract.readLoneWork, async ({ db, who, input, now }) => {
  await seenOrder(db, who, input.orderId)
  return loneWorkOf(db, input.orderId, now)
})

/** Whoever works on it already is watched from now on. */
export const setLoneWork = command(contract.setLoneWork, async ({ tx, who, input, now, tell }) => {
  const { orderId, everyMinutes } = input
  const { siteId } = await seenOrder(tx, who, orderId)
  if (!canAt(who, 'orders.edit', siteId)) throw notAllowed()
  const order = (await lockOrderById(tx, orderId))!
  if (isOver(order.state)) refuse('order_over', 'The work on it is over.')
  const before = await everyMinutesOf(tx, orderId)
  if (before === everyMinutes) return loneWorkOf(tx, orderId, now)
  if (everyMinutes === null) await tx.delete(loneWork).where(eq(loneWork.orderId, orderId))
  else await tx.insert(loneWork).values({ orderId, everyMinutes }).onDuplicateKeyUpdate({ set: { everyMinutes } })
  const running = await tx
    .select({ visitId: stints.visitId, kind: stints.kind })
    .from(stints)
    .innerJoin(visits, eq(visits.id, stints.visitId))
    .where(and(eq(stints.orderId, orderId), isNull(stints.endAt)))
  for (const { visitId, kind } of running)
    if (everyMinutes !== null && isAlone(kind)) await renew(tx, visitId, everyMinutes, now)
    else await endWatch(tx, visitId)
  await tell({ kind: 'lone.set', siteId, orderId, details: { everyMinutes } })
  return loneWorkOf(tx, orderId, now)
})

const isUnheard = (now: Date) => and(isNull(loneWatches.toldAt), lte(loneWatches.dueAt, new Date(now.getTime() - CHECK_IN_GRACE_MINUTES * 60_000)))

/** One look at those who should have said that they are all right; each is told of once. */
async function lookAtAlone(service: Service): Promise<void> {
  await takeDue(service, { table: loneWatches, where: isUnheard }, async (tx, now, most) => {
    const rows = await tx
      .select({ watch: loneWatches, siteId: orders.siteId, orderId: orders.id, ...WHO })
      .from(loneWatches)
      .innerJoin(visits, eq(visits.id, loneWatches.visitId))
      .innerJoin(orders, eq(orders.id, visits.orderId))
      .leftJoin(technicians, eq(technicians.id, visits.technicianId))
      .leftJoin(accounts, eq(accounts.id, technicians.accountId))
      .leftJoin(people, eq(people.id, accounts.personId))
      .leftJoin(vendors, eq(vendors.id, visits.vendorId))
      .where(isUnheard(now))
      .orderBy(asc(loneWatches.dueAt))
      .limit(most)
      .for('update', { skipLocked: true })
    for (const { watch, siteId, orderId, name, phone } of rows) {
      await tx.update(loneWatches).set({ toldAt: now }).where(eq(loneWatches.visitId, watch.visitId))
      await recordEvent(tx, CLOCK, now, {
        kind: 'lone.overdue',
        siteId,
        orderId,
        visitId: watch.visitId,
        details: { name, phone, dueAt: watch.dueAt.toISOString() },
      })
    }
    return rows.length
  })
}

export const fieldWorks: Works = (service) => [lookout('watching who works alone', LOOK_EVERY_MS, () => lookAtAlone(service))]
