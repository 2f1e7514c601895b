/** How sure a site wants to be not to run out while it waits for a delivery, in percent. */
export const SERVICE_LEVELS = [50, 90, 95, 97.5, 99] as const
export type ServiceLevel = (typeof SERVICE_LEVELS)[number]
/** Quantiles of the standard normal distribution (tabulated in NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.1; from memory). */
const Z: Record<ServiceLevel, number> = { 50: 0, 90: 1.2816, 95: 1.6449, 97.5: 1.96, 99: 2.3263 }
export const serviceFactor = (level: ServiceLevel): number => Z[level]

/** What a site decides about buying. */
export interface BuyingRules {
  /** What it costs to place and take in one purchase, in minor units. */
  orderCostMinor: number
  /** What it costs to hold stock for a year, in percent of its value. */
  holdingPercent: number
  serviceLevel: ServiceLevel
  /** Days from ordering to receiving, where a part says nothing of its own. */
  leadDays: number
}
export const MOST_LEAD_DAYS = 400
/** Our own choice, no source. */
export const USUAL_BUYING: BuyingRules = { orderCostMinor: 2_500, holdingPercent: 20, serviceLevel: 95, leadDays: 7 }

/**
 * The quantity for which placing purchases and holding stock together cost least: sqrt(2 D S / H) (Harris, “How Many
 * Parts to Make at Once”, 1913). @param demand units a year @param orderCost of one purchase @param holding of one unit
 * for a year, in the same money @returns units; Infinity where holding costs nothing
 */
export const economicQuantity = (demand: number, orderCost: number, holding: number): number => Math.sqrt((2 * demand * orderCost) / holding)

/** What was used of a part since it was used first, in three years at most. */
export interface Demand {
  days: number
  /** Units in all: issued, less what came back. */
  sum: number
  /** The sum of the squares of what was issued at a time. */
  squares: number
}
/** What was used for a shorter time is held against a month. */
export const LEAST_DAYS = 30
export const MOST_DAYS = 3 * 365

/**
 * Mean of a day, and how far days lie from it, where issues come by chance and each takes what it takes: of such a
 * compound Poisson process the variance of a day is the sum of the squares over the days (Ross, Introduction to
 * Probability Models, section 5.4.2; from memory).
 */
export function dailyDemand({ days, sum, squares }: Demand): { mean: number; deviation: number } {
  return days <= 0 ? { mean: 0, deviation: 0 } : { mean: Math.max(0, sum / days), deviation: Math.sqrt(Math.max(0, squares) / days) }
}

/**
 * Mean demand over the lead time and a safety stock of z deviations of it (common practice; z for demand that is
 * normally distributed). @returns units, both
 */
export function reorderPoint(daily: { mean: number; deviation: number }, leadDays: number, level: ServiceLevel): { point: number; safety: number } {
  const safety = serviceFactor(level) * daily.deviation * Math.sqrt(leadDays)
  return { point: daily.mean * leadDays + safety, safety }
}

export interface ToWeigh {
  unit: string
  /** Lies in the stores of the site, is kept for orders, is on its way, and is planned for orders without being kept; units. */
  onHand: number
  reserved: number
  onOrder: number
  awaited: number
  /** What one costs, in minor units. */
  unitCostMinor: number
  leadDays: number | null
  demand: Demand
}
export interface WeighedPart {
  /** What is left to live on: on hand and on order, less what is kept and awaited. */
  position: number
  reorderPoint: number
  safetyStock: number
  economicQuantity: number | null
  /** How many to buy; 0 where it is not time. */
  buy: number
  /** How that comes about, a sentence each. */
  because: string[]
}

/**
 * Whether a part is bought, and how many: when what is left falls to the reorder point or orders wait for more than there
 * is; the economic quantity, and at least what brings it above that point. Whole units. Sums of section 10 of the sums.
 */
export function weighPart(part: ToWeigh, rules: BuyingRules): WeighedPart {
  const daily = dailyDemand(part.demand)
  const leadDays = part.leadDays ?? rules.leadDays
  const { point, safety } = reorderPoint(daily, leadDays, rules.serviceLevel)
  const position = thousandth(part.onHand + part.onOrder - part.reserved - part.awaited)
  const yearly = daily.mean * 365
  const holding = (part.unitCostMinor * rules.holdingPercent) / 100
  const economic = yearly > 0 && holding > 0 ? economicQuantity(yearly, rules.orderCostMinor, holding) : null
  const due = position < 0 || (yearly > 0 && position <= point)
  const lacks = Math.max(0, Math.floor(point - position) + (yearly > 0 ? 1 : 0), Math.ceil(-position))
  const buy = due ? Math.max(Math.round(economic ?? 0), lacks) : 0
  return {
    position,
    reorderPoint: point,
    safetyStock: safety,
    economicQuantity: economic,
    buy,
    because: [
      `Left: ${said(part.onHand)} on hand + ${said(part.onOrder)} on order − ${said(part.reserved)} reserved − ${said(part.awaited)} planned and not reserved = ${said(position)} ${part.unit}.`,
      yearly > 0 ? `Used: ${said(part.demand.sum)} in ${part.demand.days} days, ${said(yearly)} a year.` : 'Nothing of it was used in the last three years.',
      `Reorder point: ${said(daily.mean)} a day × ${leadDays} days + ${said(safety)} for safety (${rules.serviceLevel} % sure) = ${said(point)}.`,
      economic === null
        ? 'There is no economic quantity without demand and a price.'
        : `Economic quantity: √(2 × ${said(yearly)} × ${said(rules.orderCostMinor / 100)} ÷ ${said(holding / 100)}) = ${said(economic)}.`,
    ],
  }
}

const thousandth = (quantity: number) => Math.round(quantity * 1000) / 1000
const said = (quantity: number) => String(Math.round(quantity * 100) / 100)
