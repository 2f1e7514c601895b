import { asc, eq, inArray } from 'drizzle-orm'
import * as contract from '#contract/templates'
import type { MadeRow } from '#contract/templates'
import { Refusal, refuse } from '#core/kit'
import { isOver } from '#core/orders'
import { canAt, command, maySee, notAllowed, notFound } from '#server/kit'
import type { Asker, Tx } from '#server/kit'
import { contentsOf, giveMethods, NOTHING } from '#server/methods'
import type { MethodInUse } from '#server/methods'
import { beginOrder, lockOrderById, saveMove, takeBackOrder, withdrawAsks } from '#server/orders'
import { batchOrders, orderBatches, orders, orderTemplates, places, stints, visits } from '../tables'
import { targetsOf } from './selection'
import type { Target } from './selection'
import { lockTemplate, mustBeKnown } from './templates'

type TemplateRecord = typeof orderTemplates.$inferSelect

export const previewOrders = command(contract.previewOrders, async ({ tx, who, input }) => {
  const { id, ...selection } = input
  const template = await lockTemplate(tx, who, id)
  const { targets, unknown } = await targetsOf(tx, template, selection)
  return { rows: targets.map(({ placeId: _, assetId: __, vendorId: ___, payerId: ____, ...row }) => row), unknown }
})

export const makeOrders = command(contract.makeOrders, async ({ tx, who, input, now, tell }) => {
  const { id, version, lead, leadNumber, except = [], doubled = [], ...selection } = input
  const template = await lockTemplate(tx, who, id, version)
  const { siteId } = template
  if (!canAt(who, 'orders.edit', siteId)) throw notAllowed()
  if (template.retiredAt) throw new Refusal([{ code: 'retired', sentence: 'The template was put away: take it out again first.' }])
  await mustBeKnown(tx, who, template)
  const { targets } = await targetsOf(tx, template, selection)
  const [leftOut, despite] = [new Set(except), new Set(doubled)]
  const whyNot = ({ key, problem, doubled: by }: Target): string | null =>
    problem ?? (leftOut.has(key) ? 'Left out.' : by && !despite.has(key) ? `${by.number} is open there already.` : null)
  const wanted = targets.filter((target) => whyNot(target) === null)
  if (!wanted.length) throw new Refusal([{ code: 'nothing_left', sentence: 'Nothing is left to make an order for.' }])
  const leading = lead === 'order' ? await leadBy(tx, who, siteId, leadNumber) : lead === 'new' ? await newLead(tx, who, now, template, wanted) : null
  const [batch] = await tx
    .insert(orderBatches)
    .values({ siteId, templateId: id, leadOrderId: leading?.id ?? null, at: now, by: who.accountId! })
    .$returningId()
  const methods = template.methodId === null ? [] : await contentsOf(tx, [template.methodId])
  const made = new Map<string, { id: number; number: string }>()
  for (const target of wanted) made.set(target.key, await makeOne(tx, who, now, template, target, methods, leading?.id ?? null))
  const ids = [...made.values()].map((order) => order.id)
  if (lead === 'new') ids.push(leading!.id)
  await tx.insert(batchOrders).values(ids.map((orderId) => ({ batchId: batch!.id, orderId })))
  await tell({
    kind: 'template.make',
    siteId,
    ...(leading ? { orderId: leading.id } : {}),
    details: { template: template.name, batchId: batch!.id, orders: made.size },
  })
  const rows = targets.map((target): MadeRow => ({ key: target.key, code: target.code, order: made.get(target.key) ?? null, sentence: whyNot(target) }))
  return { batchId: batch!.id, lead: leading, rows }
})

/** The order that leads what is made, as somebody named it. @throws Refusal at `leadNumber` */
async function leadBy(tx: Tx, who: Asker, siteId: number, number: string | undefined): Promise<{ id: number; number: string }> {
  const [found] = number ? await tx.select({ id: orders.id }).from(orders).where(eq(orders.number, number.trim().toUpperCase())) : []
  const order = found && (await lockOrderById(tx, found.id))
  if (!order || !maySee(who, order.siteId) || order.siteId !== siteId || order.discardedAt)
    refuse('lead_unknown', 'There is no such order at this site.', 'leadNumber')
  if (order.leadOrderId) refuse('lead_is_member', `${order.number} belongs to a group itself; choose the order that leads it.`, 'leadNumber')
  if (isOver(order.state)) refuse('lead_over', `${order.number} is over; it leads nothing any more.`, 'leadNumber')
  return { id: order.id, number: order.number }
}

const columnsOf = ({ siteId, kind, description, priority, categoryId, tradeId, teamId, leadId, supervisorId, dueDays }: TemplateRecord, who: Asker) => ({
  siteId,
  kind,
  description,
  priority,
  categoryId,
  tradeId,
  teamId,
  leadId: leadId ?? who.accountId,
  supervisorId,
  dueDays,
})

/** An order of its own that leads the others, at the site itself. */
async function newLead(tx: Tx, who: Asker, now: Date, template: TemplateRecord, wanted: readonly Target[]): Promise<{ id: number; number: string }> {
  const [root] = await tx.select({ id: places.id }).from(places).where(eq(places.siteId, template.siteId)).orderBy(asc(places.path)).limit(1)
  const beginning = { ...columnsOf(template, who), summary: template.name, placeId: root?.id ?? null, promisedFrom: now, payerId: wanted[0]!.payerId! }
  return beginOrder(tx, who, now, beginning, { template: template.name })
}

async function makeOne(tx: Tx, who: Asker, now: Date, template: TemplateRecord, target: Target, methods: readonly MethodInUse[], leadOrderId: number | null) {
  const { summary, placeId, assetId, vendorId, payerId } = target
  const beginning = {
    ...columnsOf(template, who),
    ...{ summary, placeId, assetId, vendorId, leadOrderId },
    estimateMinor: template.estimateMinor,
    promisedFrom: now,
    payerId: payerId!,
  }
  const order = await beginOrder(tx, who, now, beginning, { template: template.name })
  if (methods.length) await giveMethods({ tx, who, now }, order.id, NOTHING, methods)
  return order
}

export const takeBackBatch = command(contract.takeBackBatch, async ({ tx, who, input, now, tell }) => {
  const [found] = await tx
    .select({ batch: orderBatches, template: orderTemplates.name })
    .from(orderBatches)
    .innerJoin(orderTemplates, eq(orderTemplates.id, orderBatches.templateId))
    .where(eq(orderBatches.id, input.id))
    .for('update')
  if (!found || !maySee(who, found.batch.siteId)) throw notFound('batch')
  const { batch, template } = found
  if (!canAt(who, 'orders.edit', batch.siteId)) throw notAllowed()
  if (batch.takenBackAt) throw new Refusal([{ code: 'taken_back', sentence: 'It was taken back already.' }])
  const ids = (await tx.select({ id: batchOrders.orderId }).from(batchOrders).where(eq(batchOrders.batchId, batch.id))).map(({ id }) => id)
  const rows = await tx.select().from(orders).where(inArray(orders.id, ids)).orderBy(asc(orders.id)).for('update')
  const [visited, worked] = await Promise.all([
    tx.select({ id: visits.orderId }).from(visits).where(inArray(visits.orderId, ids)),
    tx.select({ id: stints.orderId }).from(stints).where(inArray(stints.orderId, ids)),
  ])
  const begun = new Set([...visited, ...worked].map(({ id }) => id))
  const kept: { id: number; number: string; sentence: string }[] = []
  let taken = 0
  // Those that are led come before the one that leads them: it stays while one of them does.
  for (const order of rows.sort((a, b) => Number(a.id === batch.leadOrderId) - Number(b.id === batch.leadOrderId))) {
    const { id, number, state } = order
    if (order.discardedAt || isOver(state)) continue
    if (begun.has(id) || !['draft', 'to_approve', 'ready'].includes(state)) kept.push({ id, number, sentence: 'Somebody has begun on it.' })
    else if (id === batch.leadOrderId && kept.length) kept.push({ id, number, sentence: 'It leads what stays.' })
    else {
      taken++
      if (state === 'draft') await takeBackOrder(tx, who, now, order, { request: '' })
      else {
        await withdrawAsks(tx, who, now, id, 'Taken back')
        await saveMove(tx, who, now, order, 'cancel', 'cancelled', 'Taken back with all that was made with it', {
          heldFrom: null,
          holdReason: null,
          closedAt: now,
        })
      }
    }
  }
  if (!kept.length) await tx.update(orderBatches).set({ takenBackAt: now }).where(eq(orderBatches.id, batch.id))
  await tell({ kind: 'template.takeBack', siteId: batch.siteId, details: { template, batchId: batch.id, orders: taken, kept: kept.length } })
  return { taken, kept }
})
