import type { WorkCalendar } from '#core/kit'
import type * as tables from '../server/tables'
import type { Rng } from './rng'

type Rows<T extends keyof typeof tables> = (typeof tables)[T] extends { $inferInsert: infer Row } ? Row[] : never

export const TABLES = [
  'payers',
  'markups',
  'sites',
  'places',
  'trades',
  'vendors',
  'vendorTrades',
  'vendorSites',
  'vendorContacts',
  'assets',
  'floorplans',
  'spaceShapes',
  'assetPins',
  'people',
  'accounts',
  'accountRoles',
  'deputies',
  'teams',
  'savedViews',
  'technicians',
  'technicianTrades',
  'technicianRates',
  'technicianSkills',
  'shiftExceptions',
  'leaves',
  'categories',
  'categoryForms',
  'numberings',
  'targetRules',
  'targetExceptions',
  'ruleSections',
  'settings',
  'parts',
  'stores',
  'stockLevels',
  'requests',
  'followers',
  'comments',
  'bulletins',
  'bulletinPlaces',
  'articles',
  'ownStates',
  'orders',
  'requestOrders',
  'orderShares',
  'approvals',
  'visits',
  'vendorPasses',
  'orderMessages',
  'stints',
  'purchases',
  'purchaseLines',
  'stockMovements',
  'vendorBills',
  'vendorBillLines',
  'periods',
  'postings',
  'charges',
  'chargeLines',
  'journalEntries',
  'payables',
  'preventivePlans',
  'dues',
  'meters',
  'readings',
  'downtimes',
  'transfers',
  'storedFiles',
  'storedPieces',
  'documents',
  'documentFiles',
  'ownFields',
  'ownValues',
  'ownVersions',
  'equipment',
  'bookings',
  'spaceReadiness',
  'methods',
  'methodEditions',
  'orderTemplates',
  'orderMethods',
  'orderPlans',
  'orderSteps',
  'findings',
  'events',
  'timeOffers',
  'quotes',
  'rotas',
  'leaveAsks',
  'closures',
] as const satisfies readonly (keyof typeof tables)[]

export type TableName = (typeof TABLES)[number]

/** The demo world while it is being made: rows by table, with ids given here. */
export class World {
  readonly rows = Object.fromEntries(TABLES.map((name) => [name, []])) as unknown as { [T in TableName]: Rows<T> }
  private readonly counters = new Map<string, number>()

  constructor(
    readonly rng: Rng,
    /** For words alone: how people say a thing changes nothing of what happens. */
    readonly words: Rng,
    readonly now: Date,
    readonly calendar: WorkCalendar,
    readonly passwordHash: string,
  ) {}

  /** Adds a row with the next id of its table and answers it. */
  add<T extends TableName>(table: T, row: Omit<Rows<T>[number], 'id'>): Rows<T>[number] & { id: number } {
    const id = (this.counters.get(table) ?? 0) + 1
    this.counters.set(table, id)
    const kept = { id, ...row } as Rows<T>[number] & { id: number }
    ;(this.rows[table] as unknown[]).push(kept)
    return kept
  }

  /** Adds a row of a table that has no id of its own. */
  put<T extends TableName>(table: T, row: Rows<T>[number]): void {
    ;(this.rows[table] as unknown[]).push(row)
  }
}
