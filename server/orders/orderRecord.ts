import type { orders } from '../tables'

/** An order as its row has it. */
export type OrderRecord = typeof orders.$inferSelect

/** What is agreed with whoever lets people in, or null while nothing is. */
export const windowOf = ({
  windowFrom,
  windowUntil,
  windowWith,
}: Pick<OrderRecord, 'windowFrom' | 'windowUntil' | 'windowWith'>): { from: Date; until: Date; with: string | null } | null =>
  windowFrom && windowUntil ? { from: windowFrom, until: windowUntil, with: windowWith } : null
