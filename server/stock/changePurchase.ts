import Big from 'big.js'
import { and, eq, inArray, isNotNull, isNull, sql } from 'drizzle-orm'
import * as contract from '#contract/stock'
import type { LineEntry } from '#contract/stock'
import { Refusal, refuse } from '#core/kit'
import { isFinished, isOver } from '#core/orders'
import { isAllThere, orderingReasons, PURCHASE_STATE_NAMES, toCome } from '#core/stock'
import type { PurchaseState } from '#core/stock'
import { canAt, command, isDuplicate, maySee, notAllowed, notFound, storeFile, takeNumber } from '#server/kit'
import type { Asker, Tell, Tx } from '#server/kit'
import { lockOrderById } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { orders, parts, purchaseLines, purchases, stores, vendors } from '../tables'
import { goOn, lockWaiting } from './arrivals'
import { plain } from './levels'
import { comeIn, myStore } from './moveStock'
import { lastPrice } from './prices'
import { lockPurchase, purchasePaper, purchaseSheet } from './purchaseSheet'
import type { PurchaseRecord } from './purchaseSheet'

/** What is asked for is there and in use, and the orders it is for are of the site. @throws Refusal at "lines" or "vendorId" */
async function mustBeBuyable(tx: Tx, siteId: number, lines: readonly LineEntry[], vendorId: number | null | undefined): Promise<void> {
  const partIds = [...new Set(lines.map(({ partId }) => partId))]
  const orderIds = [...new Set(lines.flatMap(({ orderId }) => orderId ?? []))]
  const [known, found, [vendor]] = await Promise.all([
    partIds.length
      ? tx
          .select({ id: parts.id })
          .from(parts)
          .where(and(inArray(parts.id, partIds), isNull(parts.retiredAt)))
      : [],
    orderIds.length
      ? tx
          .select({ id: orders.id })
          .from(orders)
          .where(and(inArray(orders.id, orderIds), eq(orders.siteId, siteId)))
      : [],
    vendorId
      ? tx
          .select({ id: vendors.id })
          .from(vendors)
          .where(and(eq(vendors.id, vendorId), isNull(vendors.retiredAt)))
      : [{ id: 0 }],
  ])
  if (known.length < partIds.length) refuse('part_unknown', 'Choose parts from the list: one of them is not in use.', 'lines')
  if (found.length < orderIds.length) refuse('order_unknown', 'There is no such order at the site of the store.', 'lines')
  if (!vendor) refuse('vendor_unknown', 'Choose a vendor from the list.', 'vendorId')
}

/** Adds lines at the last price paid, where nothing else is said; the same part for the same order is one line. */
async function addLines(tx: Tx, purchase: Pick<PurchaseRecord, 'id' | 'siteId'>, lines: readonly LineEntry[]): Promise<void> {
  for (const { partId, quantity, priceMinor, orderId = null } of lines) {
    const price = priceMinor === undefined ? await lastPrice(tx, purchase.siteId, partId) : priceMinor
    const there = and(
      eq(purchaseLines.purchaseId, purchase.id),
      eq(purchaseLines.partId, partId),
      orderId === null ? isNull(purchaseLines.orderId) : eq(purchaseLines.orderId, orderId),
    )
    const [line] = await tx.select({ id: purchaseLines.id }).from(purchaseLines).where(there)
    if (line)
      await tx
        .update(purchaseLines)
        .set({ quantity: sql`${purchaseLines.quantity} + ${quantity}` })
        .where(eq(purchaseLines.id, line.id))
    else await tx.insert(purchaseLines).values({ purchaseId: purchase.id, partId, quantity, priceMinor: price, received: '0', orderId })
  }
}

interface NewPurchase {
  siteId: number
  storeId: number
  vendorId: number | null
  note?: string | null
}

export async function beginPurchase(tx: Tx, who: Asker, now: Date, { siteId, storeId, vendorId, note }: NewPurchase, lines: readonly LineEntry[]) {
  const number = await takeNumber(tx, siteId, 'purchase')
  const [saved] = await tx
    .insert(purchases)
    .values({ siteId, number, state: 'asked', vendorId, storeId, note: note || null, askedAt: now, askedBy: who.accountId! })
    .$returningId()
  await addLines(tx, { id: saved!.id, siteId }, lines)
  return { id: saved!.id, number }
}

export const askPurchase = command(contract.askPurchase, async ({ tx, who, input, now, tell }) => {
  const { storeId, vendorId = null, note, lines } = input
  const store = await myStore(tx, who, storeId, 'storeId')
  await mustBeBuyable(tx, store.siteId, lines, vendorId)
  const { id, number } = await beginPurchase(tx, who, now, { siteId: store.siteId, storeId, vendorId, note }, lines)
  await tell({ kind: 'stock.purchase', siteId: store.siteId, details: { purchaseId: id, number, what: 'asked for' } })
  return purchaseSheet(tx, who, id)
})

export const askForOrder = command(contract.askForOrder, async ({ tx, who, input, now, tell }) => {
  const order = await lockOrderById(tx, input.orderId)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  return askToBuy({ tx, who, now, tell }, order, input)
})

/**
 * Asks for a part to be bought for an order, on the purchase that is asked for already at its usual vendor.
 * @param order locked
 * @throws Refusal when it is over, at `partId` when there is no such part or no store it could go to
 */
export async function askToBuy(
  { tx, who, now, tell }: { tx: Tx; who: Asker; now: Date; tell: Tell },
  order: OrderRecord,
  { partId, quantity }: { partId: number; quantity: string },
): Promise<{ id: number; number: string }> {
  if (isFinished(order.state) || isOver(order.state) || order.discardedAt)
    throw new Refusal([{ code: 'order_over', sentence: 'The order is over: nothing is bought for it any more.' }])
  const { id: orderId, siteId } = order
  const [[part], [store]] = await Promise.all([
    tx
      .select()
      .from(parts)
      .where(and(eq(parts.id, partId), isNull(parts.retiredAt))),
    tx
      .select({ id: stores.id })
      .from(stores)
      .where(and(eq(stores.siteId, siteId), isNull(stores.retiredAt)))
      // What is bought is delivered to a house before it goes along in a van.
      .orderBy(isNotNull(stores.carriedBy), stores.id)
      .limit(1),
  ])
  if (!part) refuse('part_unknown', 'Choose parts from the list: one of them is not in use.', 'partId')
  if (!store) refuse('store_missing', 'The site has no store it could be delivered to: enter one under Registers.', 'partId')
  const vendorId = part.vendorId
  // What is asked for already, of the same vendor; one after the other, so that two make one purchase.
  const [open] = await tx
    .select({ id: purchases.id, number: purchases.number, version: purchases.version })
    .from(purchases)
    .where(and(eq(purchases.siteId, siteId), eq(purchases.state, 'asked'), vendorId === null ? isNull(purchases.vendorId) : eq(purchases.vendorId, vendorId)))
    .orderBy(purchases.id)
    .limit(1)
    .for('update')
  const line = { partId, quantity, orderId }
  const purchase = open ?? (await beginPurchase(tx, who, now, { siteId, storeId: store.id, vendorId }, [line]))
  if (open) {
    await addLines(tx, { id: open.id, siteId }, [line])
    await countOn(tx, open)
  }
  const { id, number } = purchase
  await tell({ kind: 'stock.ask', siteId, orderId, details: { purchaseId: id, number, part: part.name, quantity: plain(quantity), unit: part.unit } })
  return { id, number }
}

const countOn = (tx: Tx, { id, version }: Pick<PurchaseRecord, 'id' | 'version'>) =>
  tx
    .update(purchases)
    .set({ version: version + 1 })
    .where(eq(purchases.id, id))

/** Who changes purchases does so at their site. */
function mustKeep(who: Asker, { siteId }: PurchaseRecord, permission: 'registers.edit' | 'ledger.post' = 'registers.edit'): void {
  if (!canAt(who, permission, siteId)) throw notAllowed()
}

const wrongState = (state: PurchaseState, sentence: string): Refusal =>
  new Refusal([{ code: 'wrong_state', sentence: `It is ${PURCHASE_STATE_NAMES[state].toLowerCase()}: ${sentence}` }])

export const editPurchase = command(contract.editPurchase, async ({ tx, who, input, tell }) => {
  const purchase = await lockPurchase(tx, who, input)
  mustKeep(who, purchase)
  const { vendorId, storeId, note, expectedOn, lines } = input
  const agreed = vendorId !== undefined || storeId !== undefined || lines !== undefined
  if (purchase.state !== 'asked' && agreed)
    throw wrongState(purchase.state, 'what was ordered stays as it was sent. Call off what is not wanted, and ask for the rest anew.')
  if (purchase.state === 'received' || purchase.state === 'cancelled') throw wrongState(purchase.state, 'nothing is changed any more.')
  if (storeId !== undefined) {
    const store = await myStore(tx, who, storeId, 'storeId')
    if (store.siteId !== purchase.siteId) refuse('store_unknown', 'Choose a store of the same site.', 'storeId')
  }
  await mustBeBuyable(tx, purchase.siteId, lines ?? [], vendorId)
  if (lines) {
    await tx.delete(purchaseLines).where(eq(purchaseLines.purchaseId, purchase.id))
    await addLines(tx, purchase, lines)
  }
  await tx
    .update(purchases)
    .set({
      ...(vendorId === undefined ? {} : { vendorId }),
      ...(storeId === undefined ? {} : { storeId }),
      ...(note === undefined ? {} : { note: note || null }),
      ...(expectedOn === undefined ? {} : { expectedOn: expectedOn || null }),
      version: purchase.version + 1,
    })
    .where(eq(purchases.id, purchase.id))
  await tell({ kind: 'stock.purchase', siteId: purchase.siteId, details: { purchaseId: purchase.id, number: purchase.number, what: 'changed' } })
  return purchaseSheet(tx, who, purchase.id)
})

export const orderPurchase = command(contract.orderPurchase, async ({ tx, who, input, now, tell }) => {
  const purchase = await lockPurchase(tx, who, input)
  mustKeep(who, purchase)
  const { id, siteId, number, vendorId } = purchase
  const lines = await tx.select().from(purchaseLines).where(eq(purchaseLines.purchaseId, id))
  const reasons = orderingReasons({ ...purchase, lines })
  if (reasons.length) throw new Refusal(reasons)
  await tx
    .update(purchases)
    .set({
      state: 'ordered',
      orderedAt: now,
      orderedBy: who.accountId,
      ...(input.expectedOn ? { expectedOn: input.expectedOn } : {}),
      version: purchase.version + 1,
    })
    .where(eq(purchases.id, id))
  const file = await storeFile(tx, [Buffer.from(await purchasePaper(tx, who, id))], now)
  await tx.update(purchases).set({ fileId: file.id }).where(eq(purchases.id, id))
  const [vendor] = await tx.select({ name: vendors.name }).from(vendors).where(eq(vendors.id, vendorId!))
  await tell({ kind: 'stock.order', siteId, details: { purchaseId: id, number, vendor: vendor!.name } })
  return purchaseSheet(tx, who, id)
})

export const receivePurchase = command(contract.receivePurchase, async ({ tx, who, input, now, tell }) => {
  const purchase = await lockPurchase(tx, who, input)
  mustKeep(who, purchase)
  const { id, siteId, storeId, number, state } = purchase
  if (state !== 'ordered') throw wrongState(state, state === 'asked' ? 'order it first.' : 'nothing more comes of it.')
  const lines = await tx
    .select({ line: purchaseLines, part: parts })
    .from(purchaseLines)
    .innerJoin(parts, eq(parts.id, purchaseLines.partId))
    .where(eq(purchaseLines.purchaseId, id))
  const came = input.lines.map((one) => ({ ...one, found: lines.find(({ line }) => line.id === one.lineId) }))
  for (const { quantity, found } of came) {
    if (!found) return refuse('line_unknown', 'That is not a line of this purchase.', 'lines')
    const left = toCome(found.line)
    if (new Big(quantity).gt(left))
      refuse('too_much', `${plain(left)} ${found.part.unit} of ${found.part.name} are still to come. Receive what is beyond that by itself.`, 'lines')
  }
  const partIds = [...new Set(came.map(({ found }) => found!.part.id))].sort((a, b) => a - b)
  const waiting = await lockWaiting(tx, siteId, partIds)
  for (const { lineId, quantity, priceMinor, found } of came.sort((a, b) => a.found!.part.id - b.found!.part.id)) {
    const moving = { tx, at: now, by: who.accountId, partId: found!.part.id, reason: input.note || null }
    await comeIn(moving, storeId, 'receipt', quantity, priceMinor, null, { purchaseLineId: lineId })
    await tx
      .update(purchaseLines)
      .set({ received: sql`${purchaseLines.received} + ${quantity}`, ...(found!.line.priceMinor === null ? { priceMinor } : {}) })
      .where(eq(purchaseLines.id, lineId))
  }
  const after = await tx.select().from(purchaseLines).where(eq(purchaseLines.purchaseId, id))
  const whole = isAllThere(after)
  await tx
    .update(purchases)
    .set({ ...(whole ? { state: 'received' as const } : {}), version: purchase.version + 1 })
    .where(eq(purchases.id, id))
  await tell({ kind: 'stock.receive', siteId, details: { purchaseId: id, number, whole } })
  await goOn({ tx, who, now, tell }, waiting, partIds)
  return purchaseSheet(tx, who, id)
})

export const cancelPurchase = command(contract.cancelPurchase, async ({ tx, who, input, tell }) => {
  const purchase = await lockPurchase(tx, who, input)
  mustKeep(who, purchase)
  const { id, siteId, number, state } = purchase
  if (state !== 'asked' && state !== 'ordered') throw wrongState(state, 'there is nothing to call off.')
  const lines = await tx.select().from(purchaseLines).where(eq(purchaseLines.purchaseId, id))
  const some = lines.some(({ received }) => Number(received) > 0)
  // What came stays, and no more is waited for.
  await tx
    .update(purchases)
    .set({ state: some ? 'received' : 'cancelled', version: purchase.version + 1 })
    .where(eq(purchases.id, id))
  await tell({ kind: 'stock.purchase', siteId, reason: input.reason, details: { purchaseId: id, number, what: some ? 'the rest called off' : 'called off' } })
  return purchaseSheet(tx, who, id)
})

export const billPurchase = command(contract.billPurchase, async ({ tx, who, input, tell }) => {
  const purchase = await lockPurchase(tx, who, input)
  mustKeep(who, purchase, 'ledger.post')
  const { id, siteId, number, state, billNumber } = purchase
  if (billNumber !== null) throw new Refusal([{ code: 'billed', sentence: `Its bill ${billNumber} is entered already.` }])
  const lines = await tx.select().from(purchaseLines).where(eq(purchaseLines.purchaseId, id))
  if (state === 'asked' || state === 'cancelled' || !lines.some(({ received }) => Number(received) > 0)) throw wrongState(state, 'nothing of it was received.')
  try {
    await tx
      .update(purchases)
      .set({ billNumber: input.number, billedOn: input.on, billMinor: input.amountMinor, version: purchase.version + 1 })
      .where(eq(purchases.id, id))
  } catch (error) {
    if (!isDuplicate(error)) throw error
    refuse('bill_known', `A bill ${input.number} of this vendor is entered already.`, 'number')
  }
  await tell({ kind: 'stock.bill', siteId, details: { purchaseId: id, number, bill: input.number, amountMinor: input.amountMinor } })
  return purchaseSheet(tx, who, id)
})
