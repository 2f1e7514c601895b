import { and, asc, eq, lte } from 'drizzle-orm'
import { unseen, waitBefore } from '#core/closures'
import { windowSays } from '#core/windows'
import { anyLike, CLOCK, logger, lookout, mail, notice, recordEvent } from '#server/kit'
import type { Mails, Service, Works } from '#server/kit'
import { orderOf } from '#server/orders'
import { accounts, closures, orders, people, places, sites } from '../tables'
import { askAbout, bookingSays, systemOf } from './closureRows'
import type { ClosureRecord, PlaceRecord } from './closureRows'
import { Silent } from './bookingsSystem'
import { keptOf } from './changeClosure'

const LOOK_EVERY_MS = 1_000
/** Who has taken one up tells it within that, or somebody else does. */
const LEASE_MS = 60_000

interface Told {
  closure: ClosureRecord
  place: PlaceRecord
  order: typeof orders.$inferSelect
  site: typeof sites.$inferSelect
}

const toTellAt = (now: Date) => and(eq(closures.told, 'waiting'), lte(closures.tryAt, now))

/** Takes up the next closure the bookings system is to be told of, so that no other server does. */
async function takeUp(service: Service, now: Date): Promise<Told | null> {
  if (!(await anyLike(service.writer, closures, toTellAt(now)))) return null
  return service.writer.transaction(async (tx) => {
    const [closure] = await tx
      .select()
      .from(closures)
      .where(toTellAt(now))
      .orderBy(asc(closures.tryAt), asc(closures.id))
      .limit(1)
      .for('update', { skipLocked: true })
    if (!closure) return null
    await tx
      .update(closures)
      .set({ tryAt: new Date(now.getTime() + LEASE_MS) })
      .where(eq(closures.id, closure.id))
    const [rest] = await tx
      .select({ place: places, order: orders, site: sites })
      .from(orders)
      .innerJoin(places, eq(places.id, closure.placeId))
      .innerJoin(sites, eq(sites.id, closure.siteId))
      .where(eq(orders.id, closure.orderId))
    return { closure, ...rest! }
  })
}

/** Tells the bookings system of a closure as it is; what is heard of it is kept, and it is told again where it changed meanwhile. */
async function tellOne(service: Service, { closure, place, order, site }: Told, now: Date): Promise<void> {
  const system = systemOf(service)
  let heard: Partial<ClosureRecord>
  try {
    if (!system) heard = { told: 'none' }
    else if (closure.state === 'called_off') {
      await system.remove(place.code, closure.uid)
      heard = { told: 'told', etag: null }
    } else {
      const event = {
        uid: closure.uid,
        version: closure.version,
        from: closure.fromAt,
        until: closure.untilAt,
        summary: `Out of use: ${closure.reason}`,
        description: `${order.number} ${order.summary}\n${site.name}, ${site.deskPhone}`,
        location: `${place.code} ${place.name}`,
        url: `${service.publicUrl()}/c/${site.code}`,
      }
      const kept = await system.keep(place.code, event, closure.etag, now)
      heard = kept === 'unknown' ? { told: 'unknown' } : { told: 'told', etag: kept.etag }
    }
  } catch (error) {
    if (!(error instanceof Silent)) logger.error({ error }, 'telling the bookings system failed; it is told again')
    const problem = error instanceof Silent ? error.message : 'It could not be told.'
    const attempts = closure.attempts + 1
    await service.writer
      .update(closures)
      .set({ attempts, problem, tryAt: new Date(now.getTime() + waitBefore(attempts)) })
      .where(and(eq(closures.id, closure.id), eq(closures.version, closure.version)))
    return
  }
  await service.writer.transaction(async (tx) => {
    const [current] = await tx.select().from(closures).where(eq(closures.id, closure.id)).for('update')
    if (!current) return
    const isCurrent = current.version === closure.version
    await tx
      .update(closures)
      .set({
        ...heard,
        toldVersion: closure.version,
        toldAt: now,
        // It changed while it was told: what it is now is told next.
        ...(isCurrent ? { attempts: 0, problem: null } : { told: 'waiting' as const, tryAt: now }),
      })
      .where(eq(closures.id, closure.id))
    if (heard.told === 'told' || heard.told === 'unknown')
      await recordEvent(tx, CLOCK, now, {
        kind: 'closure.told',
        siteId: closure.siteId,
        orderId: closure.orderId,
        register: 'places',
        recordId: closure.placeId,
        details: { closureId: closure.id, space: `${place.code} ${place.name}`, how: heard.told },
      })
  })
  if (heard.told === 'told' && closure.state === 'kept' && closure.untilAt > now) await lookForNew(service, { closure, place, order, site }, now)
  service.publisher.nudge()
}

/** Somebody may have booked it between being asked and being told: whoever took it out of use hears of that. */
async function lookForNew(service: Service, { closure, place, site }: Told, now: Date): Promise<void> {
  const from = closure.fromAt > now ? closure.fromAt : now
  const { bookings } = await askAbout(service.db, service, place, { from, until: closure.untilAt })
  const fresh = unseen(
    bookings,
    closure.affects.map(({ key }) => key),
  )
  if (!fresh.length) return
  await service.writer.transaction(async (tx) => {
    const [current] = await tx.select().from(closures).where(eq(closures.id, closure.id)).for('update')
    if (!current || current.version !== closure.version) return
    await tx
      .update(closures)
      .set({ affects: [...current.affects, ...fresh.map((one) => keptOf(one, true))] })
      .where(eq(closures.id, closure.id))
    await recordEvent(tx, CLOCK, now, {
      kind: 'closure.clash',
      siteId: closure.siteId,
      orderId: closure.orderId,
      register: 'places',
      recordId: closure.placeId,
      details: {
        closureId: closure.id,
        space: `${place.code} ${place.name}`,
        bookings: fresh.slice(0, 5).map((one) => `${bookingSays(one)}, ${windowSays(one, site.calendar.zone)}`),
      },
    })
  })
}

async function tellAll(service: Service): Promise<void> {
  for (;;) {
    const now = service.clock()
    const next = await takeUp(service, now)
    if (!next) return
    await tellOne(service, next, now)
  }
}

export const closureWorks: Works = (service) =>
  service.config.caldavUrl ? [lookout('telling the bookings system', LOOK_EVERY_MS, () => tellAll(service))] : []

/** Who took a space out of use and who leads the order hear what became of it. */
export const closureMails = {
  'closure.clash': async (telling) => {
    const { event, tx, service } = telling
    const { closureId, space, bookings } = event.details as { closureId: number; space: string; bookings: string[] }
    const { order, site } = await orderOf(telling)
    const [made] = await tx
      .select({ by: closures.createdBy, email: people.email })
      .from(closures)
      .leftJoin(accounts, eq(accounts.id, closures.createdBy))
      .leftJoin(people, eq(people.id, accounts.personId))
      .where(eq(closures.id, closureId))
    const sentence = `Booked meanwhile in ${space}, out of use for ${order.number}: ${bookings.join('; ')}`
    await notice(
      telling,
      [made?.by, order.leadId].filter((id) => typeof id === 'number'),
      sentence,
    )
    const page = `${service.publicUrl()}/desk/planning/order/${order.id}`
    await mail(
      telling,
      'closure.clash',
      made?.email ?? site.deskEmail,
      `Booked meanwhile: ${space}`.slice(0, 180),
      `${sentence}.\n\nTell them, or give the space back for that time:\n${page}\n`,
    )
  },
  'closure.end': async (telling) => {
    const { event, tx } = telling
    const { closureId, space } = event.details as { closureId: number; space: string }
    const { order } = await orderOf(telling)
    const [made] = await tx.select({ by: closures.createdBy }).from(closures).where(eq(closures.id, closureId))
    const whom = [made?.by, order.leadId].filter((id): id is number => typeof id === 'number' && id !== event.actorId)
    await notice(telling, whom, `${space} is back in use sooner than planned: ${order.number} is done with it.`)
  },
} satisfies Mails
