import { and, desc, eq, sql } from 'drizzle-orm'
import Big from 'big.js'
import * as contract from '#contract/field'
import { refuse } from '#core/kit'
import { command } from '#server/kit'
import { parts, stockLevels, stockMovements, stores } from '../tables'
import { readJobSheet } from './jobSheet'
import { lockMyVisit } from './myVisit'

export default command(contract.usePart, async ({ tx, who, input, now, tell }) => {
  const { visit, order } = await lockMyVisit(tx, who, input.visitId)
  if (order.state !== 'on_job') refuse('not_started', 'Start the clock before you use a part.')
  const [part] = await tx.select().from(parts).where(eq(parts.id, input.partId))
  if (!part) refuse('part_unknown', 'Choose a part from the list.', 'partId')
  const [level] = await tx
    .select({ level: stockLevels })
    .from(stockLevels)
    .innerJoin(stores, eq(stores.id, stockLevels.storeId))
    .where(and(eq(stockLevels.partId, part.id), eq(stores.siteId, order.siteId)))
    .orderBy(desc(stockLevels.quantity))
    .limit(1)
    .for('update')
  const inStock = level?.level.quantity ?? '0'
  if (new Big(inStock).lt(input.quantity)) refuse('not_in_stock', `There are ${new Big(inStock).toString()} ${part.unit} of it in stock.`, 'quantity')
  const { storeId, averageCostMinor } = level!.level
  await tx
    .update(stockLevels)
    .set({ quantity: sql`${stockLevels.quantity} - ${input.quantity}` })
    .where(and(eq(stockLevels.storeId, storeId), eq(stockLevels.partId, part.id)))
  await tx.insert(stockMovements).values({
    storeId,
    partId: part.id,
    kind: 'issue',
    quantity: `-${input.quantity}`,
    unitCostMinor: averageCostMinor,
    orderId: order.id,
    visitId: visit.id,
    at: now,
    by: who.accountId,
  })
  await tell({
    kind: 'field.part',
    siteId: order.siteId,
    orderId: order.id,
    visitId: visit.id,
    details: { part: part.name, quantity: input.quantity, unit: part.unit },
  })
  return readJobSheet(tx, who, visit.id)
})
