import { eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/orders'
import { refuse } from '#core/kit'
import { reversalOf } from '#core/ledger'
import { orderMove, standingPosting } from '#server/orders'
import { chargeLines, charges, journalEntries, payables, postings } from '../tables'
import { openMonth } from './postOrder'

/** A visible reversal: the same lines with the sign changed, in the month it is made. */
export default orderMove(contract.reverseOrder, 'reverse', async ({ tx, who, now, order, input }) => {
  const posting = await standingPosting(tx, order.id)
  if (!posting) refuse('not_posted', 'Nothing has been posted, so there is nothing to reverse.')
  const month = await openMonth(tx, order.siteId, now)
  const [reversal] = await tx
    .insert(postings)
    .values({
      orderId: order.id,
      siteId: order.siteId,
      kind: 'reversal',
      round: posting.round,
      reversesId: posting.id,
      month,
      at: now,
      by: who.accountId,
      reason: input.reason ?? null,
    })
    .$returningId()
  const chargeRows = await tx.select().from(charges).where(eq(charges.postingId, posting.id))
  const lineRows = chargeRows.length
    ? await tx
        .select()
        .from(chargeLines)
        .where(
          inArray(
            chargeLines.chargeId,
            chargeRows.map((charge) => charge.id),
          ),
        )
    : []
  for (const { id, ...charge } of chargeRows) {
    const [saved] = await tx
      .insert(charges)
      .values({ ...charge, postingId: reversal!.id, month, netMinor: -charge.netMinor, taxMinor: -charge.taxMinor, grossMinor: -charge.grossMinor })
      .$returningId()
    const lines = lineRows
      .filter((line) => line.chargeId === id)
      .map(({ id: _line, ...line }) => ({ ...line, chargeId: saved!.id, costMinor: -line.costMinor, netMinor: -line.netMinor }))
    if (lines.length) await tx.insert(chargeLines).values(lines)
  }
  const entries = await tx.select().from(journalEntries).where(eq(journalEntries.postingId, posting.id))
  const mirrored = reversalOf(entries.map((entry) => ({ account: entry.account, debit: entry.debitMinor, credit: entry.creditMinor })))
  if (mirrored.length)
    await tx
      .insert(journalEntries)
      .values(mirrored.map((entry) => ({ postingId: reversal!.id, account: entry.account, debitMinor: entry.debit, creditMinor: entry.credit })))
  const owed = await tx.select().from(payables).where(eq(payables.postingId, posting.id))
  if (owed.length)
    await tx.insert(payables).values(
      owed.map((payable) => ({
        postingId: reversal!.id,
        orderId: order.id,
        vendorId: payable.vendorId,
        netMinor: -payable.netMinor,
        taxMinor: -payable.taxMinor,
      })),
    )
  return { closedAt: null }
})
