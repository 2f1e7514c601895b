import { and, eq } from 'drizzle-orm'
import * as contract from '#contract/vendors'
import { refuseAdditions } from '#core/field'
import { notFound } from '#server/kit'
import { vendorParts } from '../tables'
import { passCommand } from './passCommand'

export const bringPart = passCommand(contract.bringPart, async ({ tx, input, visit, order, at, tell }) => {
  refuseAdditions(order.state)
  const { name, quantity, unit } = input
  await tx.insert(vendorParts).values({ orderId: order.id, visitId: visit.id, name, quantity, unit, at })
  await tell({ kind: 'vendor.part', siteId: order.siteId, orderId: order.id, visitId: visit.id, details: { name, quantity, unit } })
})

export const dropPart = passCommand(contract.dropPart, async ({ tx, input, visit, order, tell }) => {
  refuseAdditions(order.state)
  const mine = and(eq(vendorParts.id, input.id), eq(vendorParts.visitId, visit.id))
  const [part] = await tx.select().from(vendorParts).where(mine)
  if (!part) throw notFound('part')
  await tx.delete(vendorParts).where(mine)
  const { name, unit } = part
  const details = { name, quantity: String(Number(part.quantity)), unit }
  await tell({ kind: 'vendor.dropPart', siteId: order.siteId, orderId: order.id, visitId: visit.id, details })
})
