import { asc, eq, inArray } from 'drizzle-orm'
import type { OrderPlan, OrderStep } from '#contract/methods'
import { Refusal } from '#core/kit'
import type { PlanLines } from '#core/methods'
import { isFinished, isOver } from '#core/orders'
import { canAt, conflict, maySee, notFound } from '#server/kit'
import type { Asker, Outgoing, Reader, Tx } from '#server/kit'
import { lockOrderById, seenOrder } from '#server/orders'
import type { OrderRecord } from '#server/orders'
import { accounts, methods, orderMethods, orderPlans, orderSteps, people } from '../tables'
import { planNames } from './names'

/** What is needed for an order, and what of it was agreed to. */
export type KeptPlan = PlanLines & { version: number; agreed: Pick<PlanLines, 'labour' | 'parts' | 'tools'> | null }

export const NOTHING: KeptPlan = { labour: [], parts: [], tools: [], hazards: [], version: 0, agreed: null }

/** What is needed for an order besides its steps; version 0 while nothing was said. */
export async function linesOf(db: Reader, orderId: number): Promise<KeptPlan> {
  const [row] = await db.select().from(orderPlans).where(eq(orderPlans.orderId, orderId))
  // What was agreed to before equipment cost anything names none.
  return row ? { ...row, agreed: row.agreed && { tools: [], ...row.agreed } } : NOTHING
}

/** Why the plan of an order stays as it is; null while it can be changed. */
export function whyFixed(order: Pick<OrderRecord, 'state' | 'discardedAt'>): string | null {
  if (order.discardedAt) return 'The draft was discarded; bring it back first.'
  return isFinished(order.state) || isOver(order.state) ? 'The order is over: what was planned stays as it was.' : null
}

/**
 * The order locked, so that changes of its plan come one after the other.
 * @throws ProblemReply 404 when it is not theirs, 409 when the plan was changed since; Refusal when it is over
 */
export async function lockPlan(tx: Tx, who: Asker, orderId: number, version?: number): Promise<{ order: OrderRecord; lines: KeptPlan }> {
  const order = await lockOrderById(tx, orderId)
  if (!order || !maySee(who, order.siteId)) throw notFound('order')
  const fixed = whyFixed(order)
  if (fixed) throw new Refusal([{ code: 'plan_fixed', sentence: fixed }])
  const lines = await linesOf(tx, orderId)
  if (version !== undefined && version !== lines.version) throw conflict(lines.version, [{ field: 'plan', theirs: null, yours: null }])
  return { order, lines }
}

/** Keeps what an order needs, and counts its version on. */
export async function saveLines(tx: Tx, orderId: number, { version, labour, parts, tools, hazards }: PlanLines & { version: number }): Promise<void> {
  const lines = { labour, parts, tools, hazards, version: version + 1 }
  await tx
    .insert(orderPlans)
    .values({ orderId, ...lines })
    .onDuplicateKeyUpdate({ set: lines })
}

const doer = { id: accounts.id, name: people.name }

/** The steps of an order as they stand, in their order. */
export async function stepsOf(db: Reader, orderId: number): Promise<Outgoing<OrderStep>[]> {
  const rows = await db
    .select({ step: orderSteps, assignee: doer })
    .from(orderSteps)
    .leftJoin(accounts, eq(accounts.id, orderSteps.assigneeId))
    .leftJoin(people, eq(people.id, accounts.personId))
    .where(eq(orderSteps.orderId, orderId))
    .orderBy(asc(orderSteps.position), asc(orderSteps.id))
  const names = await namesOf(
    db,
    rows.flatMap(({ step }) => step.doneBy ?? []),
  )
  return rows.map(({ step, assignee }) => stepRow(step, assignee?.id ? { id: assignee.id, name: assignee.name ?? '' } : null, names))
}

export async function namesOf(db: Reader, accountIds: number[]): Promise<Map<number, string>> {
  if (!accountIds.length) return new Map()
  const rows = await db.select(doer).from(accounts).innerJoin(people, eq(people.id, accounts.personId)).where(inArray(accounts.id, accountIds))
  return new Map(rows.map(({ id, name }) => [id, name]))
}

export type StepRecord = typeof orderSteps.$inferSelect

export function stepRow(step: StepRecord, assignee: { id: number; name: string } | null, names: Map<number, string>): Outgoing<OrderStep> {
  const { orderId: _, assigneeId: __, doneBy, doneByName, ...rest } = step
  return { ...rest, assignee, doneBy: doneBy === null ? doneByName : (names.get(doneBy) ?? '') }
}

/** The plan of an order as its Sheet shows it. @throws ProblemReply 404 */
export async function orderPlan(db: Reader, who: Asker, orderId: number): Promise<Outgoing<OrderPlan>> {
  const order = await seenOrder(db, who, orderId)
  const [lines, steps, applied] = await Promise.all([
    linesOf(db, orderId),
    stepsOf(db, orderId),
    db
      .select({ row: orderMethods, code: methods.code, name: methods.name, newest: methods.edition, by: people.name })
      .from(orderMethods)
      .innerJoin(methods, eq(methods.id, orderMethods.methodId))
      .leftJoin(accounts, eq(accounts.id, orderMethods.by))
      .leftJoin(people, eq(people.id, accounts.personId))
      .where(eq(orderMethods.orderId, orderId))
      .orderBy(asc(orderMethods.id)),
  ])
  const { version, labour, parts, tools, hazards } = lines
  const whyNot = canAt(who, 'orders.edit', order.siteId) ? whyFixed(order) : 'Your role does not include changing this.'
  return {
    orderId,
    version,
    methods: applied.map(({ row, code, name, newest, by }) => ({
      id: row.id,
      methodId: row.methodId,
      code,
      name,
      edition: row.edition,
      newer: newest > row.edition,
      at: row.at,
      by: by ?? '',
    })),
    steps,
    labour,
    parts,
    tools,
    hazards,
    names: await planNames(db, [lines]),
    mayEdit: whyNot === null,
    whyNot,
  }
}
