import { and, asc, count, eq, isNull } from 'drizzle-orm'
import * as contract from '#contract/orders'
import type { OwnStateRow } from '#contract/orders'
import { Refusal, refuse } from '#core/kit'
import { isSettled, MOST_OWN_STATES, ORDER_STATE_NAMES } from '#core/orders'
import type { OrderState } from '#core/orders'
import { canAt, command, conflict, mySite, notAllowed, notFound, query, recordEvent, withinSites } from '#server/kit'
import type { Asker, Reader, Tx } from '#server/kit'
import { orders, ownStates, sites } from '../tables'
import { lockOrder } from './lockOrder'

type OwnStateRecord = typeof ownStates.$inferSelect

async function rowsOf(db: Reader, who: Asker): Promise<OwnStateRow[]> {
  const [rows, used] = await Promise.all([
    db.select().from(ownStates).where(withinSites(who, ownStates.siteId)).orderBy(asc(ownStates.siteId), asc(ownStates.id)),
    db
      .select({ id: orders.ownStateId, n: count() })
      .from(orders)
      .innerJoin(ownStates, and(eq(ownStates.id, orders.ownStateId), eq(ownStates.under, orders.state)))
      .groupBy(orders.ownStateId),
  ])
  return rows.map(({ retiredAt, ...row }) => ({ ...row, retired: retiredAt !== null, orders: used.find(({ id }) => id === row.id)?.n ?? 0 }))
}

const listOwnStates = query(contract.listOwnStates, async ({ db, who }) => ({ rows: await rowsOf(db, who) }))

/** The site is held, so that no two of one name are made at once. */
async function nameMustBeFree(tx: Tx, siteId: number, under: OrderState, name: string, id: number | null): Promise<OwnStateRecord[]> {
  await tx.select({ id: sites.id }).from(sites).where(eq(sites.id, siteId)).for('update')
  const all = await tx
    .select()
    .from(ownStates)
    .where(and(eq(ownStates.siteId, siteId), eq(ownStates.under, under), isNull(ownStates.retiredAt)))
  const same = all.find((one) => one.id !== id && one.name.toLowerCase() === name.toLowerCase())
  if (same) refuse('name_taken', `“${same.name}” is there already under ${ORDER_STATE_NAMES[under]}.`, 'name')
  return all
}

const addOwnState = command(contract.addOwnState, async ({ tx, who, input, tell }) => {
  const { siteId, under, name, mark } = input
  await mySite(tx, who, siteId)
  const all = await nameMustBeFree(tx, siteId, under, name, null)
  if (all.length >= MOST_OWN_STATES)
    refuse('too_many', `There are ${MOST_OWN_STATES} under ${ORDER_STATE_NAMES[under]} already. Take one out of use first.`, 'name')
  await tx.insert(ownStates).values({ siteId, under, name, mark })
  await tell({ kind: 'order.ownStates', siteId, details: { name, what: 'added' } })
  return { rows: await rowsOf(tx, who) }
})

const editOwnState = command(contract.editOwnState, async ({ tx, who, input, now, tell }) => {
  const { id, version, retired, ...sent } = input
  const [row] = await tx.select().from(ownStates).where(eq(ownStates.id, id)).for('update')
  if (!row || !canAt(who, 'setup.edit', row.siteId)) throw notFound('own state')
  if (row.version !== version) throw conflict(row.version, [])
  const after = { ...row, ...Object.fromEntries(Object.entries(sent).filter(([, value]) => value !== undefined)) }
  const turned = retired !== undefined && retired !== (row.retiredAt !== null)
  if (after.name !== row.name || (turned && !retired)) await nameMustBeFree(tx, row.siteId, row.under, after.name, id)
  await tx
    .update(ownStates)
    .set({ name: after.name, mark: after.mark, version: version + 1, ...(turned ? { retiredAt: retired ? now : null } : {}) })
    .where(eq(ownStates.id, id))
  await tell({ kind: 'order.ownStates', siteId: row.siteId, details: { name: after.name, what: turned ? (retired ? 'retired' : 'restored') : 'changed' } })
  return { rows: await rowsOf(tx, who) }
})

/** The own state an order is to be in, under a state of ours. @throws Refusal at its field when it is none of this site, or not under it */
export async function ownStateFor(tx: Reader, siteId: number, state: OrderState, id: number | null | undefined): Promise<OwnStateRecord | null> {
  if (!id) return null
  const [row] = await tx
    .select()
    .from(ownStates)
    .where(and(eq(ownStates.id, id), eq(ownStates.siteId, siteId), isNull(ownStates.retiredAt)))
  if (row?.under !== state)
    throw new Refusal([{ code: 'own_state', sentence: `Choose one of the site’s own states under ${ORDER_STATE_NAMES[state]}.`, field: 'ownStateId' }])
  return row
}

const setOwnState = command(contract.setOwnState, async ({ tx, who, input, now }) => {
  const order = await lockOrder(tx, who, input.id, input.version)
  if (!canAt(who, 'orders.edit', order.siteId)) throw notAllowed()
  if (order.discardedAt || isSettled(order.state)) refuse('over', 'The order is over: it stands as it is.', 'ownStateId')
  const [was] = order.ownStateId ? await tx.select().from(ownStates).where(eq(ownStates.id, order.ownStateId)) : []
  const to = await ownStateFor(tx, order.siteId, order.state, input.ownStateId)
  if ((to?.id ?? null) === order.ownStateId) return { id: order.id, version: order.version, state: order.state }
  const version = order.version + 1
  await tx
    .update(orders)
    .set({ ownStateId: to?.id ?? null, version })
    .where(eq(orders.id, order.id))
  await recordEvent(tx, who, now, {
    kind: 'order.ownState',
    siteId: order.siteId,
    orderId: order.id,
    details: { from: was?.name ?? null, to: to?.name ?? null },
  })
  return { id: order.id, version, state: order.state }
})

export const ownStateRoutes = [listOwnStates, addOwnState, editOwnState, setOwnState]
