import { and, asc, eq, lt } from 'drizzle-orm'
import { CLOCK, lookout, mail, notice, recordEvent, takeDue } from '#server/kit'
import type { Mails, Service, Works } from '#server/kit'
import { orderOf } from '#server/orders'
import { accounts, bookings, equipment, people, sites } from '../tables'

const LOOK_EVERY_MS = 5_000

const isLate = (now: Date) => and(eq(bookings.state, 'out'), eq(bookings.toldLate, false), lt(bookings.untilAt, now))

/** One look at equipment that should be back, each told of once for its end. */
async function lookAtLate(service: Service): Promise<void> {
  await takeDue(service, { table: bookings, where: isLate }, async (tx, now, most) => {
    const rows = await tx
      .select({ booking: bookings, tag: equipment.tag, name: equipment.name })
      .from(bookings)
      .innerJoin(equipment, eq(equipment.id, bookings.equipmentId))
      .where(isLate(now))
      .orderBy(asc(bookings.id))
      .limit(most)
      .for('update', { skipLocked: true })
    for (const { booking, tag, name } of rows) {
      await tx.update(bookings).set({ toldLate: true }).where(eq(bookings.id, booking.id))
      await recordEvent(tx, CLOCK, now, {
        kind: 'booking.late',
        siteId: booking.siteId,
        orderId: booking.orderId,
        register: 'equipment',
        recordId: booking.equipmentId,
        details: {
          equipment: `${tag} ${name}`,
          equipmentId: booking.equipmentId,
          bookingId: booking.id,
          has: booking.outTo ?? '',
          until: booking.untilAt.toISOString(),
        },
      })
    }
    return rows.length
  })
}

export const bookingWorks: Works = (service) => [lookout('watching lent equipment', LOOK_EVERY_MS, () => lookAtLate(service))]

/** Who handed it out and who leads the order hear that it is not back; the desk by mail. */
export const bookingMails = {
  'booking.late': async (telling) => {
    const { event, tx, service } = telling
    const { bookingId, equipment: called, has } = event.details as { bookingId: number; equipment: string; has: string }
    const { order } = await orderOf(telling)
    const [row] = await tx
      .select({ outBy: bookings.outBy, desk: sites.deskEmail, email: people.email })
      .from(bookings)
      .innerJoin(sites, eq(sites.id, bookings.siteId))
      .leftJoin(accounts, eq(accounts.id, bookings.outBy))
      .leftJoin(people, eq(people.id, accounts.personId))
      .where(eq(bookings.id, bookingId))
    if (!row) return
    const sentence = `${called} should be back; ${has} has it for ${order.number}.`
    const page = `/registers/equipment/${event.recordId}`
    await notice(
      telling,
      [row.outBy, order.leadId].filter((id) => id !== null),
      sentence,
      page,
    )
    const text = `${sentence}\n\nTake it back, or book it for longer:\n${service.publicUrl()}${page}\n`
    await mail(telling, 'booking.late', row.email ?? row.desk, sentence.slice(0, 180), text)
  },
} satisfies Mails
