import { and, desc, eq, inArray, isNotNull, or } from 'drizzle-orm'
import * as contract from '#contract/requests'
import { maySee, notFound, query } from '#server/kit'
import { isOver } from '#core/orders'
import { orders, payers, people, places, requestOrders, requests } from '../tables'

export default query(contract.readCaller, async ({ db, who, input }) => {
  const [found] = await db
    .select({ person: people, placeCode: places.code, placeName: places.name, payerCode: payers.code, payerName: payers.name })
    .from(people)
    .leftJoin(places, eq(places.id, people.placeId))
    .leftJoin(payers, eq(payers.id, people.payerId))
    .where(eq(people.id, input.id))
  if (!found || !maySee(who, found.person.siteId)) throw notFound('person')
  const { person } = found
  const theirs = or(eq(requests.reporterId, person.id), person.email ? eq(requests.reporterEmail, person.email) : undefined)
  const [open, done] = await Promise.all([
    db
      .select({
        id: requests.id,
        number: requests.number,
        summary: requests.summary,
        state: requests.state,
        receivedAt: requests.receivedAt,
        orderState: orders.state,
      })
      .from(requests)
      .leftJoin(requestOrders, eq(requestOrders.requestId, requests.id))
      .leftJoin(orders, eq(orders.id, requestOrders.orderId))
      .where(and(theirs, inArray(requests.state, ['new', 'asked', 'accepted'])))
      .orderBy(desc(requests.receivedAt))
      .limit(30),
    db
      .select({ id: orders.id, number: orders.number, summary: orders.summary, finishedAt: orders.finishedAt, symptom: orders.symptom, fix: orders.fix })
      .from(requestOrders)
      .innerJoin(requests, eq(requests.id, requestOrders.requestId))
      .innerJoin(orders, eq(orders.id, requestOrders.orderId))
      .where(and(theirs, isNotNull(orders.finishedAt)))
      .orderBy(desc(orders.finishedAt))
      .limit(3),
  ])
  const waiting = open.filter((row) => row.state !== 'accepted' || (row.orderState && !isOver(row.orderState)))
  return {
    id: person.id,
    name: person.name,
    email: person.email,
    phone: person.phone,
    place: person.placeId ? { id: person.placeId, label: `${found.placeCode} ${found.placeName}` } : null,
    payer: person.payerId ? { id: person.payerId, label: `${found.payerCode} ${found.payerName}` } : null,
    open: waiting.slice(0, 5).map(({ orderState, state, ...row }) => ({ ...row, state: orderState ?? state })),
    lastJobs: done.map(({ symptom, fix, finishedAt, ...row }) => ({ ...row, finishedAt: finishedAt!, outcome: [symptom, fix].filter(Boolean).join(', ') })),
  }
})
