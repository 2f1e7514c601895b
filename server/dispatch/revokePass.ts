import { eq } from 'drizzle-orm'
import * as contract from '#contract/dispatch'
import { command, maySee, notFound } from '#server/kit'
import { orders, vendorPasses, visits } from '../tables'

export default command(contract.revokePass, async ({ tx, who, input, now, tell }) => {
  const [found] = await tx
    .select({ pass: vendorPasses, order: orders })
    .from(vendorPasses)
    .innerJoin(visits, eq(visits.id, vendorPasses.visitId))
    .innerJoin(orders, eq(orders.id, visits.orderId))
    .where(eq(vendorPasses.id, input.id))
  if (!found || !maySee(who, found.order.siteId)) throw notFound('pass')
  if (!found.pass.revokedAt) {
    await tx.update(vendorPasses).set({ revokedAt: now }).where(eq(vendorPasses.id, input.id))
    await tell({ kind: 'order.revokePass', siteId: found.order.siteId, orderId: found.order.id, visitId: found.pass.visitId })
  }
  return { id: input.id }
})
