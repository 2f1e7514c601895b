import { lineAmount } from '#core/kit'
import type { Minor } from '#core/kit'
import { labourCost } from '#core/ledger'
import type { Costing } from '#core/orders'
import type { PlanLines } from './content'
import { quantile } from './offer'

/** What an hour of our own people of a trade costs on the day: the mean of the rates in force, and of how many. */
export interface TradeRate {
  perHourMinor: Minor
  people: number
}

/** What a vendor asks, by the terms on record; what is not agreed is null. */
export interface VendorTerms {
  name: string
  callOutMinor: Minor | null
  perHourMinor: Minor | null
  minimumMinutes: number | null
  stepMinutes: number | null
}

export interface EstimateFacts {
  tradeName: (tradeId: number) => string
  partName: (partId: number) => string
  rate: (tradeId: number) => TradeRate | null
  /** By the rule of the site; null for a part that never was there. */
  partCost: (partId: number) => Minor | null
  costing: Costing
  /** A piece of equipment: what a day of it costs, and for how many days it is booked for the order; null for one that costs nothing. */
  hire: (equipmentId: number) => { name: string; perDayMinor: Minor; days: number | null } | null
  /** The vendor the order names. */
  vendor: VendorTerms | null
  /** Whether that vendor does this trade. */
  vendorDoes: (tradeId: number) => boolean
}

export interface EstimateLine {
  kind: 'labour' | 'parts' | 'equipment' | 'vendor'
  what: string
  /** How it comes to its amount, in words. */
  how: string
  costMinor: Minor
}

export interface Estimate {
  lines: EstimateLine[]
  totalMinor: Minor
  /** What could not be priced, in sentences: the total is without it. */
  unknown: string[]
}

/**
 * What a plan will cost. Labour of a trade is done by the vendor the order names, where that vendor does the trade and
 * asks for an hour; otherwise by our own people at the mean of their normal rates. A vendor is paid for every person
 * the minutes rounded up to the step, at least the minimum, and the call-out once. Parts count by the rule of the site, at moving average or at the last price paid.
 * Equipment costs its rate for each day it is booked, for one while it is not; none where it has no rate. Amounts in minor units, each line rounded half up.
 */
export function estimateOf(plan: Pick<PlanLines, 'labour' | 'parts' | 'tools'>, facts: EstimateFacts): Estimate {
  const { vendor } = facts
  const lines: EstimateLine[] = []
  const unknown: string[] = []
  let vendorComes = false
  for (const { tradeId, people, minutes } of plan.labour) {
    const trade = facts.tradeName(tradeId)
    const rate = facts.rate(tradeId)
    const many = people > 1 ? `${people} × ` : ''
    if (vendor && vendor.perHourMinor !== null && (facts.vendorDoes(tradeId) || !rate)) {
      const charged = vendorMinutes(minutes, vendor)
      vendorComes = true
      lines.push({
        kind: 'vendor',
        what: `${vendor.name}, ${trade}`,
        how: `${many}${charged} min${charged === minutes ? '' : ` charged for ${minutes}`} at the agreed rate`,
        costMinor: people * labourCost(charged, vendor.perHourMinor),
      })
    } else if (rate)
      lines.push({
        kind: 'labour',
        what: trade,
        how: `${many}${minutes} min at the mean rate of ${rate.people === 1 ? 'the one who does it' : `${rate.people} people`}`,
        costMinor: people * labourCost(minutes, rate.perHourMinor),
      })
    else unknown.push(`Nobody here does ${trade}, and no vendor with an agreed rate is named.`)
  }
  if (vendor && vendorComes && vendor.callOutMinor) lines.push({ kind: 'vendor', what: vendor.name, how: 'call-out, once', costMinor: vendor.callOutMinor })
  for (const { partId, quantity } of plan.parts) {
    const cost = facts.partCost(partId)
    if (cost === null) unknown.push(`${facts.partName(partId)} was never in stock here: it has no price.`)
    else
      lines.push({
        kind: 'parts',
        what: facts.partName(partId),
        how: `${quantity} at the ${facts.costing === 'last' ? 'last price paid' : 'average price'}`,
        costMinor: lineAmount(quantity, cost),
      })
  }
  for (const equipmentId of new Set(plan.tools.flatMap((tool) => tool.equipmentId ?? []))) {
    const hire = facts.hire(equipmentId)
    if (!hire) continue
    const days = hire.days ?? 1
    lines.push({
      kind: 'equipment',
      what: hire.name,
      how: `${days} ${days === 1 ? 'day' : 'days'} at its rate${hire.days === null ? ', not booked yet' : ''}`,
      costMinor: days * hire.perDayMinor,
    })
  }
  return { lines, totalMinor: lines.reduce((sum, { costMinor }) => sum + costMinor, 0), unknown }
}

/** Minutes a vendor charges for a stretch of work: rounded up to the step, at least the minimum. */
export function vendorMinutes(minutes: number, { minimumMinutes, stepMinutes }: Pick<VendorTerms, 'minimumMinutes' | 'stepMinutes'>): number {
  const step = Math.max(1, stepMinutes ?? 1)
  return Math.max(minimumMinutes ?? 0, Math.ceil(minutes / step) * step)
}

/** What orders that are alike really cost. */
export interface LikeCosts {
  orders: number
  medianMinor: Minor
  /** Between these lie eight of ten. */
  fromMinor: Minor
  toMinor: Minor
}

/** @returns null for fewer than three, which say nothing */
export function likeCosts(costs: readonly Minor[]): LikeCosts | null {
  if (costs.length < 3) return null
  const at = (share: number) => Math.round(quantile(costs, share))
  return { orders: costs.length, medianMinor: at(0.5), fromMinor: at(0.1), toMinor: at(0.9) }
}

/** How what is planned came to differ from what was agreed to. */
export interface PlanChange {
  what: string
  /** How it was told then and how it is told now; null for what was not there, or is no longer. */
  before: string | null
  now: string | null
  /** More, or less, in minor units. */
  byMinor: Minor
}

/** Line by line what changed between two plans at the same prices; what is the same is left out. */
export function planChanges(before: readonly EstimateLine[], now: readonly EstimateLine[]): PlanChange[] {
  const told = (lines: readonly EstimateLine[], what: string) => {
    const mine = lines.filter((line) => line.what === what)
    return mine.length ? { how: mine.map(({ how }) => how).join('; '), costMinor: mine.reduce((sum, { costMinor }) => sum + costMinor, 0) } : null
  }
  return [...new Set([...before, ...now].map(({ what }) => what))].flatMap((what) => {
    const [was, is] = [told(before, what), told(now, what)]
    const byMinor = (is?.costMinor ?? 0) - (was?.costMinor ?? 0)
    return was?.how === is?.how && byMinor === 0 ? [] : [{ what, before: was?.how ?? null, now: is?.how ?? null, byMinor }]
  })
}
