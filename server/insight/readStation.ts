import { and, asc, desc, eq, gt, inArray, isNotNull, isNull, ne, or } from 'drizzle-orm'
import * as contract from '#contract/insight'
import type { StationNews } from '#contract/insight'
import type { OrderLine } from '#contract/orders'
import { STATION_STATES, waitsFor } from '#core/orders'
import { query, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { kept, orderLinesOf } from '#server/orders'
import { atIntake, atTriage, requestLinesOf } from '#server/requests'
import { accounts, approvals, events, orders, people, requests } from '../tables'

/** How many are shown of each. */
const NEXT = 3
const CHANGED = 6
/** Events looked through for the last of each record. */
const LOOKED_THROUGH = 120

interface Asking {
  who: Asker
  now: Date
  since: Date
}

export default query(contract.readStation, async ({ db, who, input, now }) => {
  const asking = { who, now, since: new Date(input.since) }
  const states = STATION_STATES[input.station]
  if (states.length) return { next: await nextOrders(db, asking, states), changed: await changedOrders(db, asking, states) }
  const here = input.station === 'intake' ? atIntake : atTriage
  return { next: await nextRequests(db, asking, here), changed: await changedRequests(db, asking, here) }
})

type Next = Outgoing<StationNews['next']>
type States = (typeof STATION_STATES)['planning']

/** Those that pass their target next; what is finished passes none any more, and waits since it was. */
async function nextOrders(db: Reader, { who, now }: Asking, states: States): Promise<Next> {
  const keys = await db
    .select({ id: orders.id })
    .from(orders)
    .where(
      and(
        inArray(orders.state, states),
        kept,
        withinSites(who, orders.siteId),
        or(isNotNull(orders.finishedAt), and(gt(orders.completionDueAt, now), isNull(orders.clockStoppedAt))),
      ),
    )
    .orderBy(asc(orders.finishedAt), asc(orders.completionDueAt), asc(orders.id))
    .limit(NEXT)
  const ids = keys.map((key) => key.id)
  if (!ids.length) return []
  const lines = new Map((await orderLinesOf(db, ids)).map((line) => [line.id, line]))
  const open = await db
    .select({ orderId: approvals.orderId, name: people.name })
    .from(approvals)
    .innerJoin(accounts, eq(accounts.id, approvals.accountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(inArray(approvals.orderId, ids), isNull(approvals.decidedAt)))
    .orderBy(asc(approvals.position))
  return ids.map((id) => {
    const { number, summary, target, ...line } = lines.get(id)!
    const asked = open.filter((one) => one.orderId === id).map((one) => one.name)
    return { type: 'order', id, number, summary, target, waitsFor: waitsFor({ ...(line as Pick<OrderLine, 'state' | 'hold' | 'lead' | 'who'>), asked }) }
  })
}

async function nextRequests(db: Reader, { who, now }: Asking, here: typeof atTriage): Promise<Next> {
  const keys = await db
    .select({ id: requests.id })
    .from(requests)
    .where(and(here, gt(requests.triageDueAt, now), withinSites(who, requests.siteId)))
    .orderBy(asc(requests.triageDueAt), asc(requests.id))
    .limit(NEXT)
  if (!keys.length) return []
  const lines = new Map((await requestLinesOf(db, keys.map((key) => key.id))).map((line) => [line.id, line])) // prettier-ignore
  return keys.map(({ id }) => {
    const { number, summary, target, state, reporter, takenup } = lines.get(id)!
    const waits = state === 'asked' ? `an answer from ${reporter ?? 'the reporter'}` : takenup ? `${takenup} to decide it` : 'somebody to take it up'
    return { type: 'request', id, number, summary, target, waitsFor: waits }
  })
}

const EVENT = { at: events.at, who: events.actorName, kind: events.kind, details: events.details }
/** Others’ acts only; what the clock tells of by itself belongs to nobody and is news as well. */
const byOthers = ({ who, since }: Asking) => and(gt(events.at, since), or(isNull(events.actorId), ne(events.actorId, who.accountId ?? 0)))

async function changedOrders(db: Reader, asking: Asking, states: States) {
  const rows = await db
    .select({ ...EVENT, id: orders.id, number: orders.number, summary: orders.summary })
    .from(orders)
    .innerJoin(events, eq(events.orderId, orders.id))
    .where(and(inArray(orders.state, states), kept, withinSites(asking.who, orders.siteId), byOthers(asking)))
    .orderBy(desc(events.id))
    .limit(LOOKED_THROUGH)
  return lastOfEach('order', rows)
}

async function changedRequests(db: Reader, asking: Asking, here: typeof atTriage) {
  const rows = await db
    .select({ ...EVENT, id: requests.id, number: requests.number, summary: requests.summary })
    .from(requests)
    .innerJoin(events, eq(events.requestId, requests.id))
    .where(and(here, withinSites(asking.who, requests.siteId), byOthers(asking)))
    .orderBy(desc(events.id))
    .limit(LOOKED_THROUGH)
  return lastOfEach('request', rows)
}

/** One line for each record: what happened to it last, and how often something did. */
function lastOfEach(type: 'request' | 'order', rows: Omit<Outgoing<StationNews['changed']>[number], 'type' | 'times'>[]): Outgoing<StationNews['changed']> {
  const times = new Map<number, number>()
  for (const { id } of rows) times.set(id, (times.get(id) ?? 0) + 1)
  return [...times].slice(0, CHANGED).map(([id, count]) => ({ ...rows.find((row) => row.id === id)!, type, times: count }))
}
