import Big from 'big.js'
import * as contract from '#contract/field'
import { refuse } from '#core/kit'
import { isSettled } from '#core/orders'
import type { Tx } from '#server/kit'
import { planPart } from '#server/methods/records'
import { askToBuy, goOn, issuePart, lockWaiting, takeBackPart } from '#server/stock'
import { jobCommand } from './jobCommand'
import { materialsOfJob } from './jobMaterials'

export const usePart = jobCommand(contract.usePart, async ({ tx, who, input, visit, order, at, tell }) => {
  if (order.state !== 'on_job') refuse('not_started', 'Start the clock before you use a part.')
  const { partId, quantity, storeId } = input
  const part = await issuePart(tx, { siteId: order.siteId, orderId: order.id, visitId: visit.id, partId, quantity, storeId, at, by: who.accountId })
  await tell({
    kind: 'field.part',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { part: part.name, quantity, unit: part.unit },
  })
})

/** What was not needed comes back until the order is settled, also after it was left. */
export const bringPartBack = jobCommand(contract.bringPartBack, async ({ tx, who, input, visit, order, at, now, tell }) => {
  if (isSettled(order.state)) refuse('order_over', `${order.number} is settled: ask the desk to put the part back.`)
  const { partId, quantity, storeId } = input
  // Orders first, and then what lies in the stores: whoever keeps parts for an order takes them in that order as well.
  const waiting = await lockWaiting(tx, order.siteId, [partId])
  const back = { siteId: order.siteId, orderId: order.id, visitId: visit.id, partId, quantity, storeId, at, by: who.accountId }
  const { part, store } = await takeBackPart(tx, back)
  await tell({
    kind: 'field.partBack',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { part: part.name, quantity, unit: part.unit, store },
  })
  await goOn({ tx, who, now, tell }, waiting, [partId])
})

/** What is asked for is planned too: the order is given it once it comes. */
export const askForPart = jobCommand(contract.askForPart, async ({ tx, who, input, order, at, tell }) => {
  const { partId, quantity } = input
  const missing = await missingOf(tx, order.id, partId)
  // What is planned for it already, and not kept for it, is what is asked for.
  const more = new Big(quantity).minus(missing)
  await askToBuy({ tx, who, now: at, tell }, order, { partId, quantity })
  if (more.gt(0)) await planPart(tx, order.id, partId, more.toString())
})

/** What is planned of a part for an order, and neither taken nor kept for it. */
async function missingOf(tx: Tx, orderId: number, partId: number): Promise<Big> {
  const { planned } = await materialsOfJob(tx, orderId)
  const line = planned.find((one) => one.partId === partId)
  if (!line) return new Big(0)
  const left = line.kept.reduce((all, { quantity }) => all.minus(quantity), new Big(line.quantity))
  return left.gt(0) ? left : new Big(0)
}
