import { and, asc, eq, inArray, isNull } from 'drizzle-orm'
import * as contract from '#contract/bookings'
import { bookingReasons, clashesWith, handOutReasons, hireDays } from '#core/bookings'
import type { BookingState, Period } from '#core/bookings'
import { Refusal } from '#core/kit'
import { isFinished, isOver } from '#core/orders'
import { canAt, command, conflict, maySee, notAllowed, notFound } from '#server/kit'
import type { Asker, Reader, Tell, Tx } from '#server/kit'
import { weighPlan } from '#server/methods'
import { lockOrderById } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { bookings, equipment } from '../tables'
import { bookingRow, dayAt, lockEquipment, othersOf } from './bookingRows'
import type { BookingRecord } from './bookingRows'

type Equipment = typeof equipment.$inferSelect

/** What is in the way of a period, and why it cannot be booked for it. */
export async function heldAgainst(db: Reader, piece: Equipment, period: Period, except: number | null, now: Date) {
  const clashes = clashesWith(period, await othersOf(db, piece.id, except), now)
  // The instant it ends on is no longer part of it.
  const lastDay = await dayAt(db, piece.siteId, new Date(Math.max(period.from.getTime(), period.until.getTime() - 1)))
  return { clashes, reasons: bookingReasons({ ...period, inspectedUntil: piece.inspectedUntil, lastDay }, clashes) }
}

async function mustBeFree(tx: Tx, piece: Equipment, period: Period, except: number | null, now: Date): Promise<void> {
  const { reasons } = await heldAgainst(tx, piece, period, except, now)
  if (reasons.length) throw new Refusal(reasons)
}

const called = ({ tag, name }: Equipment) => `${tag} ${name}`

export const bookEquipment = command(contract.bookEquipment, async ({ tx, who, input, now, tell }) => {
  const { orderId, equipmentId } = input
  const period = { from: new Date(input.from), until: new Date(input.until) }
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  if (!canAt(who, 'orders.edit', order.siteId)) throw notAllowed()
  if (isFinished(order.state) || isOver(order.state) || order.discardedAt)
    throw new Refusal([{ code: 'order_over', sentence: 'The order is over: nothing is booked for it any more.' }])
  const piece = await lockEquipment(tx, who, equipmentId)
  if (piece.siteId !== order.siteId || piece.retiredAt)
    throw new Refusal([{ code: 'equipment_unknown', sentence: 'Choose equipment of the site of the order that is in use.', field: 'equipmentId' }])
  if (period.until <= now) throw new Refusal([{ code: 'in_the_past', sentence: 'Choose a time that has not passed.', field: 'until' }])
  await mustBeFree(tx, piece, period, null, now)
  const [saved] = await tx
    .insert(bookings)
    .values({ siteId: order.siteId, equipmentId, orderId, fromAt: period.from, untilAt: period.until, state: 'booked' })
    .$returningId()
  const facts = { equipment: called(piece), equipmentId, from: period.from.toISOString(), until: period.until.toISOString() }
  await weighPlan(tx, order, now)
  await tell({ kind: 'booking.make', siteId: order.siteId, orderId, register: 'equipment', recordId: equipmentId, details: facts })
  return bookingRow(tx, saved!.id, now)
})

interface Locked {
  booking: BookingRecord
  piece: Equipment
  order: OrderRecord
}

/** The booking as who changes it saw it, with its order and its piece, held in that order. @throws ProblemReply 404, 403, 409 */
async function lockBooking(
  tx: Tx,
  who: Asker,
  { id, version }: { id: number; version: number },
  permission: 'orders.edit' | 'orders.dispatch',
): Promise<Locked> {
  const [found] = await tx.select({ equipmentId: bookings.equipmentId, orderId: bookings.orderId }).from(bookings).where(eq(bookings.id, id))
  if (!found) throw notFound('booking')
  const order = (await lockOrderById(tx, found.orderId))!
  const piece = await lockEquipment(tx, who, found.equipmentId)
  const [booking] = (await tx.select().from(bookings).where(eq(bookings.id, id)).for('update')) as [BookingRecord]
  if (!canAt(who, permission, booking.siteId)) throw notAllowed()
  if (booking.version !== version) throw conflict(booking.version, [{ field: 'state', theirs: booking.state, yours: null }])
  return { booking, piece, order }
}

const change = (tx: Tx, { id, version }: BookingRecord, fields: Partial<typeof bookings.$inferInsert>) =>
  tx
    .update(bookings)
    .set({ ...fields, version: version + 1 })
    .where(eq(bookings.id, id))

const told = ({ booking, piece }: Locked) => ({
  siteId: booking.siteId,
  orderId: booking.orderId,
  register: 'equipment' as const,
  recordId: piece.id,
})

export const moveBooking = command(contract.moveBooking, async ({ tx, who, input, now, tell }) => {
  const locked = await lockBooking(tx, who, input, 'orders.edit')
  const { booking, piece } = locked
  if (booking.state !== 'booked' && booking.state !== 'out') throw new Refusal([{ code: 'wrong_state', sentence: 'It is over: book it anew.' }])
  // What is handed out began when it began.
  const period = { from: booking.state === 'out' ? booking.fromAt : new Date(input.from), until: new Date(input.until) }
  await mustBeFree(tx, piece, period, booking.id, now)
  await change(tx, booking, { fromAt: period.from, untilAt: period.until, toldLate: false })
  const facts = { equipment: called(piece), equipmentId: piece.id, from: period.from.toISOString(), until: period.until.toISOString() }
  await weighPlan(tx, locked.order, now)
  await tell({ kind: 'booking.move', ...told(locked), details: facts })
  return bookingRow(tx, booking.id, now)
})

export const cancelBooking = command(contract.cancelBooking, async ({ tx, who, input, now, tell }) => {
  const locked = await lockBooking(tx, who, input, 'orders.edit')
  const { booking, piece } = locked
  if (booking.state !== 'booked')
    throw new Refusal([{ code: 'wrong_state', sentence: booking.state === 'out' ? 'It is handed out: take it back instead.' : 'It is over already.' }])
  await change(tx, booking, { state: 'cancelled' })
  await weighPlan(tx, locked.order, now)
  await tell({ kind: 'booking.cancel', ...told(locked), details: { equipment: called(piece), equipmentId: piece.id } })
  return bookingRow(tx, booking.id, now)
})

/** What was done, when and by whom, and where it is told. */
interface Hand {
  tx: Tx
  at: Date
  by: number | null
  tell: Tell
}

/** @throws Refusal while somebody else has it, or its inspection has ended */
async function handOutTo({ tx, at, by, tell }: Hand, locked: Locked, to: string): Promise<void> {
  const { booking, piece } = locked
  const withOther = (await othersOf(tx, piece.id, booking.id)).find(({ state }) => state === 'out')
  const reasons = handOutReasons({ state: booking.state, inspectedUntil: piece.inspectedUntil }, await dayAt(tx, piece.siteId, at), withOther?.has ?? null)
  if (reasons.length) throw new Refusal(reasons)
  // Handed out sooner than it was booked for, it is in nobody’s way either.
  if (at < booking.fromAt) await mustBeFree(tx, piece, { from: at, until: booking.untilAt }, booking.id, at)
  await change(tx, booking, {
    state: 'out',
    outAt: at,
    outBy: by,
    outTo: to,
    perDayMinor: piece.perDayMinor,
    ...(at < booking.fromAt ? { fromAt: at } : {}),
  })
  await tell({ kind: 'booking.handOut', ...told(locked), details: { equipment: called(piece), equipmentId: piece.id, to } })
}

/** @throws Refusal while nobody has it */
async function takeBack({ tx, at, tell }: Hand, locked: Locked, note: string | null): Promise<void> {
  const { booking, piece } = locked
  if (booking.state !== 'out') throw new Refusal([{ code: 'wrong_state', sentence: 'It is not handed out.' }])
  const outAt = booking.outAt ?? booking.fromAt
  // What was heard of late never comes back before it went.
  const backAt = at < outAt ? outAt : at
  await change(tx, booking, { state: 'back', backAt, hiredDays: hireDays({ from: outAt, until: backAt }), note })
  await tell({ kind: 'booking.giveBack', ...told(locked), reason: note, details: { equipment: called(piece), equipmentId: piece.id } })
}

export const handOut = command(contract.handOut, async ({ tx, who, input, now, tell }) => {
  const locked = await lockBooking(tx, who, input, 'orders.dispatch')
  await handOutTo({ tx, at: now, by: who.accountId, tell }, locked, input.to)
  return bookingRow(tx, locked.booking.id, now)
})

export const giveBack = command(contract.giveBack, async ({ tx, who, input, now, tell }) => {
  const locked = await lockBooking(tx, who, input, 'orders.dispatch')
  await takeBack({ tx, at: now, by: who.accountId, tell }, locked, input.note || null)
  return bookingRow(tx, locked.booking.id, now)
})

/** Whoever is on a job, as they take equipment along and bring it back. */
interface OnSite extends Hand {
  /** Locked. */
  order: OrderRecord
  equipmentId: number
}

/** The piece, of the site of the order, held. @throws Refusal at `equipmentId` */
async function lockPiece({ tx, order, equipmentId }: OnSite): Promise<Equipment> {
  const [piece] = await tx
    .select()
    .from(equipment)
    .where(and(eq(equipment.id, equipmentId), eq(equipment.siteId, order.siteId), isNull(equipment.retiredAt)))
    .for('update')
  if (!piece) throw new Refusal([{ code: 'equipment_unknown', sentence: 'There is no such equipment in use at this site.', field: 'equipmentId' }])
  return piece
}

async function bookingHere({ tx, order, equipmentId }: OnSite, states: BookingState[]): Promise<BookingRecord | undefined> {
  const [booking] = await tx
    .select()
    .from(bookings)
    .where(and(eq(bookings.orderId, order.id), eq(bookings.equipmentId, equipmentId), inArray(bookings.state, states)))
    .orderBy(asc(bookings.fromAt))
    .limit(1)
    .for('update')
  return booking
}

/**
 * Takes a piece along for a job: what is booked for it, or what nobody has booked up to the end of the visit.
 * @param until when it should be back, where it is not booked yet
 * @throws Refusal at `equipmentId`, or for what is in the way
 */
export async function takeAlong(hand: OnSite, to: string, until: Date): Promise<void> {
  const { tx, at, order, equipmentId, tell } = hand
  const piece = await lockPiece(hand)
  if (await bookingHere(hand, ['out'])) return
  const booked = await bookingHere(hand, ['booked'])
  if (booked) return handOutTo(hand, { booking: booked, piece, order }, to)
  const period = { from: at, until }
  await mustBeFree(tx, piece, period, null, at)
  const [saved] = await tx
    .insert(bookings)
    .values({ siteId: order.siteId, equipmentId, orderId: order.id, fromAt: period.from, untilAt: period.until, state: 'booked' })
    .$returningId()
  const facts = { equipment: called(piece), equipmentId, from: period.from.toISOString(), until: period.until.toISOString() }
  await tell({ kind: 'booking.make', siteId: order.siteId, orderId: order.id, register: 'equipment', recordId: equipmentId, details: facts })
  await weighPlan(tx, order, at)
  const [booking] = await tx.select().from(bookings).where(eq(bookings.id, saved!.id))
  return handOutTo(hand, { booking: booking!, piece, order }, to)
}

/** Brings a piece back from a job. @throws Refusal while it is not with it */
export async function bringAlongBack(hand: OnSite, note: string | null): Promise<void> {
  const piece = await lockPiece(hand)
  const booking = (await bookingHere(hand, ['out'])) ?? (await bookingHere(hand, ['booked', 'back']))
  if (!booking) throw new Refusal([{ code: 'wrong_state', sentence: `${called(piece)} is not with this job.`, field: 'equipmentId' }])
  // Said twice, once from each of two phones, it is back all the same.
  if (booking.state !== 'back') await takeBack(hand, { booking, piece, order: hand.order }, note)
}
