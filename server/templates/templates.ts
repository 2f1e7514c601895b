import { and, asc, desc, eq, sql } from 'drizzle-orm'
import * as contract from '#contract/templates'
import type { Batch, Template } from '#contract/templates'
import { Refusal } from '#core/kit'
import { templateReasons } from '#core/templates'
import type { TemplateFields } from '#core/templates'
import { can, canAt, command, conflict, maySee, mustKnow, mySite, notAllowed, notFound, query, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { accounts, batchOrders, methods, orderBatches, orders, orderTemplates, payers, people } from '../tables'

async function templateRows(db: Reader, who: Asker, id?: number): Promise<Outgoing<Template>[]> {
  const rows = await db
    .select({ template: orderTemplates, method: { code: methods.code, name: methods.name }, payer: { code: payers.code, name: payers.name } })
    .from(orderTemplates)
    .leftJoin(methods, eq(methods.id, orderTemplates.methodId))
    .leftJoin(payers, eq(payers.id, orderTemplates.payerId))
    .where(and(withinSites(who, orderTemplates.siteId), id === undefined ? undefined : eq(orderTemplates.id, id)))
    .orderBy(asc(orderTemplates.name))
  return rows.map(({ template: { retiredAt, ...fields }, method, payer }) => ({
    ...fields,
    retired: retiredAt !== null,
    names: { method: method?.code ? `${method.code} ${method.name}` : null, payer: payer?.code ? `${payer.code} ${payer.name}` : null },
  }))
}

const MOST_BATCHES = 20

async function batchRows(db: Reader, who: Asker): Promise<Outgoing<Batch>[]> {
  const rows = await db
    .select({
      batch: orderBatches,
      template: orderTemplates.name,
      by: people.name,
      lead: { id: orders.id, number: orders.number },
      n: sql<string>`(select count(*) from ${batchOrders} where ${batchOrders.batchId} = ${orderBatches.id})`,
    })
    .from(orderBatches)
    .innerJoin(orderTemplates, eq(orderTemplates.id, orderBatches.templateId))
    .innerJoin(accounts, eq(accounts.id, orderBatches.by))
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(orders, eq(orders.id, orderBatches.leadOrderId))
    .where(withinSites(who, orderBatches.siteId))
    .orderBy(desc(orderBatches.id))
    .limit(MOST_BATCHES)
  return rows.map(({ batch, template, by, lead, n }) => ({
    id: batch.id,
    template,
    orders: Number(n),
    lead: lead?.id ? lead : null,
    at: batch.at,
    by,
    takenBack: batch.takenBackAt !== null,
  }))
}

export const listTemplates = query(contract.listTemplates, async ({ db, who }) => ({
  rows: await templateRows(db, who),
  batches: await batchRows(db, who),
  mayEdit: can(who, 'orders.edit'),
}))

async function mustBeWhole(tx: Tx, who: Asker, fields: TemplateFields): Promise<void> {
  const reasons = templateReasons(fields)
  if (reasons.length) throw new Refusal(reasons)
  await mySite(tx, who, fields.siteId)
  if (!canAt(who, 'orders.edit', fields.siteId)) throw notAllowed()
  await mustBeKnown(tx, who, fields)
}

/** What a template names is there and in use: when it is written, and when orders are made from it. */
export async function mustBeKnown(tx: Tx, who: Asker, fields: TemplateFields): Promise<void> {
  const { siteId, categoryId, tradeId, teamId, leadId, supervisorId, payerId, methodId } = fields
  await mustKnow(
    tx,
    { siteId, who },
    {
      categoryId: ['category', categoryId],
      tradeId: ['trade', tradeId],
      teamId: ['team', teamId],
      leadId: ['account', leadId],
      supervisorId: ['approver', supervisorId],
      payerId: ['payer', payerId],
    },
  )
  if (methodId !== null) {
    const [method] = await tx.select().from(methods).where(eq(methods.id, methodId))
    if (!method || method.retiredAt || method.edition === 0)
      throw new Refusal([{ code: 'method_unknown', sentence: 'Choose a method from the list: one that is in use and says what is done.', field: 'methodId' }])
  }
}

export const addTemplate = command(contract.addTemplate, async ({ tx, who, input, tell }) => {
  await mustBeWhole(tx, who, input)
  const [saved] = await tx.insert(orderTemplates).values(input).$returningId()
  await tell({ kind: 'template.save', siteId: input.siteId, details: { template: input.name, fresh: true } })
  return (await templateRows(tx, who, saved!.id))[0]!
})

export async function lockTemplate(tx: Tx, who: Asker, id: number, version?: number): Promise<typeof orderTemplates.$inferSelect> {
  const [row] = await tx.select().from(orderTemplates).where(eq(orderTemplates.id, id)).for('update')
  if (!row || !maySee(who, row.siteId)) throw notFound('template')
  if (version !== undefined && row.version !== version) throw conflict(row.version, [{ field: 'name', theirs: row.name, yours: null }])
  return row
}

export const editTemplate = command(contract.editTemplate, async ({ tx, who, input, now, tell }) => {
  const { id, version, retired, ...fields } = input
  const row = await lockTemplate(tx, who, id, version)
  if (fields.siteId !== row.siteId)
    throw new Refusal([{ code: 'site_fixed', sentence: 'A template stays with its site: write another for the other one.', field: 'siteId' }])
  await mustBeWhole(tx, who, fields)
  const retiredAt = retired === undefined ? row.retiredAt : retired ? (row.retiredAt ?? now) : null
  await tx
    .update(orderTemplates)
    .set({ ...fields, retiredAt, version: version + 1 })
    .where(eq(orderTemplates.id, id))
  await tell({ kind: 'template.save', siteId: row.siteId, details: { template: fields.name, fresh: false } })
  return (await templateRows(tx, who, id))[0]!
})
