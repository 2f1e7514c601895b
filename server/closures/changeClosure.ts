import { randomUUID } from 'node:crypto'
import { and, eq, ne } from 'drizzle-orm'
import * as contract from '#contract/closures'
import { closureReasons, closureStanding, endedSooner, unseen } from '#core/closures'
import type { SpaceBooking, Span } from '#core/closures'
import { Refusal, refuse } from '#core/kit'
import { windowSays } from '#core/windows'
import { tellOccupants } from '#server/help/records'
import { canAt, command, conflict, maySee, notAllowed, notFound, preparedCommand } from '#server/kit'
import type { Asker, Reader, Service, Tx } from '#server/kit'
import { calendarOf, lockOrderById, seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { closures } from '../tables'
import type { KeptBooking } from '../tables'
import { askAbout, bookingSays } from './closureRows'
import type { Asked, ClosureRecord, PlaceRecord } from './closureRows'
import { closuresOf, isOpenFor, seenSpace } from './readClosures'
import { endClosure as endNow, keepClosure } from './records'

export const keptOf = ({ from, until, ...booking }: SpaceBooking, since?: true): KeptBooking => ({
  ...booking,
  from: from.toISOString(),
  until: until.toISOString(),
  ...(since ? { since } : {}),
})

interface Ready {
  place: PlaceRecord
  asked: Asked
}

/** Asks the bookings system before anything is locked: nobody waits for it but whoever wants to know. */
async function askFirst({ db, who, service }: { db: Reader; who: Asker; service: Service }, placeId: number, period: Span): Promise<Ready> {
  const place = await seenSpace(db, who, placeId)
  return { place, asked: period.until > period.from ? await askAbout(db, service, place, period) : { said: 'none', bookings: [], total: 0 } }
}

/** What falls into it has to have been shown before anything is done. @throws Refusal */
async function mustBeSeen(db: Reader, { place, asked }: Ready, seen: readonly string[]): Promise<void> {
  const fresh = unseen(asked.bookings, seen)
  if (!fresh.length) return
  const { zone } = await calendarOf(db, place.siteId)
  const said = fresh.slice(0, MOST_NAMED).map((one) => `${bookingSays(one)}, ${windowSays(one, zone)}`)
  const more = fresh.length > MOST_NAMED ? ` and ${fresh.length - MOST_NAMED} more` : ''
  refuse('booked', `Booked in it then: ${said.join('; ')}${more}. Look at what falls into it, and take it out of use again.`, 'seen')
}
const MOST_NAMED = 3

const othersOf = (tx: Tx, orderId: number, placeId: number, except: number) =>
  tx
    .select({ from: closures.fromAt, until: closures.untilAt })
    .from(closures)
    .where(and(eq(closures.orderId, orderId), eq(closures.placeId, placeId), eq(closures.state, 'kept'), ne(closures.id, except)))

const spanOf = ({ from, until }: { from: string; until: string }): Span => ({ from: new Date(from), until: new Date(until) })

export const closeSpace = preparedCommand(
  contract.closeSpace,
  ({ who, input, service }) => askFirst({ db: service.db, who, service }, input.placeId, spanOf(input)),
  async ({ tx, who, input, now, tell, service, ready }) => {
    const { orderId, placeId, reason, notice } = input
    const { place, asked } = ready
    const period = spanOf(input)
    const before = await seenOrder(tx, who, orderId)
    if (!canAt(who, 'orders.edit', before.siteId)) throw notAllowed()
    if (place.siteId !== before.siteId || place.kind !== 'space' || place.retiredAt) refuse('no_space', 'Choose a space of the site that is in use.', 'placeId')
    if (notice && !canAt(who, 'help.edit', before.siteId)) throw notAllowed()
    const wrong = closureReasons(period, [], now)
    if (wrong.length) throw new Refusal(wrong)
    await mustBeSeen(tx, ready, input.seen ?? [])
    const order = (await lockOrderById(tx, orderId))!
    mustBeOpen(order)
    const twice = closureReasons(period, await othersOf(tx, orderId, placeId, 0), now)
    if (twice.length) throw new Refusal(twice)
    const bulletinId = notice
      ? await tellOccupants(tx, {
          siteId: order.siteId,
          placeId,
          title: notice.title,
          text: notice.body,
          startsAt: period.from,
          endsAt: period.until,
          by: who.accountId,
        })
      : null
    const [saved] = await tx
      .insert(closures)
      .values({
        siteId: order.siteId,
        placeId,
        orderId,
        fromAt: period.from,
        untilAt: period.until,
        reason,
        state: 'kept',
        affects: asked.bookings.map((one) => keptOf(one)),
        bulletinId,
        uid: `closure-${randomUUID()}`,
        told: asked.said === 'none' ? 'none' : 'waiting',
        tryAt: now,
        createdBy: who.accountId,
        createdByName: who.name,
      })
      .$returningId()
    await tell({
      kind: 'closure.make',
      siteId: order.siteId,
      orderId,
      register: 'places',
      recordId: placeId,
      reason,
      details: { ...factsOf(saved!.id, place), from: period.from.toISOString(), until: period.until.toISOString(), affects: asked.total },
    })
    if (notice) await tell({ kind: 'help.bulletin', siteId: order.siteId, details: { title: notice.title, withdrawn: false } })
    return closuresOf(tx, service, who, order, now)
  },
)

const factsOf = (closureId: number, { code, name }: PlaceRecord) => ({ closureId, space: `${code} ${name}` })
function mustBeOpen(order: OrderRecord): void {
  if (!isOpenFor(order)) refuse('order_over', 'The work is done or given up: nothing is taken out of use for it any more.')
}

/** A closure as who changes it saw it, with its order, both held. @throws ProblemReply 404, 403, 409 */
async function lockClosure(tx: Tx, who: Asker, id: number, version: number): Promise<{ closure: ClosureRecord; order: OrderRecord }> {
  const [found] = await tx.select({ orderId: closures.orderId }).from(closures).where(eq(closures.id, id))
  const order = found && (await lockOrderById(tx, found.orderId))
  if (!order || !maySee(who, order.siteId)) throw notFound('closure')
  if (!canAt(who, 'orders.edit', order.siteId)) throw notAllowed()
  const [closure] = (await tx.select().from(closures).where(eq(closures.id, id)).for('update')) as [ClosureRecord]
  if (closure.version !== version) throw conflict(closure.version, [{ field: 'until', theirs: closure.untilAt.toISOString(), yours: null }])
  return { closure, order }
}

/** From when on it can still be changed: what has begun began when it began. */
const periodOf = (closure: ClosureRecord, asked: Span, now: Date): Span => ({ from: closure.fromAt <= now ? closure.fromAt : asked.from, until: asked.until })

export const moveClosure = preparedCommand(
  contract.moveClosure,
  async ({ who, input, now, service }) => {
    const { db } = service
    const [found] = await db.select().from(closures).where(eq(closures.id, input.id))
    if (!found || !maySee(who, found.siteId)) throw notFound('closure')
    const { from, until } = periodOf(found, spanOf(input), now)
    return askFirst({ db, who, service }, found.placeId, { from: from < now ? now : from, until })
  },
  async ({ tx, who, input, now, tell, service, ready }) => {
    const { place, asked } = ready
    const { closure, order } = await lockClosure(tx, who, input.id, input.version)
    mustBeOpen(order)
    const period = periodOf(closure, spanOf(input), now)
    const wrong = closureReasons(period, [], now)
    if (wrong.length) throw new Refusal(wrong)
    if (closureStanding({ state: closure.state, from: closure.fromAt, until: closure.untilAt }, now) === 'over' || closure.state === 'called_off')
      refuse('over', 'It is over: take the space out of use anew.')
    await mustBeSeen(tx, ready, [...(input.seen ?? []), ...closure.affects.map(({ key }) => key)])
    const twice = closureReasons(period, await othersOf(tx, order.id, place.id, closure.id), now)
    if (twice.length) throw new Refusal(twice)
    const affects = asked.said === 'bookings' ? asked.bookings.map((one) => keptOf(one)) : closure.affects
    await keepClosure(tx, closure, { fromAt: period.from, untilAt: period.until, plannedUntilAt: null, affects }, now)
    await tell({
      kind: 'closure.move',
      siteId: order.siteId,
      orderId: order.id,
      register: 'places',
      recordId: place.id,
      details: { ...factsOf(closure.id, place), from: period.from.toISOString(), until: period.until.toISOString(), affects: affects.length },
    })
    return closuresOf(tx, service, who, order, now)
  },
)

export const endClosure = command(contract.endClosure, async ({ tx, who, input, now, service }) => {
  const { closure, order } = await lockClosure(tx, who, input.id, input.version)
  const sooner = endedSooner({ state: closure.state, from: closure.fromAt, until: closure.untilAt }, now)
  if (!sooner) refuse('over', 'It is over already.')
  await endNow(tx, who, closure, sooner, order.siteId, now)
  return closuresOf(tx, service, who, order, now)
})
