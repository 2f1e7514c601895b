import type { orders } from '../tables'

/** An order as its row has it. */
export type OrderRecord = typeof orders.$inferSelect
