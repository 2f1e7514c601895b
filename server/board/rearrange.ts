import { randomUUID } from 'node:crypto'
import { and, asc, eq, inArray, ne } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/board'
import type { Rearranged, Rearrangement, VisitAdded, VisitChange, VisitDropped } from '#contract/board'
import { conflictsOf, isAsked, presenceOf } from '#core/board'
import type { BoardJob, Stretch } from '#core/board'
import { Refusal, refuse } from '#core/kit'
import { moveOrder, stepsBefore } from '#core/orders'
import { windowSays } from '#core/windows'
import { acceptedAt, askingOf } from '#server/dispatch'
import { addVisit, dropVisit, liveVisit, moveVisit, recallVisits } from '#server/dispatch/records'
import type { VisitRecord } from '#server/dispatch/records'
import { command, mySite, notFound, ProblemReply, recordEvent } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { factsOf, lockOrderById, saveMove, windowOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { waysBetween } from '#server/travel'
import { accounts, orderPlans, orders, people, places, teams, technicians, trades, vendors, visits } from '../tables'
import { crewOf } from './crewOf'
import { readyOf } from './readyOf'
import { asTechnician, visitsOf } from './visitsOf'

/** What was put where, for judging it once all of it is there. */
interface Placed {
  visitId: number
  order: OrderRecord
  technicianId: number | null
  at: Stretch
  /** Nobody was planned for it before. */
  sentNow: boolean
}
interface Acting {
  tx: Tx
  who: Asker
  now: Date
  why: string | null
  /** Of several changes, the name of the act that makes them. */
  one: { inOne?: string }
}

export default command(contract.rearrange, ({ tx, who, input, now }) => rearrangeWithin({ tx, who, now }, input))

/** Makes changes of visits in the transaction of whoever asks, all of it or nothing, by the rules of the Board. */
export async function rearrangeWithin({ tx, who, now }: Pick<Acting, 'tx' | 'who' | 'now'>, input: Rearrangement): Promise<Rearranged> {
  const site = await mySite(tx, who, input.siteId)
  const asked = { changes: input.changes ?? [], adds: input.adds ?? [], drops: input.drops ?? [] }
  const touched = [...asked.changes, ...asked.drops]
  if (!touched.length && !asked.adds.length) refuse('nothing', 'Say what is to change.')
  if (new Set(touched.map(({ visitId }) => visitId)).size < touched.length) refuse('twice', 'A visit is either moved or taken back.')
  const known = await lockAll(tx, site.id, site.zone, asked)
  const why = input.despite?.trim() || null
  const many = touched.length + asked.adds.length
  const act = many > 1 ? randomUUID() : null
  const acting: Acting = { tx, who, now, why, one: act ? { inOne: act } : {} }
  const placed: Placed[] = []
  const undo = { siteId: site.id, changes: [] as VisitChange[], adds: [] as VisitAdded[], drops: [] as VisitDropped[] }
  const between = await readyOf(
    tx,
    asked.adds.map(({ orderId }) => known.order(orderId)).filter(({ state }) => state === 'ready'),
    now,
  )

  for (const drop of asked.drops) {
    const { visit, order } = known.visit(drop.visitId)
    const { technicianId } = visit
    if (technicianId === null) refuse('vendor', `A vendor is told of ${order.number} by a pass: recall it on its Sheet.`)
    await takeBack(acting, visit, order)
    undo.adds.push({ orderId: order.id, version: order.version, technicianId, ...spanOf(visit) })
  }
  for (const change of asked.changes) {
    const { visit, order } = known.visit(change.visitId)
    placed.push(await move(acting, visit, order, change))
    undo.changes.push({
      visitId: visit.id,
      version: visit.version + 1,
      ...(visit.technicianId === null ? {} : { technicianId: visit.technicianId }),
      ...spanOf(visit),
    })
  }
  for (const add of asked.adds) {
    const one = await plan(acting, known.order(add.orderId), add)
    placed.push(one)
    undo.drops.push({ visitId: one.visitId, version: 1 })
  }
  const reasons = await judge(tx, site, placed, between, now)
  const barred = reasons.filter(({ weight }) => weight === 'never')
  if (barred.length) throw new Refusal(barred)
  if (isAsked(reasons) && !why) throw new Refusal(reasons.filter(({ weight }) => weight === 'ask').map((reason) => ({ ...reason, field: 'despite' })))
  if (act) await recordEvent(tx, who, now, { kind: 'board.rearrange', siteId: site.id, details: { act, visits: many } })
  // An order may have been moved more than once by then.
  return { undo: { ...undo, adds: undo.adds.map((add) => ({ ...add, version: known.order(add.orderId).version })) } }
}

/** Orders, visits and technicians concerned, locked in one order for whoever comes; each as it was looked at. */
async function lockAll(tx: Tx, siteId: number, zone: string, asked: Required<Pick<Rearrangement, 'changes' | 'adds' | 'drops'>>) {
  const touched = [...asked.changes, ...asked.drops]
  const ids = touched.map(({ visitId }) => visitId)
  const of = ids.length ? await tx.select({ id: visits.id, orderId: visits.orderId }).from(visits).where(inArray(visits.id, ids)) : []
  const locked = new Map<number, OrderRecord>()
  for (const id of [...new Set([...of.map(({ orderId }) => orderId), ...asked.adds.map(({ orderId }) => orderId)])].sort((a, b) => a - b)) {
    const order = await lockOrderById(tx, id)
    if (!order || order.siteId !== siteId) throw notFound('order')
    locked.set(id, order)
  }
  const held = ids.length ? await tx.select().from(visits).where(inArray(visits.id, ids)).orderBy(asc(visits.id)).for('update') : []
  for (const { visitId, version } of touched) {
    const visit = held.find((one) => one.id === visitId)
    if (!visit) throw notFound('visit')
    const { number, state } = locked.get(visit.orderId)!
    if (visit.version !== version || visit.state === 'recalled')
      throw changed(
        visit.state === 'recalled' ? `${number} was taken back meanwhile.` : `${number} was moved meanwhile: ${await whereNow(tx, visit, zone)}.`,
        visit.version,
      )
    if (visit.state !== 'planned') refuse('begun', `Somebody is at ${number}, or was: only what is still to come can be moved.`)
    if (state === 'on_hold') refuse('on_hold', `${number} is on hold. Resume it first.`)
  }
  for (const { orderId, version } of asked.adds) {
    const order = locked.get(orderId)!
    if (order.version !== version) throw changed(`${order.number} was changed meanwhile.`, order.version)
  }
  const going = [...asked.adds, ...asked.changes].flatMap(({ technicianId }) => technicianId ?? [])
  const here = going.length
    ? await tx
        .select({ id: technicians.id })
        .from(technicians)
        .innerJoin(teams, and(eq(teams.id, technicians.teamId), eq(teams.siteId, siteId)))
        .where(inArray(technicians.id, going))
    : []
  if (going.some((id) => !here.some((one) => one.id === id))) refuse('not_here', 'Choose a technician of this site.', 'technicianId')
  const all = [...new Set([...going, ...held.flatMap(({ technicianId }) => technicianId ?? [])])]
  // Two who plan the same person at once see each other’s visits.
  if (all.length) await tx.select({ id: technicians.id }).from(technicians).where(inArray(technicians.id, all)).orderBy(asc(technicians.id)).for('update')
  return {
    order: (id: number) => locked.get(id)!,
    visit: (id: number) => {
      const visit = held.find((one) => one.id === id)!
      return { visit, order: locked.get(visit.orderId)! }
    },
  }
}
const changed = (sentence: string, version: number) =>
  new ProblemReply(409, 'Changed meanwhile', `${sentence} Nothing of yours was done; look at it again.`, { version })

async function whereNow(tx: Tx, visit: VisitRecord, zone: string): Promise<string> {
  const [found] = await tx
    .select({ person: people.name, vendor: vendors.name })
    .from(visits)
    .leftJoin(technicians, eq(technicians.id, visits.technicianId))
    .leftJoin(accounts, eq(accounts.id, technicians.accountId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .leftJoin(vendors, eq(vendors.id, visits.vendorId))
    .where(eq(visits.id, visit.id))
  return [found?.person ?? found?.vendor, windowSays({ from: visit.plannedStart, until: visit.plannedEnd }, zone)].filter(Boolean).join(', ')
}

const spanOf = (visit: VisitRecord) => ({ start: visit.plannedStart.toISOString(), end: visit.plannedEnd.toISOString() })
const factsOfVisit = (visit: VisitRecord) => ({ visitId: visit.id, technicianId: visit.technicianId, vendorId: visit.vendorId })

/** A visit is not made; where it was the last of an order that nobody has begun, the order is at the desk again. */
async function takeBack({ tx, who, now, why, one }: Acting, visit: VisitRecord, order: OrderRecord): Promise<void> {
  const left = await tx
    .select({ id: visits.id })
    .from(visits)
    .where(and(eq(visits.orderId, order.id), liveVisit, ne(visits.id, visit.id)))
  if (order.state === 'dispatched' && !left.length) {
    const to = moveOrder(await factsOf(tx, order, who, now), 'recall', why)
    const taken = await recallVisits(tx, order.id, now)
    const saved = await saveMove(tx, who, now, order, 'recall', to, why, {}, { taken, ...one })
    Object.assign(order, { state: to, version: saved.version })
    return
  }
  await dropVisit(tx, visit, now)
  const { start, end } = spanOf(visit)
  await recordEvent(tx, who, now, {
    kind: 'order.dropVisit',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason: why,
    details: { ...factsOfVisit(visit), fromStart: start, fromEnd: end, taken: visit.technicianId === null ? [] : [visit.technicianId], ...one },
  })
}

async function move({ tx, who, now, why, one }: Acting, visit: VisitRecord, order: OrderRecord, change: VisitChange): Promise<Placed> {
  if (visit.vendorId !== null && change.technicianId)
    refuse('vendor', `A vendor is planned for ${order.number}: recall it on its Sheet to send somebody of ours.`)
  const technicianId = change.technicianId ?? visit.technicianId
  const at = { from: new Date(change.start), until: new Date(change.end) }
  const asked = visit.vendorId === null ? {} : isProposed(visit, at) ? acceptedAt(now) : await askingOf(tx, order, at.from, now)
  await moveVisit(tx, visit, { technicianId, plannedStart: at.from, plannedEnd: at.until, ...asked })
  const before = spanOf(visit)
  await recordEvent(tx, who, now, {
    kind: 'order.moveVisit',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    reason: why,
    details: {
      ...factsOfVisit(visit),
      technicianId,
      start: change.start,
      end: change.end,
      fromStart: before.start,
      fromEnd: before.end,
      taken: visit.technicianId !== null && visit.technicianId !== technicianId ? [visit.technicianId] : [],
      ...one,
    },
  })
  return { visitId: visit.id, order, technicianId, at, sentNow: false }
}

/** The vendor has proposed this very time. */
const isProposed = ({ answer, proposedStart, proposedEnd }: VisitRecord, { from, until }: Stretch): boolean =>
  answer === 'proposed' && proposedStart?.getTime() === from.getTime() && proposedEnd?.getTime() === until.getTime()

/** One more visit; the first of an order that waits is its dispatch. */
async function plan({ tx, who, now, why, one }: Acting, order: OrderRecord, add: VisitAdded): Promise<Placed> {
  const at = { from: new Date(add.start), until: new Date(add.end) }
  const goes = order.state === 'dispatched' || order.state === 'on_job'
  const visitId = await addVisit(tx, order, { technicianId: add.technicianId, plannedStart: at.from, plannedEnd: at.until })
  const placed = { visitId, order, technicianId: add.technicianId, at, sentNow: !goes }
  const told = { start: add.start, end: add.end, vendorId: null, ...one }
  if (goes) {
    await recordEvent(tx, who, now, {
      kind: 'order.addVisit',
      siteId: order.siteId,
      orderId: order.id,
      visitId,
      reason: why,
      details: { ...told, visitId, technicianId: add.technicianId },
    })
    return placed
  }
  const facts = await factsOf(tx, order, who, now)
  const unready = stepsBefore(facts, why)
  if (unready.length) throw new Refusal(unready.map((reason) => ({ ...reason, field: 'despite' })))
  const to = moveOrder(facts, 'dispatch', null)
  const responded = order.respondedAt ? {} : { respondedAt: now }
  const saved = await saveMove(tx, who, now, order, 'dispatch', to, why, responded, {
    ...told,
    technicianIds: [add.technicianId],
    visitIds: [visitId],
    visitId: null,
  })
  Object.assign(order, { state: to, version: saved.version, ...responded })
  return placed
}

/** What speaks against what is there now, said of each order where it is several. */
async function judge(tx: Tx, site: { id: number; zone: string }, placed: Placed[], between: Awaited<ReturnType<typeof readyOf>>, now: Date) {
  if (!placed.length) return []
  const { zone } = site
  const days = placed.flatMap(({ at }) => [at.from, at.until]).map((at) => (DateTime.fromJSDate(at, { zone }) as DateTime<true>).startOf('day'))
  const crew = await crewOf(tx, site.id, [...new Map(days.map((day) => [day.toISODate(), day])).values()])
  const going = [...new Set(placed.flatMap(({ technicianId }) => technicianId ?? []))]
  const others = await visitsOf(
    tx,
    going,
    DateTime.min(...days)!.toJSDate(),
    DateTime.max(...days)!
      .plus({ days: 1 })
      .toJSDate(),
    now,
  )
  const where = await tx
    .select({ id: orders.id, path: places.path, trade: trades.name, labour: orderPlans.labour })
    .from(orders)
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(trades, eq(trades.id, orders.tradeId))
    .leftJoin(orderPlans, eq(orderPlans.orderId, orders.id))
    .where(
      inArray(
        orders.id,
        placed.map(({ order }) => order.id),
      ),
    )
  const way = await waysBetween(tx, [...where.map(({ path }) => path), ...others.map(({ path }) => path)])
  return placed.flatMap(({ visitId, order, technicianId, at, sentNow }) => {
    const found = where.find(({ id }) => id === order.id)
    const job: BoardJob = {
      tradeId: order.tradeId,
      trade: found?.trade ?? null,
      skills: presenceOf(found?.labour ?? null, order.tradeId).skills,
      path: found?.path ?? null,
      window: windowOf(order),
      target: order.completionDueAt,
      between: sentNow ? (between.get(order.id) ?? []) : [],
    }
    const member = crew.find(({ id }) => id === technicianId)
    const mine = others.filter((one) => one.technicianId === technicianId && one.id !== visitId)
    return conflictsOf(job, member ? asTechnician(member, mine) : null, at, now, zone, way).map((conflict) =>
      placed.length > 1 ? { ...conflict, sentence: `${order.number}: ${conflict.sentence}` } : conflict,
    )
  })
}
