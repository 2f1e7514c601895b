import { percentOf } from '#core/kit'
import type { BasisPoints, Minor } from '#core/kit'

export interface InvoiceLine {
  net: Minor
  taxCategory: string
  taxBp: BasisPoints
}

export interface InvoiceTotals {
  lineSum: Minor
  net: Minor
  taxes: { taxCategory: string; taxBp: BasisPoints; taxable: Minor; tax: Minor }[]
  tax: Minor
  gross: Minor
  due: Minor
}

/**
 * Totals of an invoice or statement in minor units.
 * Source: EN 16931-1: BR-CO-10 (sum of lines), BR-CO-13 (net), BR-CO-17 (tax per category and rate,
 * rounded half up to two decimals), BR-CO-14 (total tax), BR-CO-15 (gross), BR-CO-16 (due).
 */
export function invoiceTotals(input: {
  lines: InvoiceLine[]
  allowances?: InvoiceLine[]
  charges?: InvoiceLine[]
  paid?: Minor
  rounding?: Minor
}): InvoiceTotals {
  const { lines, allowances = [], charges = [], paid = 0, rounding = 0 } = input
  const sum = (items: InvoiceLine[]) => items.reduce((total, item) => total + item.net, 0)
  const taxable = new Map<string, { taxCategory: string; taxBp: BasisPoints; taxable: Minor }>()
  const add = (item: InvoiceLine, sign: 1 | -1) => {
    const key = `${item.taxCategory}/${item.taxBp}`
    const group = taxable.get(key) ?? { taxCategory: item.taxCategory, taxBp: item.taxBp, taxable: 0 }
    group.taxable += sign * item.net
    taxable.set(key, group)
  }
  lines.forEach((line) => add(line, 1))
  charges.forEach((charge) => add(charge, 1))
  allowances.forEach((allowance) => add(allowance, -1))
  const taxes = [...taxable.values()].map((group) => ({ ...group, tax: percentOf(group.taxable, group.taxBp) }))
  const lineSum = sum(lines)
  const net = lineSum - sum(allowances) + sum(charges)
  const tax = taxes.reduce((total, group) => total + group.tax, 0)
  return { lineSum, net, taxes, tax, gross: net + tax, due: net + tax - paid + rounding }
}
