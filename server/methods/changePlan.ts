import { and, asc, eq, inArray, isNull, max } from 'drizzle-orm'
import * as contract from '#contract/methods'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import { NO_CONTENT, contentReasons, together, withoutMethod } from '#core/methods'
import type { MethodContent, MethodStep, PlanLines } from '#core/methods'
import { command, notFound, query } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { seenOrder } from '#server/orders'
import { insertRecord } from '#server/registers'
import { methodEditions, methods, orderMethods, orderSteps } from '../tables'
import { addEdition } from './content'
import { methodKeeper } from './keeper'
import { mustBeThere } from './mustBeThere'
import { linesOf, lockPlan, orderPlan, saveLines } from './orderPlan'
import type { KeptPlan } from './orderPlan'
import { weighPlan } from './planEstimate'

export const readOrderPlan = query(contract.readOrderPlan, ({ db, who, input }) => orderPlan(db, who, input.orderId))

export const applyMethods = command(contract.applyMethods, async ({ tx, who, input, now, tell }) => {
  const { orderId, version, methodIds } = input
  const { order, lines } = await lockPlan(tx, who, orderId, version)
  const found = await contentsOf(tx, methodIds)
  const given = await tx
    .select({ methodId: orderMethods.methodId })
    .from(orderMethods)
    .where(and(eq(orderMethods.orderId, orderId), inArray(orderMethods.methodId, methodIds)))
  const reasons = methodIds.flatMap((id): Reason[] => {
    const method = found.find((one) => one.id === id)
    if (!method) return [{ code: 'method_unknown', sentence: 'Choose a method from the list: one that is in use and says what is done.', field: 'methodIds' }]
    return given.some((one) => one.methodId === id)
      ? [{ code: 'given', sentence: `The order has ${method.code} ${method.name} already.`, field: 'methodIds' }]
      : []
  })
  if (reasons.length) throw new Refusal(reasons)
  // In the order in which they were chosen.
  const chosen = methodIds.map((id) => found.find((one) => one.id === id)!)
  await giveMethods({ tx, who, now }, orderId, lines, chosen)
  await weighPlan(tx, order, now)
  await tell({ kind: 'plan.apply', siteId: order.siteId, orderId, details: { methods: chosen.map(({ code, name }) => `${code} ${name}`).join(', ') } })
  return orderPlan(tx, who, orderId)
})

/** Gives an order methods, in the versions they have now. Whoever calls has seen to it that it may be, and tells of it. */
export async function giveMethods(
  { tx, who, now }: { tx: Tx; who: Asker; now: Date },
  orderId: number,
  lines: KeptPlan,
  chosen: readonly MethodInUse[],
): Promise<void> {
  for (const { id, edition, content } of chosen) {
    const [applied] = await tx.insert(orderMethods).values({ orderId, methodId: id, edition, at: now, by: who.accountId }).$returningId()
    await addSteps(tx, orderId, applied!.id, content.steps)
  }
  await saveLines(tx, orderId, { ...together([lines, ...chosen.map(({ content }) => content)]), version: lines.version })
}

export interface MethodInUse {
  id: number
  code: string
  name: string
  edition: number
  content: MethodContent
}

/** Methods in use that say something, in their newest version. */
export async function contentsOf(db: Reader, ids: number[]): Promise<MethodInUse[]> {
  return db
    .select({ id: methods.id, code: methods.code, name: methods.name, edition: methods.edition, content: methodEditions.content })
    .from(methods)
    .innerJoin(methodEditions, and(eq(methodEditions.methodId, methods.id), eq(methodEditions.edition, methods.edition)))
    .where(and(inArray(methods.id, ids), isNull(methods.retiredAt)))
}

async function addSteps(tx: Tx, orderId: number, appliedId: number | null, steps: readonly MethodStep[]): Promise<void> {
  const position = await nextPosition(tx, orderId)
  const ids: number[] = []
  for (const [index, { after, ...step }] of steps.entries()) {
    const [saved] = await tx
      .insert(orderSteps)
      .values({
        ...step,
        unit: step.unit || null,
        orderId,
        appliedId,
        position: position + index,
        afterId: after === null ? null : ids[after]!,
        state: 'open',
        outside: false,
      })
      .$returningId()
    ids.push(saved!.id)
  }
}

export async function nextPosition(tx: Tx, orderId: number): Promise<number> {
  const [row] = await tx
    .select({ last: max(orderSteps.position) })
    .from(orderSteps)
    .where(eq(orderSteps.orderId, orderId))
  return (row?.last ?? 0) + 1
}

export const takeOffMethod = command(contract.takeOffMethod, async ({ tx, who, input, now, tell }) => {
  const { orderId, version, appliedId } = input
  const { order, lines } = await lockPlan(tx, who, orderId, version)
  const all = await tx
    .select({ row: orderMethods, code: methods.code, name: methods.name, content: methodEditions.content })
    .from(orderMethods)
    .innerJoin(methods, eq(methods.id, orderMethods.methodId))
    .innerJoin(methodEditions, and(eq(methodEditions.methodId, methods.id), eq(methodEditions.edition, orderMethods.edition)))
    .where(eq(orderMethods.orderId, orderId))
  const gone = all.find(({ row }) => row.id === appliedId)
  if (!gone) throw notFound('method')
  const mine = (await tx.select().from(orderSteps).where(eq(orderSteps.orderId, orderId))).filter((step) => step.appliedId === appliedId)
  const begun = mine.filter(({ state }) => state !== 'open')
  if (begun.length)
    throw new Refusal([
      { code: 'begun', sentence: `“${begun[0]!.text}” of it is done already. Take out the steps that are not wanted one by one; what was done stays.` },
    ])
  const ids = mine.map(({ id }) => id)
  if (ids.length) {
    await tx.update(orderSteps).set({ afterId: null }).where(inArray(orderSteps.afterId, ids))
    await tx.delete(orderSteps).where(inArray(orderSteps.id, ids))
  }
  await tx.delete(orderMethods).where(eq(orderMethods.id, appliedId))
  const others = all.filter(({ row }) => row.id !== appliedId).map(({ content }) => content)
  await saveLines(tx, orderId, { ...withoutMethod(lines, gone.content, others), version: lines.version })
  await weighPlan(tx, order, now)
  await tell({ kind: 'plan.takeOff', siteId: order.siteId, orderId, details: { method: `${gone.code} ${gone.name}` } })
  return orderPlan(tx, who, orderId)
})

const CALLED = { labour: 'labour', parts: 'parts', tools: 'tools', hazards: 'hazards' } as const

export const savePlan = command(contract.savePlan, async ({ tx, who, input, now, tell }) => {
  const { orderId, version, ...sent } = input
  const { order, lines } = await lockPlan(tx, who, orderId, version)
  const next: PlanLines = { ...linesAlone(lines), ...sent }
  const reasons = contentReasons({ ...next, steps: [] })
  if (reasons.length) throw new Refusal(reasons)
  await mustBeThere(tx, { ...NO_CONTENT, ...sent })
  const changed = (Object.keys(CALLED) as (keyof PlanLines)[]).filter((list) => sent[list] && JSON.stringify(sent[list]) !== JSON.stringify(lines[list]))
  if (!changed.length) return orderPlan(tx, who, orderId)
  await saveLines(tx, orderId, { ...next, version: lines.version })
  await weighPlan(tx, order, now)
  await tell({ kind: 'plan.change', siteId: order.siteId, orderId, details: { what: changed.map((list) => CALLED[list]).join(', ') } })
  return orderPlan(tx, who, orderId)
})

const linesAlone = ({ labour, parts, tools, hazards }: PlanLines): PlanLines => ({ labour, parts, tools, hazards })

export const keepAsMethod = command(contract.keepAsMethod, async ({ tx, who, input, now, tell }) => {
  const { orderId, code, name } = input
  await seenOrder(tx, who, orderId)
  const lines = linesAlone(await linesOf(tx, orderId))
  const steps = await tx.select().from(orderSteps).where(eq(orderSteps.orderId, orderId)).orderBy(asc(orderSteps.position), asc(orderSteps.id))
  if (!steps.length && !lines.labour.length && !lines.parts.length)
    throw new Refusal([{ code: 'nothing_planned', sentence: 'Nothing is planned of the order yet, so there is nothing to keep.' }])
  const ids = steps.map(({ id }) => id)
  const content: MethodContent = {
    ...lines,
    steps: steps.map(({ text, kind, unit, least, most, choices, first, afterId }, index) => {
      const after = afterId === null ? -1 : ids.indexOf(afterId)
      return { text, kind, unit, least, most, choices, first, after: after >= 0 && after < index ? after : null }
    }),
  }
  const { id } = await insertRecord({ tx, who, tell }, methodKeeper, { code, name } as never)
  await addEdition(tx, id, 0, content, { who, now, note: null })
  return { id }
})
