import { eq } from 'drizzle-orm'
import { DateTime } from 'luxon'
import * as contract from '#contract/dispatch'
import { refuse, Refusal } from '#core/kit'
import { moveOrder, stepsBefore } from '#core/orders'
import { papersMissing, papersOn } from '#core/vendors'
import { isToCome, keepsTo, windowSays } from '#core/windows'
import { command, mustKnow } from '#server/kit'
import type { Service, Tx } from '#server/kit'
import { calendarOf, factsOf, lockOrder, saveMove, windowOf } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { vendorPasses, vendors, visits } from '../tables'
import { askingOf } from './asking'
import { nextKindOf, passUntil } from './records'

export default command(contract.dispatchOrder, async ({ tx, who, input, now, service }) => {
  const order = await lockOrder(tx, who, input.id, input.version)
  const technicianIds = input.technicianIds ?? []
  const vendorId = input.vendorId ?? null
  if (!technicianIds.length && !vendorId) refuse('nobody_planned', 'Choose a technician or a vendor.', 'technicianIds')
  const start = new Date(input.start)
  const end = new Date(input.end)
  if (end < now) refuse('in_the_past', 'Choose a time that has not passed.', 'start')
  await mustKnow(tx, { siteId: order.siteId, who }, { technicianIds: ['technician', technicianIds], vendorId: ['vendor', vendorId] })
  const kind = await nextKindOf(tx, order)
  const plan = { orderId: order.id, kind, state: 'planned' as const, plannedStart: start, plannedEnd: end }
  const made = technicianIds.length
    ? await tx
        .insert(visits)
        .values(technicianIds.map((technicianId) => ({ ...plan, technicianId })))
        .$returningId()
    : []
  const visitId = vendorId ? await planVendor(tx, service, { ...plan, vendorId, ...(await askingOf(tx, order, start, now)) }, now) : null
  // The rule counts live visits, so the facts are read after they are there.
  const facts = await factsOf(tx, order, who, now)
  const despite = input.despiteSteps || null
  const unready = stepsBefore(facts, despite)
  if (unready.length) throw new Refusal(unready)
  const window = windowOf(order)
  const outside = window !== null && isToCome(window, now) && !keepsTo(window, start)
  const besides = input.despiteWindow?.trim() || null
  if (outside && !besides) {
    const { zone } = await calendarOf(tx, order.siteId)
    refuse('outside_window', `It was agreed for ${windowSays(window, zone)}. Plan it within that, or say why somebody goes at another time.`, 'despiteWindow')
  }
  const anyway = input.despitePapers?.trim() || null
  const lacking = vendorId ? await papersLacking(tx, order, vendorId, start) : []
  if (lacking.length && !anyway) refuse('papers_ended', `${lacking.join(' ')} Say why they are sent all the same.`, 'despitePapers')
  const to = moveOrder(facts, 'dispatch', null)
  const why = [facts.stepsFirst.length ? despite : null, outside ? besides : null, lacking.length ? anyway : null].filter(Boolean).join(' ') || null
  return saveMove(tx, who, now, order, 'dispatch', to, why, responded(order, now), {
    technicianIds,
    visitIds: made.map(({ id }) => id),
    vendorId,
    visitId,
    start: start.toISOString(),
    end: end.toISOString(),
    visitKind: kind,
  })
})

/** What of a vendor’s papers has ended by the day they are to come, in words. */
async function papersLacking(tx: Tx, order: OrderRecord, vendorId: number, start: Date): Promise<string[]> {
  const [vendor] = (await tx.select().from(vendors).where(eq(vendors.id, vendorId))) as [typeof vendors.$inferSelect]
  const { zone } = await calendarOf(tx, order.siteId)
  const day = DateTime.fromJSDate(start, { zone }).toISODate()!
  return papersMissing(papersOn(vendor, day)).map(({ what, until }) => `${what} of ${vendor.name} ended on ${until}.`)
}

const responded = (order: OrderRecord, now: Date) => (order.respondedAt ? {} : { respondedAt: now })

/** A vendor's visit comes with a pass: a link that works without an account and expires. */
async function planVendor(tx: Tx, service: Service, plan: typeof visits.$inferInsert, now: Date): Promise<number> {
  const [visit] = await tx.insert(visits).values(plan).$returningId()
  const link = service.links.fresh('pass')
  await tx.insert(vendorPasses).values({
    visitId: visit!.id,
    nonce: link.nonce,
    tokenHash: link.hash,
    createdAt: now,
    expiresAt: passUntil(plan.plannedEnd),
  })
  return visit!.id
}
