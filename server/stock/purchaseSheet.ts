import { and, asc, desc, eq, exists, inArray, isNotNull, isNull, like, lt, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/stock'
import type { Purchase, PurchaseRow } from '#contract/stock'
import { billDifference, purchaseTotal } from '#core/stock'
import { canAt, conflict, decodeCursor, delivery, encodeCursor, inThread, likeText, maySee, notFound, query, storedPiecesOf, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { sendDownload } from '#server/orders'
import { accounts, orders, parts, people, purchaseLines, purchases, sites, stockMovements, stores, vendors } from '../tables'
import { plain } from './levels'
import { lastPrice } from './prices'
import type { PurchasePaper } from './purchasePdf.worker'

export type PurchaseRecord = typeof purchases.$inferSelect

/** @throws ProblemReply 404 when it is not there, or not theirs to see */
async function seenPurchase(db: Reader, who: Asker, id: number): Promise<PurchaseRecord> {
  const [row] = await db.select().from(purchases).where(eq(purchases.id, id))
  if (!row || !maySee(who, row.siteId)) throw notFound('purchase')
  return row
}

/** The purchase as who changes it saw it, held. @throws ProblemReply 404, 409 */
export async function lockPurchase(tx: Tx, who: Asker, { id, version }: { id: number; version: number }): Promise<PurchaseRecord> {
  const [row] = await tx.select().from(purchases).where(eq(purchases.id, id)).for('update')
  if (!row || !maySee(who, row.siteId)) throw notFound('purchase')
  if (row.version !== version) throw conflict(row.version, [{ field: 'state', theirs: row.state, yours: null }])
  return row
}

const orderers = alias(people, 'orderer')
const ordererAccounts = alias(accounts, 'orderer_account')

/** A purchase with all that hangs on it. */
export async function purchaseSheet(db: Reader, who: Asker, id: number): Promise<Outgoing<Purchase>> {
  const purchase = await seenPurchase(db, who, id)
  const [[named], lines, receipts] = await Promise.all([
    db
      .select({ vendor: vendors.name, store: stores.name, currency: sites.currency, askedBy: people.name, orderedBy: orderers.name })
      .from(purchases)
      .innerJoin(stores, eq(stores.id, purchases.storeId))
      .innerJoin(sites, eq(sites.id, purchases.siteId))
      .innerJoin(accounts, eq(accounts.id, purchases.askedBy))
      .innerJoin(people, eq(people.id, accounts.personId))
      .leftJoin(vendors, eq(vendors.id, purchases.vendorId))
      .leftJoin(ordererAccounts, eq(ordererAccounts.id, purchases.orderedBy))
      .leftJoin(orderers, eq(orderers.id, ordererAccounts.personId))
      .where(eq(purchases.id, id)),
    db
      .select({ line: purchaseLines, code: parts.code, name: parts.name, unit: parts.unit, order: { id: orders.id, number: orders.number } })
      .from(purchaseLines)
      .innerJoin(parts, eq(parts.id, purchaseLines.partId))
      .leftJoin(orders, eq(orders.id, purchaseLines.orderId))
      .where(eq(purchaseLines.purchaseId, id))
      .orderBy(asc(purchaseLines.id)),
    db
      .select({
        lineId: stockMovements.purchaseLineId,
        quantity: stockMovements.quantity,
        priceMinor: stockMovements.unitCostMinor,
        at: stockMovements.at,
        by: people.name,
      })
      .from(stockMovements)
      .innerJoin(purchaseLines, eq(purchaseLines.id, stockMovements.purchaseLineId))
      .leftJoin(accounts, eq(accounts.id, stockMovements.by))
      .leftJoin(people, eq(people.id, accounts.personId))
      .where(eq(purchaseLines.purchaseId, id))
      .orderBy(desc(stockMovements.id)),
  ])
  const last = new Map(await Promise.all(lines.map(async ({ line }) => [line.partId, await lastPrice(db, purchase.siteId, line.partId)] as const)))
  const { siteId, number, state, billNumber, billedOn, billMinor, fileId: _, ...rest } = purchase
  const facts = lines.map(({ line }) => line)
  return {
    ...rest,
    siteId,
    number,
    state,
    ...named!,
    orderedBy: named!.orderedBy ?? null,
    totalMinor: purchaseTotal(facts),
    billed: billNumber !== null,
    bill: billNumber === null ? null : { number: billNumber, on: billedOn!, amountMinor: billMinor!, difference: billDifference(billMinor!, facts) },
    lines: lines.map(({ line, order, ...part }) => ({
      id: line.id,
      partId: line.partId,
      ...part,
      quantity: plain(line.quantity),
      received: plain(line.received),
      priceMinor: line.priceMinor,
      lastPriceMinor: last.get(line.partId) ?? null,
      order: order?.id ? order : null,
    })),
    receipts: receipts.map((row) => ({ ...row, lineId: row.lineId!, quantity: plain(row.quantity), by: row.by ?? '' })),
    mayEdit: canAt(who, 'registers.edit', siteId),
    mayBill: canAt(who, 'ledger.post', siteId),
  }
}

export const readPurchase = query(contract.readPurchase, ({ db, who, input }) => purchaseSheet(db, who, input.id))

export const listPurchases = query(contract.listPurchases, async ({ db, who, input }) => {
  const limit = input.limit ?? 50
  const [after] = input.after ? (decodeCursor(input.after, ['integer']) as [number]) : []
  const where = and(
    withinSites(who, purchases.siteId),
    input.state ? eq(purchases.state, input.state) : undefined,
    input.billed === undefined ? undefined : input.billed ? isNotNull(purchases.billNumber) : isNull(purchases.billNumber),
    input.q ? calledLike(db, input.q) : undefined,
    after ? lt(purchases.id, after) : undefined,
  )
  const rows = await purchaseRows(db, where, limit + 1)
  const page = rows.slice(0, limit)
  return { rows: page, next: rows.length > limit ? encodeCursor([page.at(-1)!.id]) : null }
})

/** By its number, its vendor or a part on it. */
function calledLike(db: Reader, q: string): SQL | undefined {
  const text = `%${likeText(q.trim())}%`
  const part = db
    .select({ one: sql`1` })
    .from(purchaseLines)
    .innerJoin(parts, eq(parts.id, purchaseLines.partId))
    .where(and(eq(purchaseLines.purchaseId, purchases.id), or(like(parts.name, text), like(parts.code, text))))
  return or(like(purchases.number, text), like(vendors.name, text), exists(part))
}

async function purchaseRows(db: Reader, where: SQL | undefined, limit: number): Promise<Outgoing<PurchaseRow>[]> {
  const rows = await db
    .select({ purchase: purchases, vendor: vendors.name, store: stores.name })
    .from(purchases)
    .innerJoin(stores, eq(stores.id, purchases.storeId))
    .leftJoin(vendors, eq(vendors.id, purchases.vendorId))
    .where(where)
    .orderBy(desc(purchases.id))
    .limit(limit)
  const ids = rows.map(({ purchase }) => purchase.id)
  const lines = ids.length ? await db.select().from(purchaseLines).where(inArray(purchaseLines.purchaseId, ids)) : []
  return rows.map(({ purchase: { id, number, state, siteId, askedAt, orderedAt, expectedOn, billNumber }, vendor, store }) => {
    const mine = lines.filter((line) => line.purchaseId === id)
    return {
      id,
      number,
      state,
      siteId,
      vendor,
      store,
      totalMinor: purchaseTotal(mine),
      lines: mine.length,
      askedAt,
      orderedAt,
      expectedOn,
      billed: billNumber !== null,
    }
  })
}

const draw = inThread<PurchasePaper, Uint8Array>('purchasePdf.worker')

/** The purchase order on paper, as it stands. */
export async function purchasePaper(db: Reader, who: Asker, id: number): Promise<Uint8Array> {
  const sheet = JSON.parse(JSON.stringify(await purchaseSheet(db, who, id))) as Purchase
  const [[site], [vendor]] = await Promise.all([
    db.select().from(sites).where(eq(sites.id, sheet.siteId)),
    sheet.vendorId ? db.select().from(vendors).where(eq(vendors.id, sheet.vendorId)) : [],
  ])
  return draw({
    number: sheet.number,
    on: (sheet.orderedAt ?? sheet.askedAt).slice(0, 10),
    from: [site!.name, sheet.orderedBy ?? sheet.askedBy, site!.deskEmail, site!.deskPhone].filter(Boolean),
    to: vendor ? [vendor.name, vendor.contactName ?? '', vendor.email].filter(Boolean) : ['No vendor yet'],
    deliverTo: sheet.store,
    expectedOn: sheet.expectedOn,
    currency: sheet.currency,
    note: sheet.note,
    lines: sheet.lines.map(({ code, name, unit, quantity, priceMinor }) => ({ code, name, unit, quantity, priceMinor })),
  })
}

/** What was sent, once it is ordered; before, as it stands. */
export const readPurchasePdf = delivery(contract.readPurchasePdf, async ({ db, who, input, response }) => {
  const { number, fileId } = await seenPurchase(db, who, input.id)
  sendDownload(response, `${number}.pdf`)
  response.type('application/pdf')
  if (fileId === null) return void response.end(Buffer.from(await purchasePaper(db, who, input.id)))
  for await (const piece of storedPiecesOf(db, fileId)) response.write(piece)
  response.end()
})
