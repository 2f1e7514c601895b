import { and, eq, gt, inArray, isNotNull, isNull, lt, ne, or } from 'drizzle-orm'
import { DateTime } from 'luxon'
import { shiftOn } from '#core/people'
import { endOfStint, refuseOverlap } from '#core/field'
import { refuse } from '#core/kit'
import { CHARGED_STINTS, chargedMinutes, isCharged, labourCost, rateAt } from '#core/ledger'
import type { StintKind } from '#core/ledger'
import { moveOrder } from '#core/orders'
import { beginVisit } from '#server/dispatch/records'
import type { VisitRecord } from '#server/dispatch/records'
import { nobody, recordEvent, statement } from '#server/kit'
import type { Actor, Tx } from '#server/kit'
import { calendarOf, factsOf, saveMove } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { endWatch, watchAlone } from './loneRows'
import { orders, shiftExceptions, sites, stints, technicianRates, technicians } from '../tables'

type StintRecord = typeof stints.$inferSelect
export type Worker = Actor

/** Starts the clock on a visit at a moment, or goes on as another kind of time. Arriving starts the order. */
export async function switchStintOf(tx: Tx, worker: Worker, order: OrderRecord, visit: VisitRecord, kind: StintKind, now: Date): Promise<void> {
  refuseOver(visit)
  const { technicianId } = visit
  const later = technicianId === null ? null : await clockOfTechnician(tx, technicianId, order, visit, now, worker.heardAt !== undefined)
  // On the job already, only the kind of time is another.
  const to = order.state === 'on_job' ? order.state : moveOrder(await factsOf(tx, order, nobody, now), 'start', null)
  const running = await runningStint(tx, visit.id)
  if (running?.kind === kind) return
  const tells = await toldBy(tx, order, kind)
  if (running) await endStint(tx, order, running, now)
  // What was recorded late beside a clock that began after it waits for its own end, and does not run.
  const runningTechnicianId = later ? null : technicianId
  await tx.insert(stints).values({ visitId: visit.id, orderId: order.id, technicianId, runningTechnicianId, kind, startAt: now })
  if (visit.state === 'planned') await beginVisit(tx, visit, now)
  if (!later) await watchAlone(tx, worker, visit, kind, now)
  if (order.state !== to) await saveMove(tx, worker, now, order, 'start', to, null, order.respondedAt ? {} : { respondedAt: now }, { stint: kind })
  await recordEvent(tx, worker, now, {
    kind: 'field.stint',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { stint: kind, ...(tells ? { tells } : {}) },
  })
}

/** What whoever reported it hears of the clock: that somebody is on the way, and then that they began; once each. */
async function toldBy(tx: Tx, order: OrderRecord, kind: StintKind): Promise<'way' | 'work' | null> {
  if (kind !== 'travel' && kind !== 'work') return null
  const before = await kindsOn(tx, { orderId: order.id })
  const had = (one: StintKind) => before.some((stint) => stint.kind === one)
  if (kind === 'travel') return had('travel') || had('work') ? null : 'way'
  return had('travel') && !had('work') ? 'work' : null
}

const kindsOn = statement(['orderId'], (tx, { orderId }) => tx.selectDistinct({ kind: stints.kind }).from(stints).where(eq(stints.orderId, orderId)))

/** Stops the clock of a visit. Stopping a stopped clock changes nothing. */
export async function stopClockOf(tx: Tx, worker: Worker, order: OrderRecord, visit: VisitRecord, now: Date, stoppedAt: Date | null = null): Promise<void> {
  const running = await runningStint(tx, visit.id)
  if (!running) return
  const minutes = await endStint(tx, order, running, now, stoppedAt)
  await endWatch(tx, visit.id)
  await recordEvent(tx, worker, now, {
    kind: 'field.stop',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { stint: running.kind, minutes, ...(stoppedAt ? { stoppedAt: stoppedAt.toISOString() } : {}) },
  })
}

const runningOf = statement(['visitId'], (tx, { visitId }) =>
  tx
    .select()
    .from(stints)
    .where(and(eq(stints.visitId, visitId), isNull(stints.endAt))),
)

export async function runningStint(tx: Tx, visitId: number) {
  const [running] = await runningOf(tx, { visitId })
  return running ?? null
}

function refuseOver(visit: VisitRecord): void {
  if (visit.state === 'ended') refuse('visit_over', 'You have left this job. The desk can send you again.')
}

/**
 * Whether a technician’s clock may start at a moment: their other time is not there, and their clock runs on no other job.
 * @param late it was heard of so much later than it happened that a clock may run elsewhere since
 * @returns the clock that runs on another job since a later moment; null for none
 */
async function clockOfTechnician(tx: Tx, technicianId: number, order: OrderRecord, visit: VisitRecord, at: Date, late: boolean) {
  const moment = { startAt: at, endAt: new Date(at.getTime() + 1) }
  const others = await othersOf(tx, technicianId, moment, visit.id)
  const [running] = await tx
    .select({ number: orders.number, startAt: stints.startAt })
    .from(stints)
    .innerJoin(orders, eq(orders.id, stints.orderId))
    .where(and(eq(stints.runningTechnicianId, technicianId), ne(stints.visitId, visit.id)))
  if (running && (!late || running.startAt <= at)) refuse('clock_elsewhere', `Your clock is running on ${running.number}. Stop it there first.`)
  const over = others.filter((one) => one.endAt !== null)
  if (over.length) await refuseOthers(tx, order, over, moment, at)
  return running ?? null
}

/** Other time of a technician over a while, on whatever job. Two phones of one person come one after another. */
export async function othersOf(
  tx: Tx,
  technicianId: number,
  { startAt, endAt }: { startAt: Date; endAt: Date },
  exceptVisit: number | null,
  exceptStint?: number,
) {
  await tx.select({ id: technicians.id }).from(technicians).where(eq(technicians.id, technicianId)).for('update')
  const found = await tx
    .select({ startAt: stints.startAt, endAt: stints.endAt, running: stints.runningTechnicianId, number: orders.number })
    .from(stints)
    .innerJoin(orders, eq(orders.id, stints.orderId))
    .where(
      and(
        eq(stints.technicianId, technicianId),
        exceptStint ? ne(stints.id, exceptStint) : or(ne(stints.visitId, exceptVisit ?? 0), isNotNull(stints.endAt)),
        lt(stints.startAt, endAt),
        or(isNull(stints.endAt), gt(stints.endAt, startAt)),
      ),
    )
  // What was recorded late and has no end yet is in nobody’s way.
  return found.filter((one) => one.endAt !== null || one.running !== null).map(({ running: _running, ...one }) => one)
}

async function refuseOthers(tx: Tx, order: OrderRecord, others: Awaited<ReturnType<typeof othersOf>>, times: { startAt: Date; endAt: Date }, now: Date) {
  const { zone } = await calendarOf(tx, order.siteId)
  refuseOverlap(others, times, now, zone)
}

/** Computes minutes and cost; both are never typed. A vendor's time has no cost here: they bill it. */
async function endStint(tx: Tx, order: OrderRecord, stint: StintRecord, now: Date, stoppedAt: Date | null = null): Promise<number> {
  const times = { startAt: stint.startAt, endAt: endOfStint(stint.startAt, now, stoppedAt) }
  const others = stint.technicianId === null ? [] : await othersOf(tx, stint.technicianId, times, null, stint.id)
  if (others.length) await refuseOthers(tx, order, others, times, now)
  return writeStint(tx, order, stint, times)
}

/**
 * A stint at other times than before. Where the visit is over, its call-out minimum is reckoned anew, for it may have been
 * made up for on another of its stints.
 */
export async function reckonStint(tx: Tx, order: OrderRecord, visit: VisitRecord, stint: StintRecord, times: { startAt: Date; endAt: Date }): Promise<number> {
  const minutes = await writeStint(tx, order, stint, times)
  if (visit.state !== 'ended') return minutes
  for (const other of await tx.select().from(stints).where(eq(stints.visitId, visit.id)))
    if (other.id !== stint.id && other.endAt) await writeStint(tx, order, other, { startAt: other.startAt, endAt: other.endAt })
  await applyCallOutMinimum(tx, visit)
  return minutes
}

async function writeStint(tx: Tx, order: OrderRecord, stint: StintRecord, { startAt, endAt }: { startAt: Date; endAt: Date }): Promise<number> {
  const [terms] = stint.technicianId ? await tx.select().from(technicians).where(eq(technicians.id, stint.technicianId)) : []
  const minutes = chargedMinutes(startAt, endAt, terms?.stepMinutes ?? 1)
  const free = !isCharged(stint.kind) || !terms
  const perHour = free ? null : await perHourAt(tx, terms, order.siteId, startAt)
  await tx
    .update(stints)
    .set({ startAt, endAt, runningTechnicianId: null, minutes, perHourMinor: perHour, costMinor: perHour === null ? 0 : labourCost(minutes, perHour) })
    .where(eq(stints.id, stint.id))
  return minutes
}

/** The rate in force when the stint began: overtime outside the technician's own shift. */
async function perHourAt(tx: Tx, technician: typeof technicians.$inferSelect, siteId: number, at: Date): Promise<number> {
  const rates = await tx.select().from(technicianRates).where(eq(technicianRates.technicianId, technician.id))
  const [site] = await tx.select({ zone: sites.zone }).from(sites).where(eq(sites.id, siteId))
  const rate = rateAt(
    rates.map((row) => ({ from: row.fromAt, normalPerHour: row.normalPerHour, overtimePerHour: row.overtimePerHour })),
    at,
  )
  const local = DateTime.fromJSDate(at, { zone: site!.zone })
  const clock = local.toFormat('HH:mm')
  const day = local.toISODate()!
  const exceptions = await tx
    .select()
    .from(shiftExceptions)
    .where(and(eq(shiftExceptions.technicianId, technician.id), eq(shiftExceptions.day, day)))
  const onShift = shiftOn(technician.shift, exceptions, day, local.weekday).some((stretch) => stretch.from <= clock && clock < stretch.to)
  return onShift ? rate.normalPerHour : rate.overtimePerHour
}

/** Tops the last work stint of a visit up to the call-out minimum, when there is one. */
export async function applyCallOutMinimum(tx: Tx, visit: VisitRecord): Promise<void> {
  if (!visit.technicianId) return
  const [terms] = await tx.select({ least: technicians.callOutMinutes }).from(technicians).where(eq(technicians.id, visit.technicianId))
  if (!terms?.least) return
  const mine = await tx
    .select()
    .from(stints)
    .where(and(eq(stints.visitId, visit.id), inArray(stints.kind, CHARGED_STINTS)))
    .orderBy(stints.startAt)
  const logged = mine.reduce((sum, stint) => sum + (stint.minutes ?? 0), 0)
  const last = mine.at(-1)
  if (!last || logged >= terms.least) return
  const minutes = (last.minutes ?? 0) + terms.least - logged
  await tx
    .update(stints)
    .set({ minutes, costMinor: labourCost(minutes, last.perHourMinor ?? 0) })
    .where(eq(stints.id, last.id))
}
