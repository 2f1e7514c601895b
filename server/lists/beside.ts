import { and, eq, inArray, isNull, or, sql } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { RecordCell } from '#contract/lists'
import { LIVE_VISIT_STATES } from '#core/dispatch'
import { OPEN_STATES } from '#core/orders'
import type { RegisterName } from '#core/registers'
import { withinSites } from '#server/kit'
import type { Reader } from '#server/kit'
import { matchesWords, namesAbove } from '#server/places'
import {
  accounts,
  assets,
  equipment,
  bookings,
  methodEditions,
  methods,
  orderMethods,
  orders,
  parts,
  payers,
  people,
  places,
  stockLevels,
  stores,
  teams,
  technicians,
  technicianTrades,
  trades,
  vendors,
  visits,
} from '../tables'
import { byFlag } from './conditions'
import type { Condition } from './conditions'
import type { Standpoint } from './standpoint'

interface Row {
  id: number
  path: string
}
type Cells = (db: Reader, rows: Row[], from: Standpoint) => Promise<Map<number, RecordCell>>

/** What a list of a register asks and shows that is not a field of the record: counted or looked up elsewhere. */
interface Beside {
  conditions?: Record<string, Condition>
  cells?: Record<string, Cells>
}

const idsOf = (rows: Row[]) => rows.map((row) => row.id)
const wordsIn =
  (...columns: Parameters<typeof matchesWords>[0][]): Condition =>
  (clause) =>
    or(...columns.map((column) => matchesWords(column, clause.any![0])))

/** Where the words of a search are looked for. */
export const WORDS_IN: Record<RegisterName, Condition> = {
  places: wordsIn(places.searchText),
  assets: wordsIn(assets.searchText),
  people: wordsIn(people.searchText),
  teams: wordsIn(teams.name),
  vendors: wordsIn(vendors.name, vendors.service),
  payers: wordsIn(payers.name, payers.code),
  parts: wordsIn(parts.searchText),
  stores: wordsIn(stores.name),
  equipment: wordsIn(equipment.name, equipment.tag),
  methods: wordsIn(methods.searchText),
}

const isOpen = (from: Standpoint) => and(inArray(orders.state, [...OPEN_STATES]), isNull(orders.discardedAt), withinSites(from, orders.siteId))!
const isLive = inArray(visits.state, LIVE_VISIT_STATES)

/** Rows of `id` and a number, as a column of counts; none is no count. */
const counts = (rows: { id: number | null; n: string }[]) => new Map<number, RecordCell>(rows.map(({ id, n }) => [id!, Number(n)]))

export const BESIDE: Record<RegisterName, Beside> = {
  places: { cells: { above: async (db, rows) => namesAbove(db, rows) } },
  assets: {
    conditions: { open: byFlag((from) => sql`exists (select 1 from ${orders} where ${orders.assetId} = ${assets.id} and ${isOpen(from)})`) },
    cells: {
      open: async (db, rows, from) =>
        counts(
          await db
            .select({ id: orders.assetId, n: sql<string>`count(*)` })
            .from(orders)
            .where(and(inArray(orders.assetId, idsOf(rows)), isOpen(from)))
            .groupBy(orders.assetId),
        ),
    },
  },
  people: {
    conditions: {
      technician: byFlag(
        () =>
          sql`exists (select 1 from ${technicians} join ${accounts} on ${accounts.id} = ${technicians.accountId} where ${accounts.personId} = ${people.id})`,
      ),
    },
    cells: {
      technician: async (db, rows) => {
        const found = await db
          .select({ id: accounts.personId, trade: trades.name })
          .from(technicianTrades)
          .innerJoin(technicians, eq(technicians.id, technicianTrades.technicianId))
          .innerJoin(accounts, eq(accounts.id, technicians.accountId))
          .innerJoin(trades, eq(trades.id, technicianTrades.tradeId))
          .where(inArray(accounts.personId, idsOf(rows)))
          .orderBy(trades.name)
        return new Map(
          rows.map(({ id }) => [
            id,
            found
              .filter((one) => one.id === id)
              .map((one) => one.trade)
              .join(', ') || null,
          ]),
        )
      },
    },
  },
  teams: {
    cells: {
      members: async (db, rows) =>
        counts(
          await db
            .select({ id: technicians.teamId, n: sql<string>`count(*)` })
            .from(technicians)
            .where(inArray(technicians.teamId, idsOf(rows)))
            .groupBy(technicians.teamId),
        ),
    },
  },
  vendors: {
    conditions: {
      open: byFlag(
        (from) =>
          sql`exists (select 1 from ${visits} join ${orders} on ${orders.id} = ${visits.orderId} where ${visits.vendorId} = ${vendors.id} and ${isLive} and ${isOpen(from)})`,
      ),
    },
    cells: {
      open: async (db, rows, from) =>
        counts(
          await db
            .select({ id: visits.vendorId, n: sql<string>`count(distinct ${orders.id})` })
            .from(visits)
            .innerJoin(orders, eq(orders.id, visits.orderId))
            .where(and(inArray(visits.vendorId, idsOf(rows)), isLive, isOpen(from)))
            .groupBy(visits.vendorId),
        ),
    },
  },
  payers: {},
  parts: {
    cells: {
      stock: (db, rows) => ofLevels(db, rows, sql`sum(${stockLevels.quantity})`, (sum) => String(Number(sum))),
      cost: (db, rows) => ofLevels(db, rows, sql`max(${stockLevels.averageCostMinor})`, Number),
    },
  },
  stores: {
    cells: {
      kinds: async (db, rows) =>
        counts(
          await db
            .select({ id: stockLevels.storeId, n: sql<string>`count(*)` })
            .from(stockLevels)
            .where(and(inArray(stockLevels.storeId, idsOf(rows)), sql`${stockLevels.quantity} > 0`))
            .groupBy(stockLevels.storeId),
        ),
    },
  },
  equipment: {
    conditions: {
      lent: byFlag(() => sql`exists (select 1 from ${bookings} where ${bookings.equipmentId} = ${equipment.id} and ${bookings.state} = 'out')`),
    },
    cells: {
      lent: async (db, rows) => {
        const out = await db
          .select({ id: bookings.equipmentId, number: orders.number })
          .from(bookings)
          .innerJoin(orders, eq(orders.id, bookings.orderId))
          .where(and(inArray(bookings.equipmentId, idsOf(rows)), eq(bookings.state, 'out')))
        return new Map(out.map((one) => [one.id, one.number]))
      },
    },
  },
  methods: {
    cells: {
      steps: async (db, rows) =>
        counts(
          await db
            .select({ id: methods.id, n: sql<string>`json_length(${methodEditions.content}, '$.steps')` })
            .from(methods)
            .innerJoin(methodEditions, and(eq(methodEditions.methodId, methods.id), eq(methodEditions.edition, methods.edition)))
            .where(inArray(methods.id, idsOf(rows))),
        ),
      used: async (db, rows, from) =>
        counts(
          await db
            .select({ id: orderMethods.methodId, n: sql<string>`count(*)` })
            .from(orderMethods)
            .innerJoin(orders, eq(orders.id, orderMethods.orderId))
            .where(and(inArray(orderMethods.methodId, idsOf(rows)), withinSites(from, orders.siteId)))
            .groupBy(orderMethods.methodId),
        ),
    },
  },
}

/** What the stores together hold of each part. */
async function ofLevels(db: Reader, rows: Row[], what: SQL, read: (value: string) => RecordCell): Promise<Map<number, RecordCell>> {
  const levels = await db
    .select({ id: stockLevels.partId, value: sql<string>`${what}` })
    .from(stockLevels)
    .where(inArray(stockLevels.partId, idsOf(rows)))
    .groupBy(stockLevels.partId)
  return new Map(levels.map(({ id, value }) => [id, read(value)]))
}
