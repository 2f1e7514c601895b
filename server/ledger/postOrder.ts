import { eq } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { refuse } from '#core/kit'
import { imbalance, journalOf } from '#core/ledger'
import type { PayerCharge, VendorPayable } from '#core/ledger'
import { percentOf } from '#core/kit'
import type { Tx } from '#server/kit'
import { orderMove } from '#server/orders'
import { chargeLines, charges, journalEntries, payables, periods, postings, sites, vendorBillLines, vendorBills } from '../tables'
import { chargesFor } from './chargesFor'
import { monthOf } from './month'

export default orderMove(contract.postOrder, 'post', async ({ tx, who, now, order }) => {
  const payable = await payablesOf(tx, order.id)
  const { charges: result, terms } = await chargesFor(tx, order.id)
  const journal = journalOf(result, payable)
  if (imbalance(journal) !== 0) throw new Error(`The journal of order ${order.id} does not balance.`)
  const month = await openMonth(tx, order.siteId, now)
  const earlier = await tx.select({ id: postings.id }).from(postings).where(eq(postings.orderId, order.id))
  const [posting] = await tx
    .insert(postings)
    .values({ orderId: order.id, siteId: order.siteId, kind: 'posting', round: Math.floor(earlier.length / 2) + 1, month, at: now, by: who.accountId })
    .$returningId()
  const shareOf = new Map(terms.map(({ payer, shareBp }) => [payer.id, shareBp]))
  for (const charge of result) await saveCharge(tx, posting!.id, order.id, month, charge, shareOf.get(charge.payerId)!)
  if (journal.length)
    await tx
      .insert(journalEntries)
      .values(journal.map((entry) => ({ postingId: posting!.id, account: entry.account, debitMinor: entry.debit, creditMinor: entry.credit })))
  if (payable.length)
    await tx
      .insert(payables)
      .values(payable.map((owed) => ({ postingId: posting!.id, orderId: order.id, vendorId: owed.vendorId, netMinor: owed.net, taxMinor: owed.tax })))
  return { closedAt: now }
})

async function saveCharge(tx: Tx, postingId: number, orderId: number, month: string, charge: PayerCharge, shareBp: number): Promise<void> {
  const [saved] = await tx
    .insert(charges)
    .values({
      postingId,
      orderId,
      payerId: charge.payerId,
      month,
      ownCost: charge.ownCost,
      shareBp,
      netMinor: charge.net,
      taxBp: charge.taxBp,
      taxMinor: charge.tax,
      grossMinor: charge.gross,
    })
    .$returningId()
  const rows = charge.lines.map(({ line, cost, markupBp, net }) => ({
    chargeId: saved!.id,
    kind: line.kind,
    sourceId: line.sourceId,
    description: line.description,
    quantity: line.quantity,
    unit: line.unit,
    unitCostMinor: line.unitCost,
    costMinor: cost,
    markupBp,
    netMinor: net,
  }))
  if (rows.length) await tx.insert(chargeLines).values(rows)
}

async function payablesOf(tx: Tx, orderId: number): Promise<VendorPayable[]> {
  const rows = await tx
    .select({ vendorId: vendorBills.vendorId, billId: vendorBills.id, taxBp: vendorBills.taxBp, amount: vendorBillLines.amountMinor })
    .from(vendorBills)
    .innerJoin(vendorBillLines, eq(vendorBillLines.billId, vendorBills.id))
    .where(eq(vendorBills.orderId, orderId))
  const byVendor = new Map<number, VendorPayable>()
  for (const billId of new Set(rows.map((row) => row.billId))) {
    const lines = rows.filter((row) => row.billId === billId)
    const { vendorId, taxBp } = lines[0]!
    const net = lines.reduce((sum, line) => sum + line.amount, 0)
    const owed = byVendor.get(vendorId) ?? { vendorId, net: 0, tax: 0 }
    byVendor.set(vendorId, { vendorId, net: owed.net + net, tax: owed.tax + percentOf(net, taxBp) })
  }
  return [...byVendor.values()]
}

/** The month charges of this instant belong to, in the site's zone; made when it is the first. */
export async function openMonth(tx: Tx, siteId: number, now: Date): Promise<string> {
  const [site] = await tx.select({ zone: sites.zone }).from(sites).where(eq(sites.id, siteId))
  const month = monthOf(now, site!.zone)
  await tx.insert(periods).ignore().values({ siteId, month })
  const closed = (await tx.select().from(periods).where(eq(periods.siteId, siteId))).find((period) => period.month === month && period.closedAt)
  if (closed) refuse('period_closed', `The period ${month} is closed; post in the next one.`)
  return month
}
