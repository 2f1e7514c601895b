import { and, eq, sql } from 'drizzle-orm'
import { foldText } from '#core/kit'
import { EQUIPMENT_FIELDS, PART_FIELDS, STORE_FIELDS } from '#core/stock'
import type { EquipmentFields, PartFields, StoreFields } from '#core/stock'
import { takenBy } from '#server/registers'
import type { Keeper } from '#server/registers'
import { bookings, equipment, orders, parts, stockLevels, stores } from '../tables'

/** How parts are kept; they serve every site. */
export const partKeeper: Keeper<PartFields> = {
  register: 'parts',
  table: parts,
  fields: PART_FIELDS,
  called: ({ code, name }) => ({ code, heading: name }),
  orders: ({ id }) => sql`exists (select 1 from stock_movement m where m.order_id = ${orders.id} and m.part_id = ${id})`,
  refuses: async (tx, after, before) =>
    after.code === before?.code
      ? []
      : takenBy(tx, { register: 'parts', table: parts, id: after.id, where: eq(parts.code, after.code), field: 'code', word: after.code }, (other) =>
          String(other.name),
        ),
  follows: (_tx, { code, name }) => Promise.resolve({ searchText: foldText(`${code} ${name}`).slice(0, 400) }),
  async holds(db, { id }) {
    const [left] = await db
      .select({ n: sql<string>`coalesce(sum(${stockLevels.quantity}), 0)` })
      .from(stockLevels)
      .where(eq(stockLevels.partId, id))
    return Number(left!.n) > 0 ? [{ code: 'in_stock', sentence: `${Number(left!.n)} of it are in stock. Use them up or write them off first.` }] : []
  },
}

export const storeKeeper: Keeper<StoreFields> = {
  register: 'stores',
  table: stores,
  fields: STORE_FIELDS,
  called: ({ name }) => ({ code: null, heading: name }),
  refuses: async (tx, after, before) =>
    after.name === before?.name
      ? []
      : takenBy(
          tx,
          {
            register: 'stores',
            table: stores,
            id: after.id,
            where: and(eq(stores.siteId, after.siteId!), eq(stores.name, after.name)),
            field: 'name',
            word: after.name,
          },
          () => 'another store',
        ),
  async holds(db, { id }) {
    const left = await db
      .select({ part: stockLevels.partId })
      .from(stockLevels)
      .where(and(eq(stockLevels.storeId, id), sql`${stockLevels.quantity} > 0`))
    return left.length ? [{ code: 'in_stock', sentence: `Parts of ${left.length} kinds are still in it. Move them to another store first.` }] : []
  },
}

export const equipmentKeeper: Keeper<EquipmentFields> = {
  register: 'equipment',
  table: equipment,
  fields: EQUIPMENT_FIELDS,
  called: ({ tag, name }) => ({ code: tag, heading: name }),
  orders: ({ id }) => sql`exists (select 1 from booking l where l.order_id = ${orders.id} and l.equipment_id = ${id} and l.state <> 'cancelled')`,
  refuses: async (tx, after, before) =>
    after.tag === before?.tag
      ? []
      : takenBy(tx, { register: 'equipment', table: equipment, id: after.id, where: eq(equipment.tag, after.tag), field: 'tag', word: after.tag }, (other) =>
          String(other.name),
        ),
  async holds(db, { id }) {
    const out = await db
      .select({ id: bookings.id })
      .from(bookings)
      .where(and(eq(bookings.equipmentId, id), eq(bookings.state, 'out')))
    return out.length ? [{ code: 'lent', sentence: 'It is lent to a job: take it back first.' }] : []
  },
}
