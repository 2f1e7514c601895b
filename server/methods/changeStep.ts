import { asc, eq } from 'drizzle-orm'
import * as contract from '#contract/methods'
import { Refusal } from '#core/kit'
import { afterReasons, MOST_STEPS, PLAIN_STEP, stepReasons } from '#core/methods'
import { changesOf, command, conflict, maySee, mustKnow, notFound } from '#server/kit'
import type { Asker, Tell, Tx } from '#server/kit'
import { lockOrderById } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { orderSteps } from '../tables'
import { nextPosition } from './changePlan'
import { lockPlan, namesOf, orderPlan } from './orderPlan'
import type { StepRecord } from './orderPlan'

export const addStep = command(contract.addStep, async ({ tx, who, input, tell }) => {
  const { orderId, afterId = null, assigneeId = null, ...sent } = input
  const { order } = await lockPlan(tx, who, orderId)
  const fields = { ...PLAIN_STEP, ...sent, unit: sent.unit || null }
  const others = await tx.select().from(orderSteps).where(eq(orderSteps.orderId, orderId))
  const reasons = [...stepReasons(fields), ...afterReasons(0, afterId, others)]
  if (others.length >= MOST_STEPS) reasons.push({ code: 'too_many', sentence: `An order can have ${MOST_STEPS} steps.`, field: 'text' })
  if (reasons.length) throw new Refusal(reasons)
  await mustKnow(tx, { siteId: order.siteId, who }, { assigneeId: ['account', assigneeId] })
  const position = await nextPosition(tx, orderId)
  const [saved] = await tx
    .insert(orderSteps)
    .values({ ...fields, orderId, position, afterId, assigneeId, state: 'open', outside: false })
    .$returningId()
  await tell({ kind: 'plan.change', siteId: order.siteId, orderId, details: { what: `step “${fields.text}” added` } })
  await tellGiven(tx, tell, order, { id: saved!.id, text: fields.text, assigneeId })
  return orderPlan(tx, who, orderId)
})

/** Who is to do a step by themselves hears of it. */
async function tellGiven(tx: Tx, tell: Tell, order: OrderRecord, { id, text, assigneeId }: Pick<StepRecord, 'id' | 'text' | 'assigneeId'>): Promise<void> {
  if (assigneeId === null) return
  const to = (await namesOf(tx, [assigneeId])).get(assigneeId) ?? ''
  await tell({ kind: 'step.give', siteId: order.siteId, orderId: order.id, details: { step: text, stepId: id, toId: assigneeId, to } })
}

/** The step and its order, both locked. @throws ProblemReply 404 when it is not there or not theirs to see, 409 when it was changed since */
async function lockStep(tx: Tx, who: Asker, id: number, version: number): Promise<{ step: StepRecord; order: OrderRecord }> {
  const [found] = await tx.select({ orderId: orderSteps.orderId }).from(orderSteps).where(eq(orderSteps.id, id))
  const order = found && (await lockOrderById(tx, found.orderId))
  if (!order || !maySee(who, order.siteId)) throw notFound('step')
  await lockPlan(tx, who, order.id)
  const [step] = await tx.select().from(orderSteps).where(eq(orderSteps.id, id)).for('update')
  if (!step) throw notFound('step')
  if (step.version !== version) throw conflict(step.version, [{ field: 'state', theirs: step.state, yours: null }])
  return { step, order }
}

export const editStep = command(contract.editStep, async ({ tx, who, input, tell }) => {
  const { id, version, before, ...sent } = input
  const { step, order } = await lockStep(tx, who, id, version)
  const { fields, differences } = changesOf<StepRecord>(step, sent.choices && sameList(sent.choices, step.choices) ? { ...sent, choices: undefined } : sent)
  const after = { ...step, ...fields }
  const others = await tx.select().from(orderSteps).where(eq(orderSteps.orderId, order.id)).orderBy(asc(orderSteps.position), asc(orderSteps.id))
  const reasons = [...stepReasons(after), ...afterReasons(id, after.afterId, others)]
  const asks = differences.filter(({ field }) => field !== 'assigneeId' && field !== 'afterId')
  if (step.state !== 'open' && asks.length)
    reasons.push({ code: 'done', sentence: 'It is done already: take that back first, or add another step.', field: asks[0]!.field })
  if (reasons.length) throw new Refusal(reasons)
  if (fields.assigneeId !== undefined) await mustKnow(tx, { siteId: order.siteId, who }, { assigneeId: ['account', fields.assigneeId] })
  const moved = before !== undefined && (await moveStep(tx, others, step, before))
  if (differences.length)
    await tx
      .update(orderSteps)
      .set({ ...fields, version: version + 1 })
      .where(eq(orderSteps.id, id))
  const told = differences.filter(({ field }) => field !== 'assigneeId')
  if (told.length || moved) await tell({ kind: 'plan.change', siteId: order.siteId, orderId: order.id, details: { what: `step “${after.text}”` } })
  if (fields.assigneeId !== undefined) await tellGiven(tx, tell, order, after)
  return orderPlan(tx, who, order.id)
})

const sameList = (one: readonly string[], other: readonly string[]) => one.length === other.length && one.every((value, index) => value === other[index])

/** Puts a step before another, or at the end. @returns whether anything moved */
async function moveStep(tx: Tx, all: StepRecord[], step: StepRecord, before: number | null): Promise<boolean> {
  const rest = all.filter(({ id }) => id !== step.id)
  const at = before === null ? rest.length : rest.findIndex(({ id }) => id === before)
  if (at < 0) throw new Refusal([{ code: 'step_unknown', sentence: 'Choose a step of this order.', field: 'before' }])
  const ordered = [...rest.slice(0, at), step, ...rest.slice(at)]
  if (ordered.every(({ id }, index) => id === all[index]!.id)) return false
  for (const [index, { id, position }] of ordered.entries())
    if (position !== index + 1)
      await tx
        .update(orderSteps)
        .set({ position: index + 1 })
        .where(eq(orderSteps.id, id))
  return true
}

export const dropStep = command(contract.dropStep, async ({ tx, who, input, tell }) => {
  const { step, order } = await lockStep(tx, who, input.id, input.version)
  if (step.state !== 'open') throw new Refusal([{ code: 'begun', sentence: 'It is done already, and stays on record. Take that back first.' }])
  await tx.update(orderSteps).set({ afterId: null }).where(eq(orderSteps.afterId, step.id))
  await tx.delete(orderSteps).where(eq(orderSteps.id, step.id))
  await tell({ kind: 'plan.change', siteId: order.siteId, orderId: order.id, details: { what: `step “${step.text}” taken out` } })
  return orderPlan(tx, who, order.id)
})
