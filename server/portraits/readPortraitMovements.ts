import { and, desc, eq } from 'drizzle-orm'
import * as contract from '#contract/portraits'
import { can, query, withinSites } from '#server/kit'
import { seenRecord } from '#server/registers'
import { levelsWhere } from '#server/stock'
import { accounts, orders, parts, people, stockLevels, stockMovements, stores } from '../tables'
import { KEEPERS } from './keepers'

const MOST = 50

/** Of a part, in all stores somebody may see; of a store, of all parts in it. */
export default query(contract.readPortraitMovements, async ({ db, who, input }) => {
  await seenRecord(db, KEEPERS[input.register], who, input.id)
  if (input.register !== 'parts' && input.register !== 'stores') return { levels: [], rows: [], mayMove: false }
  const part = input.register === 'parts'
  const [levels, rows] = await Promise.all([
    levelsWhere(db, and(eq(part ? stockLevels.partId : stockLevels.storeId, input.id), withinSites(who, stores.siteId))),
    db
      .select({
        id: stockMovements.id,
        at: stockMovements.at,
        kind: stockMovements.kind,
        part: parts.name,
        store: stores.name,
        quantity: stockMovements.quantity,
        unit: parts.unit,
        orderId: stockMovements.orderId,
        orderNumber: orders.number,
        unitCostMinor: stockMovements.unitCostMinor,
        reason: stockMovements.reason,
        by: people.name,
      })
      .from(stockMovements)
      .innerJoin(parts, eq(parts.id, stockMovements.partId))
      .innerJoin(stores, eq(stores.id, stockMovements.storeId))
      .leftJoin(orders, eq(orders.id, stockMovements.orderId))
      .leftJoin(accounts, eq(accounts.id, stockMovements.by))
      .leftJoin(people, eq(people.id, accounts.personId))
      .where(and(eq(part ? stockMovements.partId : stockMovements.storeId, input.id), withinSites(who, stores.siteId)))
      .orderBy(desc(stockMovements.at), desc(stockMovements.id))
      .limit(MOST),
  ])
  return { levels, rows, mayMove: can(who, 'registers.edit') }
})
