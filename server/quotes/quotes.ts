import { and, asc, eq, inArray } from 'drizzle-orm'
import { DateTime } from 'luxon'
import type { OrderQuotes } from '#contract/quotes'
import * as contract from '#contract/quotes'
import { addWorkingTime, refuse, Refusal } from '#core/kit'
import { isFinished, isOver } from '#core/orders'
import { compareQuotes, dueReasons, quoteRemindAt } from '#core/quotes'
import { canAt, command, conflict, maySee, mustKnow, notAllowed, notFound, query } from '#server/kit'
import type { Asker, Outgoing, Reader, Tell, Tx } from '#server/kit'
import { weighPlan } from '#server/methods'
import { calendarOf, lockOrderById, seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { keepVendor } from '#server/orders/records'
import { quotes, vendors } from '../tables'

export type QuoteRecord = typeof quotes.$inferSelect

/** Whether a price can still be asked for and named: the work is not finished, and nobody has given the order up. */
export const needsPrice = (order: OrderRecord): boolean => !isFinished(order.state) && !isOver(order.state) && !order.discardedAt

/** Two working days: our own choice, no source. */
const USUAL_DUE_MINUTES = 2 * 600

async function quotesOf(db: Reader, who: Asker, order: OrderRecord, now: Date): Promise<Outgoing<OrderQuotes>> {
  const [rows, calendar] = await Promise.all([
    db
      .select({ quote: quotes, vendor: vendors.name })
      .from(quotes)
      .innerJoin(vendors, eq(vendors.id, quotes.vendorId))
      .where(eq(quotes.orderId, order.id))
      .orderBy(asc(quotes.id)),
    calendarOf(db, order.siteId),
  ])
  const today = DateTime.fromJSDate(now, { zone: calendar.zone }).toISODate()!
  const flat = rows.map(({ quote, vendor }) => ({ ...quote, vendor }))
  const compared = compareQuotes(
    flat.filter(({ state }) => state !== 'withdrawn' && state !== 'declined'),
    today,
  )
  const rest = flat.filter((row) => !compared.some(({ id }) => id === row.id)).map((row) => ({ ...row, aboveMinor: null, lowest: false, lapsed: false }))
  return {
    rows: [...compared, ...rest].map((row) => ({
      id: row.id,
      version: row.version,
      vendorId: row.vendorId,
      vendor: row.vendor,
      state: row.state,
      wanted: row.wanted,
      askedAt: row.askedAt,
      askedBy: row.askedByName,
      dueAt: row.dueAt,
      late: row.state === 'asked' && row.dueAt < now,
      netMinor: row.netMinor,
      taxBp: row.taxBp,
      earliestAt: row.earliestAt,
      validUntil: row.validUntil,
      answer: row.answer,
      answeredAt: row.answeredAt,
      aboveMinor: row.aboveMinor,
      lowest: row.lowest,
      lapsed: row.lapsed,
    })),
    proposed: { wanted: [order.summary, order.description].filter(Boolean).join('\n'), dueAt: addWorkingTime(now, USUAL_DUE_MINUTES, calendar) },
    mayAsk: needsPrice(order) && canAt(who, 'orders.edit', order.siteId),
  }
}

export const readQuotes = query(contract.readQuotes, async ({ db, who, input, now }) => quotesOf(db, who, await seenOrder(db, who, input.orderId), now))

/** The order of somebody who plans it, held. @throws ProblemReply 404, 403 */
async function lockForAsking(tx: Tx, who: Asker, orderId: number): Promise<OrderRecord> {
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  if (!canAt(who, 'orders.edit', order.siteId)) throw notAllowed()
  return order
}
const told = (tell: Tell, kind: 'quote.ask' | 'quote.withdraw', order: OrderRecord, quoteId: number, vendor: string) =>
  tell({ kind, siteId: order.siteId, orderId: order.id, details: { quoteId, vendor } })

const saved = (tx: Tx, quote: QuoteRecord, fields: Partial<typeof quotes.$inferInsert>) =>
  tx
    .update(quotes)
    .set({ ...fields, version: quote.version + 1 })
    .where(eq(quotes.id, quote.id))

export const askQuotes = command(contract.askQuotes, async ({ tx, who, input, now, tell, service }) => {
  const order = await lockForAsking(tx, who, input.orderId)
  if (!needsPrice(order)) refuse('order_over', 'The work is done or given up: no price is needed any more.')
  const dueAt = new Date(input.dueAt)
  const reasons = dueReasons(dueAt, now)
  if (reasons.length) throw new Refusal(reasons)
  await mustKnow(tx, { siteId: order.siteId, who }, { vendorIds: ['vendor', input.vendorIds] })
  const before = await tx
    .select()
    .from(quotes)
    .where(and(eq(quotes.orderId, order.id), inArray(quotes.vendorId, input.vendorIds)))
    .for('update')
  if (before.some(({ state }) => state === 'taken')) refuse('taken', 'The price of one of them is taken already.', 'vendorIds')
  // Whoever is asked anew answers what is asked now.
  for (const one of before) if (one.state !== 'withdrawn') await saved(tx, one, { state: 'withdrawn', remindAt: null, tellAt: null })
  const names = await tx.select({ id: vendors.id, name: vendors.name }).from(vendors).where(inArray(vendors.id, input.vendorIds))
  for (const vendorId of input.vendorIds) {
    const link = service.links.fresh('quote')
    const [made] = await tx
      .insert(quotes)
      .values({
        siteId: order.siteId,
        orderId: order.id,
        vendorId,
        state: 'asked',
        wanted: input.wanted.trim(),
        askedAt: now,
        askedBy: who.accountId,
        askedByName: who.name,
        dueAt,
        remindAt: quoteRemindAt(now, dueAt),
        tellAt: dueAt,
        nonce: link.nonce,
        tokenHash: link.hash,
      })
      .$returningId()
    await told(tell, 'quote.ask', order, made!.id, names.find(({ id }) => id === vendorId)!.name)
  }
  return quotesOf(tx, who, order, now)
})

/** The quote and its order, both held, as it was looked at. */
async function lockQuote(tx: Tx, who: Asker, input: { id: number; version: number }) {
  const [found] = await tx
    .select({ orderId: quotes.orderId, vendor: vendors.name })
    .from(quotes)
    .innerJoin(vendors, eq(vendors.id, quotes.vendorId))
    .where(eq(quotes.id, input.id))
  if (!found) throw notFound('quote')
  const order = await lockForAsking(tx, who, found.orderId)
  const all = await tx.select().from(quotes).where(eq(quotes.orderId, order.id)).orderBy(asc(quotes.id)).for('update')
  const quote = all.find(({ id }) => id === input.id)!
  if (quote.version !== input.version) throw conflict(quote.version, [{ field: 'state', theirs: quote.state, yours: null }])
  return { order, quote, vendor: found.vendor, others: all.filter(({ id }) => id !== quote.id) }
}

export const withdrawQuote = command(contract.withdrawQuote, async ({ tx, who, input, now, tell }) => {
  const { order, quote, vendor } = await lockQuote(tx, who, input)
  if (quote.state !== 'asked' && quote.state !== 'priced') refuse('answered', 'It was decided or taken back already.')
  await saved(tx, quote, { state: 'withdrawn', remindAt: null, tellAt: null })
  await told(tell, 'quote.withdraw', order, quote.id, vendor)
  return quotesOf(tx, who, order, now)
})

export const takeQuote = command(contract.takeQuote, async ({ tx, who, input, now, tell }) => {
  const { order, quote, vendor, others } = await lockQuote(tx, who, input)
  if (!needsPrice(order)) refuse('order_over', 'The work is done or given up: no price is needed any more.')
  if (quote.netMinor === null || (quote.state !== 'priced' && quote.state !== 'passed_over')) refuse('no_price', 'There is no price to take.')
  const { zone } = await calendarOf(tx, order.siteId)
  const today = DateTime.fromJSDate(now, { zone }).toISODate()!
  if (quote.validUntil && quote.validUntil < today) refuse('lapsed', `The price stood until ${quote.validUntil}. Ask ${vendor} anew.`)
  await saved(tx, quote, { state: 'taken', remindAt: null, tellAt: null })
  const over = others.filter(({ state }) => state === 'asked' || state === 'priced' || state === 'taken')
  for (const one of over) await saved(tx, one, { state: 'passed_over', remindAt: null, tellAt: null })
  await keepVendor(tx, order, quote.vendorId)
  await tell({
    kind: 'quote.take',
    siteId: order.siteId,
    orderId: order.id,
    details: { quoteId: quote.id, vendor, netMinor: quote.netMinor, over: over.map(({ id }) => id) },
  })
  const named = (await lockOrderById(tx, order.id))!
  await weighPlan(tx, named, now)
  return quotesOf(tx, who, named, now)
})
