import { allocate, percentOf } from '#core/kit'
import type { BasisPoints, Minor } from '#core/kit'

export type CostKind = 'labour' | 'parts' | 'equipment' | 'vendor'

export const COST_KIND_NAMES: Record<CostKind, string> = {
  labour: 'Labour',
  parts: 'Parts',
  equipment: 'Equipment',
  vendor: 'Vendor',
}

/** One cost on an order, traceable to the stint, movement or bill line it comes from. */
export interface CostLine {
  kind: CostKind
  sourceId: number
  description: string
  /** A decimal string: hours, pieces, or the bill line's own quantity. */
  quantity: string
  unit: string
  unitCost: Minor
  cost: Minor
  vendorId: number | null
}

/** Who pays which part, and on what terms. */
export interface PayerTerms {
  payerId: number
  shareBp: BasisPoints
  taxBp: BasisPoints
  /** Own cost is carried, not charged on: no markup, no tax, no receivable. */
  ownCost: boolean
}

export interface ChargeLine {
  payerId: number
  line: CostLine
  /** This payer's part of the cost. */
  cost: Minor
  markupBp: BasisPoints
  /** Cost and markup: what the payer is charged before tax (BT-131). */
  net: Minor
}

/** One payer's side of a posting: lines, and the tax of the whole (BR-CO-17, per rate). */
export interface PayerCharge {
  payerId: number
  ownCost: boolean
  lines: ChargeLine[]
  net: Minor
  taxBp: BasisPoints
  tax: Minor
  gross: Minor
}

/**
 * Turns the costs of an order into charges by share. Markup is a percentage of cost: 15 % on 200.00
 * is 230.00 (a margin of 13.04 %, which is another thing). Every line is split by largest remainder,
 * so that the payers' parts of a line add to the line.
 *
 * @param markupOf the markup of a line in basis points (vendor's terms, or the cost kind's)
 */
export function chargesOf(lines: CostLine[], payers: PayerTerms[], markupOf: (line: CostLine) => BasisPoints): PayerCharge[] {
  const charges = payers.map((payer) => ({ payer, lines: [] as ChargeLine[] }))
  const weights = payers.map((payer) => payer.shareBp)
  for (const line of lines) {
    const markupBp = markupOf(line)
    const costs = allocate(line.cost, weights)
    const nets = allocate(line.cost + percentOf(line.cost, markupBp), weights)
    charges.forEach(({ payer, lines: mine }, index) => {
      const own = payer.ownCost
      mine.push({ payerId: payer.payerId, line, cost: costs[index]!, markupBp: own ? 0 : markupBp, net: own ? costs[index]! : nets[index]! })
    })
  }
  return charges.map(({ payer, lines: mine }) => {
    const net = mine.reduce((sum, line) => sum + line.net, 0)
    const taxBp = payer.ownCost ? 0 : payer.taxBp
    const tax = percentOf(net, taxBp)
    return { payerId: payer.payerId, ownCost: payer.ownCost, lines: mine, net, taxBp, tax, gross: net + tax }
  })
}
