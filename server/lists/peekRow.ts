import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/lists'
import type { Peek } from '#contract/lists'
import { formatMinor } from '#core/kit'
import { HOLD_REASON_NAMES, ORDER_KIND_NAMES, ORDER_STATE_NAMES } from '#core/orders'
import { CHANNEL_NAMES, PRIORITY_NAMES, REQUEST_STATE_NAMES } from '#core/requests'
import { isRegister } from '#core/lists'
import type { RegisterField, RegisterName } from '#core/registers'
import { can, maySee, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { whoIsOn } from '#server/orders'
import { KEEPERS } from '#server/portraits'
import { fieldsFor, namesIn, seenRecord } from '#server/registers'
import { assets, events, orders, places, requests, sites } from '../tables'

const LONGEST = 600

export default query(contract.peekRow, ({ db, who, input: { kind, id } }) => {
  if (isRegister(kind)) return peekRecord(db, who, kind, id)
  return kind === 'orders' ? peekOrder(db, who, id) : peekRequest(db, who, id)
})

async function peekOrder(db: Reader, who: Asker, id: number): Promise<Outgoing<Peek>> {
  const [row] = await db
    .select({ order: orders, place: places, asset: assets, currency: sites.currency, who: whoIsOn })
    .from(orders)
    .innerJoin(sites, eq(sites.id, orders.siteId))
    .leftJoin(places, eq(places.id, orders.placeId))
    .leftJoin(assets, eq(assets.id, orders.assetId))
    .where(eq(orders.id, id))
  if (!row || !maySee(who, row.order.siteId)) throw notFound('order')
  const { order, place, asset } = row
  return {
    id,
    number: order.number,
    summary: order.summary,
    description: order.description.slice(0, LONGEST),
    facts: [
      fact(
        'State',
        order.holdReason ? `${ORDER_STATE_NAMES[order.state]}: ${HOLD_REASON_NAMES[order.holdReason].toLowerCase()}` : ORDER_STATE_NAMES[order.state],
      ),
      fact('Kind of work', ORDER_KIND_NAMES[order.kind]),
      fact('Place', place && `${place.code} ${place.name}`),
      fact('Asset', asset && `${asset.tag} ${asset.name}`),
      fact('Who goes', row.who),
      fact('Contact', [order.contactName, order.contactPhone].filter(Boolean).join(', ')),
      fact('Estimate', order.estimateMinor === null ? null : `${formatMinor(order.estimateMinor)} ${row.currency}`),
      fact('Outcome', [order.symptom, order.cause, order.fix].filter(Boolean).join(', ')),
    ].flat(),
    last: await lastOf(db, { orderId: id }),
  }
}

async function peekRequest(db: Reader, who: Asker, id: number): Promise<Outgoing<Peek>> {
  const [row] = await db
    .select({ request: requests, place: places, asset: assets })
    .from(requests)
    .leftJoin(places, eq(places.id, requests.placeId))
    .leftJoin(assets, eq(assets.id, requests.assetId))
    .where(eq(requests.id, id))
  if (!row || !maySee(who, row.request.siteId)) throw notFound('request')
  const { request, place, asset } = row
  return {
    id,
    number: request.number,
    summary: request.summary,
    description: request.description.slice(0, LONGEST),
    facts: [
      fact('State', REQUEST_STATE_NAMES[request.state]),
      fact('Priority', request.priority && PRIORITY_NAMES[request.priority]),
      fact('Place', place && `${place.code} ${place.name}`),
      fact('Asset', asset && `${asset.tag} ${asset.name}`),
      fact('Came by', CHANNEL_NAMES[request.channel]),
      fact('Reporter', [request.reporterName, request.reporterPhone, request.reporterEmail].filter(Boolean).join(', ')),
      fact('Wish', request.wish),
      fact('Asked', request.question),
      fact('Declined', request.declineReason),
    ].flat(),
    last: await lastOf(db, { requestId: id }),
  }
}

const MOST_FACTS = 12

/** What is said of a record, but for long texts, which its Portrait shows. */
async function peekRecord(db: Reader, who: Asker, register: RegisterName, id: number): Promise<Outgoing<Peek>> {
  const keeper = KEEPERS[register]
  const row = await seenRecord(db, keeper, who, id)
  const mine = fieldsFor(keeper.fields, (permission) => can(who, permission)).filter((name) => keeper.fields[name]!.kind !== 'text' && row[name] !== null)
  const names = await namesIn(db, keeper.fields, row)
  const { code, heading } = keeper.called(row as never)
  const called = new Set<unknown>([code, heading])
  return {
    id,
    number: code ?? '',
    summary: heading,
    description: typeof row.note === 'string' ? row.note.slice(0, LONGEST) : '',
    facts: mine
      .filter((name) => !called.has(row[name]))
      .flatMap((name) => fact(keeper.fields[name]!.label, names[name] ?? fieldSays(keeper.fields[name]!, row[name] as string | number)))
      .slice(0, MOST_FACTS),
    last: await lastOf(db, { register, recordId: id }),
  }
}

function fieldSays(field: RegisterField, value: string | number): string {
  if (field.kind === 'choice') return field.choices[value] ?? String(value)
  if (field.kind === 'money') return formatMinor(Number(value))
  if (field.kind === 'percent') return `${Number(value) / 100} %`
  return [String(value), field.kind === 'count' ? field.unit : null].filter(Boolean).join(' ')
}

const fact = (label: string, words: string | null | undefined) => (words ? [{ label, words }] : [])

async function lastOf(db: Reader, about: { orderId: number } | { requestId: number } | { register: RegisterName; recordId: number }) {
  const [row] = await db
    .select({ at: events.at, who: events.actorName, kind: events.kind, reason: events.reason })
    .from(events)
    .where(and(...Object.entries(about).map(([name, value]) => eq(events[name as 'orderId'], value as number))))
    .orderBy(desc(events.id))
    .limit(1)
  return row ?? null
}
