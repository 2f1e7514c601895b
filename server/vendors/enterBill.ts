import { and, eq, or } from 'drizzle-orm'
import * as contract from '#contract/vendors'
import { lineAmount, refuse } from '#core/kit'
import { hangOnOrder } from '#server/kit'
import { vendorBillLines, vendorBills } from '../tables'
import { passCommand } from './passCommand'
import { claimedBill } from './passFiles'

export default passCommand(contract.enterBill, async ({ tx, input, now, visit, order, vendor, tell }) => {
  if (order.state !== 'on_job' && order.state !== 'done')
    refuse('too_late', 'The bill can be entered from the start of the work until the desk has checked it. Call the desk.')
  const [earlier] = await tx
    .select()
    .from(vendorBills)
    .where(or(eq(vendorBills.visitId, visit.id), and(eq(vendorBills.vendorId, vendor.id), eq(vendorBills.number, input.number))))
  if (earlier)
    refuse(
      'bill_there',
      earlier.visitId === visit.id
        ? `Bill ${earlier.number} is here already for this job. Call the desk to change it.`
        : `Bill ${earlier.number} was entered for another job. Check the number.`,
      'number',
    )
  const attachmentId = input.fileClaim ? await claimedBill(tx, visit.id, input.fileClaim) : null
  if (attachmentId !== null) await hangOnOrder(tx, attachmentId, order.id)
  const [bill] = await tx
    .insert(vendorBills)
    .values({ orderId: order.id, visitId: visit.id, vendorId: vendor.id, number: input.number, taxBp: input.taxBp, enteredAt: now, attachmentId })
    .$returningId()
  const lines = input.lines.map((line) => ({ ...line, billId: bill!.id, amountMinor: lineAmount(line.quantity, line.unitPriceMinor) }))
  const net = lines.reduce((sum, line) => sum + line.amountMinor, 0)
  if (net > 2_000_000_000) refuse('too_much', 'The bill is larger than this takes. Check quantities and prices.', 'lines')
  await tx.insert(vendorBillLines).values(lines)
  await tell({
    kind: 'vendor.bill',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { number: input.number, netMinor: net, lines: lines.length },
  })
})
