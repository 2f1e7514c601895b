import { eq } from 'drizzle-orm'
import type { QuotePage } from '#contract/quotes'
import * as contract from '#contract/quotes'
import { refuse } from '#core/kit'
import { whyClosed } from '#core/quotes'
import { command, ProblemReply, query, recordEvent, sha256 } from '#server/kit'
import type { Outgoing, Reader, Tx } from '#server/kit'
import { lockOrderById, rulesOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { namePlace } from '#server/places'
import { orders, quotes, sites, vendors } from '../tables'
import { needsPrice } from './quotes'
import type { QuoteRecord } from './quotes'

/** So long after an answer was due a link still says what came of it. */
const KEPT_DAYS = 60

interface Found {
  quote: QuoteRecord
  order: OrderRecord
  site: typeof sites.$inferSelect
  vendor: string
}

/** What is behind a link. @throws ProblemReply 404 when there is nothing, or it has expired */
async function openQuote(db: Reader, token: string, now: Date): Promise<Found> {
  const [found] = await db
    .select({ quote: quotes, order: orders, site: sites, vendor: vendors.name })
    .from(quotes)
    .innerJoin(orders, eq(orders.id, quotes.orderId))
    .innerJoin(sites, eq(sites.id, quotes.siteId))
    .innerJoin(vendors, eq(vendors.id, quotes.vendorId))
    .where(eq(quotes.tokenHash, sha256(token)))
  if (!found || found.quote.dueAt.getTime() + KEPT_DAYS * 86_400_000 < now.getTime())
    throw new ProblemReply(404, 'The link does not work', 'It has expired, or was not copied whole. Call the desk that sent it.')
  return found
}

async function pageOf(db: Reader, { quote, order, site, vendor }: Found): Promise<Outgoing<QuotePage>> {
  const [place, { writing }] = await Promise.all([namePlace(db, order.placeId), rulesOf(db, site.id)])
  return {
    site: { name: site.name, deskPhone: site.deskPhone, zone: site.zone, currency: site.currency, writing },
    number: order.number,
    vendor,
    wanted: quote.wanted,
    place: place ? [place.name, place.within].filter(Boolean).join(', ') : null,
    dueAt: quote.dueAt,
    state: quote.state,
    netMinor: quote.netMinor,
    taxBp: quote.taxBp,
    earliestAt: quote.earliestAt,
    validUntil: quote.validUntil,
    answer: quote.answer,
    over: whyClosed(quote.state, needsPrice(order)),
  }
}

export const readQuotePage = query(contract.readQuotePage, async ({ db, input, now }) => pageOf(db, await openQuote(db, input.token, now)))

async function lockAnswering(tx: Tx, token: string, now: Date): Promise<Found> {
  const found = await openQuote(tx, token, now)
  const order = (await lockOrderById(tx, found.order.id))!
  const [quote] = (await tx.select().from(quotes).where(eq(quotes.id, found.quote.id)).for('update')) as [QuoteRecord]
  const over = whyClosed(quote.state, needsPrice(order))
  if (over) refuse('over', over)
  return { ...found, order, quote }
}

export async function answered(tx: Tx, { quote, order, vendor }: Pick<Found, 'quote' | 'order' | 'vendor'>, now: Date, fields: Partial<QuoteRecord>) {
  await tx
    .update(quotes)
    .set({ ...fields, answeredAt: now, remindAt: null, tellAt: null, version: quote.version + 1 })
    .where(eq(quotes.id, quote.id))
  const about = { siteId: order.siteId, orderId: order.id, reason: fields.answer ?? null }
  const facts = { quoteId: quote.id, vendor }
  const { netMinor } = fields
  await recordEvent(
    tx,
    { accountId: null, name: vendor },
    now,
    typeof netMinor === 'number' ? { kind: 'quote.price', ...about, details: { ...facts, netMinor } } : { kind: 'quote.decline', ...about, details: facts },
  )
}

export const namePrice = command(contract.namePrice, async ({ tx, input, now }) => {
  const found = await lockAnswering(tx, input.token, now)
  await answered(tx, found, now, {
    state: 'priced',
    netMinor: input.netMinor,
    taxBp: input.taxBp,
    earliestAt: input.earliestAt ? new Date(input.earliestAt) : null,
    validUntil: input.validUntil ?? null,
    answer: input.note?.trim() || null,
  })
  return pageOf(tx, await openQuote(tx, input.token, now))
})

export const nameNone = command(contract.nameNone, async ({ tx, input, now }) => {
  const found = await lockAnswering(tx, input.token, now)
  await answered(tx, found, now, {
    state: 'declined',
    netMinor: null,
    taxBp: null,
    earliestAt: null,
    validUntil: null,
    answer: input.note.trim(),
  })
  return pageOf(tx, await openQuote(tx, input.token, now))
})
