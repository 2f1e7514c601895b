import { and, asc, between, desc, eq, inArray, isNotNull, lt, max, or } from 'drizzle-orm'
import { progressForOthers, progressOf, reportStatus } from '#core/requests'
import type { Reader } from '#server/kit'
import { namesAbove } from '#server/places'
import { ordersAnswering } from '#server/requests'
import type { SiteRecord } from '#server/requests'
import { isFinished } from '#core/orders'
import { categories, events, places, requests, visits } from '../tables'
import type { KeyRecord } from './asker'

/** One request as the standard has it. Only what a stranger may know is in it, unless their own key sent it. */
export interface RequestRow {
  service_request_id: string
  status: 'open' | 'closed'
  status_notes: string
  service_name: string
  service_code: string
  description: string
  agency_responsible: string
  service_notice: string
  requested_datetime: string
  updated_datetime: string
  expected_datetime: string
  address: string
  address_id: string
  zipcode: string
  lat: number | ''
  long: number | ''
  media_url: string
}

interface Asked {
  site: SiteRecord
  key: KeyRecord | null
  now: Date
  ids?: string[]
  serviceCodes?: string[]
  from?: Date
  to?: Date
  status?: ('open' | 'closed')[]
}

/** The standard's most rows of one answer. */
const MOST = 1000
const AT_ONCE = 500

/** Requests newest first. Without a key, only those that programs have sent: the others were told to us, not to everybody. */
export async function readRequests(db: Reader, asked: Asked): Promise<RequestRow[]> {
  const rows: RequestRow[] = []
  let before: { at: Date; id: number } | null = null
  for (;;) {
    const found = await pageOf(db, asked, before)
    const shown = await asRows(db, asked, found)
    rows.push(...shown.filter((row) => !asked.status?.length || asked.status.includes(row.status)))
    const last = found.at(-1)
    if (!last || found.length < AT_ONCE || rows.length >= MOST) return rows.slice(0, MOST)
    before = { at: last.request.receivedAt, id: last.request.id }
  }
}

type Found = Awaited<ReturnType<typeof pageOf>>

async function pageOf(db: Reader, { site, key, ids, serviceCodes, from, to }: Asked, before: { at: Date; id: number } | null) {
  return db
    .select({ request: requests, categoryName: categories.name, categoryCode: categories.code, place: places })
    .from(requests)
    .leftJoin(categories, eq(categories.id, requests.categoryId))
    .leftJoin(places, eq(places.id, requests.placeId))
    .where(
      and(
        eq(requests.siteId, site.id),
        key ? undefined : isNotNull(requests.apiKeyId),
        ids ? inArray(requests.number, ids) : undefined,
        serviceCodes ? inArray(categories.code, serviceCodes) : undefined,
        from && to ? between(requests.receivedAt, from, to) : undefined,
        before ? or(lt(requests.receivedAt, before.at), and(eq(requests.receivedAt, before.at), lt(requests.id, before.id))) : undefined,
      ),
    )
    .orderBy(desc(requests.receivedAt), desc(requests.id))
    .limit(AT_ONCE)
}

async function asRows(db: Reader, { site, key, now }: Asked, found: Found): Promise<RequestRow[]> {
  const mainIds = [...new Set(found.map(({ request }) => request.joinedToId ?? request.id))]
  const linked = await ordersAnswering(db, mainIds)
  const orderIds = linked.map((order) => order.id)
  const mains = new Map((mainIds.length ? await db.select().from(requests).where(inArray(requests.id, mainIds)) : []).map((row) => [row.id, row]))
  const planned = orderIds.length
    ? await db
        .select({ orderId: visits.orderId, start: visits.plannedStart })
        .from(visits)
        .where(and(inArray(visits.orderId, orderIds), eq(visits.state, 'planned')))
        .orderBy(asc(visits.plannedStart))
    : []
  const changed = await changesOf(
    db,
    found.map(({ request }) => request.id),
    orderIds,
  )
  const within = await namesAbove(
    db,
    found.flatMap(({ place }) => (place ? [place] : [])),
  )
  return found.map(({ request, categoryName, categoryCode, place }) => {
    const main = mains.get(request.joinedToId ?? request.id) ?? request
    const own = key !== null && request.apiKeyId === key.id
    const orders = linked
      .filter((order) => order.requestId === main.id)
      .map((order) => ({
        ...order,
        finished: isFinished(order.state),
        plannedStart: order.state === 'dispatched' ? (planned.find((visit) => visit.orderId === order.id)?.start ?? null) : null,
      }))
    const facts = {
      state: main.state,
      zone: site.zone,
      now,
      orders,
    }
    // What the desk says to a reporter is theirs: not for whoever told the same, nor for anybody else.
    const reporters = own && !request.joinedToId
    const progress = reporters ? progressOf({ ...facts, declineReason: main.declineReason, question: main.question }) : progressForOthers(facts)
    const expected = orders.map((order) => order.plannedStart).find((at) => at !== null)
    const updated = [request.receivedAt, changed.request.get(request.id), ...orders.map((order) => changed.order.get(order.id))]
    return {
      service_request_id: request.number,
      status: reportStatus(progress.step),
      status_notes: progress.sentence,
      service_name: categoryName ?? '',
      service_code: categoryCode ?? '',
      description: own ? request.writtenDescription : request.takenUpAt ? request.summary : (categoryName ?? 'Something was reported here'),
      agency_responsible: site.name,
      service_notice: '',
      requested_datetime: request.receivedAt.toISOString(),
      updated_datetime: new Date(Math.max(...updated.map((at) => at?.getTime() ?? 0))).toISOString(),
      expected_datetime: expected?.toISOString() ?? '',
      address: place ? [place.name, within.get(place.id)].filter(Boolean).join(', ') : own ? (request.sentBy?.address ?? '') : '',
      address_id: place?.code ?? '',
      zipcode: '',
      lat: (own ? request.sentBy?.lat : undefined) ?? '',
      long: (own ? request.sentBy?.long : undefined) ?? '',
      media_url: (own ? request.sentBy?.mediaUrl : undefined) ?? '',
    }
  })
}

/** When something last happened to these requests and orders. */
async function changesOf(db: Reader, requestIds: number[], orderIds: number[]) {
  const lastOf = async (column: typeof events.requestId | typeof events.orderId, ids: number[]) =>
    new Map(
      (ids.length
        ? await db
            .select({ id: column, at: max(events.at) })
            .from(events)
            .where(inArray(column, ids))
            .groupBy(column)
        : []
      ).map((row) => [row.id!, row.at]),
    )
  return { request: await lastOf(events.requestId, requestIds), order: await lastOf(events.orderId, orderIds) }
}
