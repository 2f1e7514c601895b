import type { OrderKind } from './states'

/** What can be asked for before an order is submitted, in the order of the Sheet. */
export const COMPLETENESS_LINES = [
  'summary',
  'description',
  'place',
  'asset',
  'category',
  'priority',
  'hazards',
  'trade',
  'team',
  'lead',
  'supervisor',
  'contact',
  'access',
  'noteForPayer',
  'payer',
  'estimate',
] as const
export type CompletenessLine = (typeof COMPLETENESS_LINES)[number]

/** Without these an order cannot be decided on at all: Setup cannot take them away. */
export const ALWAYS_NEEDED: readonly CompletenessLine[] = ['summary', 'place', 'priority', 'payer', 'estimate']

/** What is usually asked for, for every kind of work. */
export const USUALLY_NEEDED: CompletenessLine[] = ['summary', 'description', 'place', 'priority', 'trade', 'team', 'lead', 'supervisor', 'payer', 'estimate']

export type CompletenessRules = Record<OrderKind, CompletenessLine[]>
