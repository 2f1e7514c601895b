import { and, asc, desc, eq, isNull } from 'drizzle-orm'
import { refuse } from '#core/kit'
import { freeOf, inTakingOrder, takenFrom } from '#core/stock'
import type { Tx } from '#server/kit'
import { sectionOf } from '#server/orders'
import { parts, reservations, stockLevels, stockMovements, stores } from '../tables'
import { keptForOthers, levelsWhere, plain } from './levels'
import { comeBack, goOut } from './moveStock'
import { chargeFor } from './prices'

interface Issue {
  siteId: number
  orderId: number
  visitId: number
  partId: number
  /** In units of the part, as a decimal. */
  quantity: string
  /** The store it is taken out of, where somebody says so. */
  storeId?: number
  at: Date
  by: number | null
}

/**
 * Takes a part out of a store of the site, at its average cost: out of the one that is named, else where it is kept for
 * this order, out of the van of whoever takes it, or where most of it is free.
 * @throws Refusal at `partId` when there is no such part, at `storeId` when there is no such store, at `quantity` when there is not enough of it
 */
export async function issuePart(tx: Tx, { siteId, orderId, quantity, partId, storeId, ...moving }: Issue): Promise<PartRecord> {
  const part = await partInUse(tx, partId)
  const levels = await levelsWhere(tx, and(eq(stockLevels.partId, partId), eq(stores.siteId, siteId), isNull(stores.retiredAt)))
  const [mine, kept] = [
    moving.by === null ? null : await vanOf(tx, siteId, moving.by),
    await tx
      .select({ storeId: reservations.storeId, quantity: reservations.quantity })
      .from(reservations)
      .where(and(eq(reservations.orderId, orderId), eq(reservations.partId, partId))),
  ]
  const standing = await Promise.all(
    levels.map(async ({ storeId: id, onHand }) => ({
      storeId: id,
      free: freeOf(onHand, await keptForOthers(tx, id, partId, orderId)),
      kept: kept.find((one) => one.storeId === id)?.quantity ?? '0',
      mine: id === mine,
    })),
  )
  if (storeId !== undefined) await storeOf(tx, siteId, storeId)
  const there = storeId === undefined ? standing : standing.filter((one) => one.storeId === storeId)
  const from = takenFrom(there, quantity)
  if (!from) {
    const most = inTakingOrder(there).map(({ free }) => Number(free))
    refuse(
      'not_in_stock',
      `There are ${plain(String(Math.max(0, ...most)))} ${part.unit} of it ${storeId === undefined ? 'in stock' : 'free there'}.`,
      'quantity',
    )
  }
  const { costing } = await sectionOf(tx, siteId, 'planning')
  await goOut({ tx, partId, ...moving }, from.storeId, 'issue', quantity, orderId, part.unit, await chargeFor(tx, costing, siteId, partId))
  return part
}

/**
 * Brings back what an order took: into the store that is named, else into the van of whoever brings it, else where it
 * came from last. What comes in is put by for whoever waits for it by `goOn`, with what `lockWaiting` holds.
 * @throws Refusal at `partId`, `storeId` or `quantity`
 */
export async function takeBackPart(tx: Tx, { siteId, orderId, quantity, partId, storeId, ...moving }: Issue): Promise<{ part: PartRecord; store: string }> {
  const part = await partInUse(tx, partId)
  const [last] = await tx
    .select({ storeId: stockMovements.storeId })
    .from(stockMovements)
    .innerJoin(stores, eq(stores.id, stockMovements.storeId))
    .where(and(eq(stockMovements.orderId, orderId), eq(stockMovements.partId, partId), isNull(stores.retiredAt)))
    .orderBy(desc(stockMovements.id))
    .limit(1)
  const van = moving.by === null ? null : await vanOf(tx, siteId, moving.by)
  const to = storeId ?? van ?? last?.storeId
  if (to === undefined) refuse('not_taken', `The order has 0 ${part.unit} of it: no more can come back.`, 'quantity')
  const store = await storeOf(tx, siteId, to)
  await comeBack({ tx, partId, ...moving }, to, quantity, orderId, part.unit)
  return { part, store }
}

type PartRecord = typeof parts.$inferSelect

async function partInUse(tx: Tx, partId: number): Promise<PartRecord> {
  const [part] = await tx.select().from(parts).where(eq(parts.id, partId))
  if (!part) refuse('part_unknown', 'Choose a part from the list.', 'partId')
  return part
}

/** A store of the site that is in use, by name. @throws Refusal at `storeId` */
async function storeOf(tx: Tx, siteId: number, id: number): Promise<string> {
  const [store] = await tx
    .select({ name: stores.name })
    .from(stores)
    .where(and(eq(stores.id, id), eq(stores.siteId, siteId), isNull(stores.retiredAt)))
  if (!store) refuse('store_unknown', 'Choose a store from the list.', 'storeId')
  return store.name
}

async function vanOf(tx: Tx, siteId: number, accountId: number): Promise<number | null> {
  const [van] = await tx
    .select({ id: stores.id })
    .from(stores)
    .where(and(eq(stores.carriedBy, accountId), eq(stores.siteId, siteId), isNull(stores.retiredAt)))
    .orderBy(asc(stores.id))
    .limit(1)
  return van?.id ?? null
}
