import Big from 'big.js'
import { lineAmount } from '#core/kit'

/** A bill as it is entered: each line at a price in minor units, one rate of tax. */
export interface BillRead {
  number: string
  /** In basis points. */
  taxBp: number
  lines: { description: string; quantity: string; unitPriceMinor: number }[]
}

/** An element of an XML file: text, or elements by their local names; attributes begin with "@". */
export type XmlNode = string | { [name: string]: XmlNode | XmlNode[] }

const all = (node: XmlNode | XmlNode[] | undefined, ...path: string[]): XmlNode[] => {
  if (node === undefined) return []
  const nodes = Array.isArray(node) ? node : [node]
  const [name, ...rest] = path
  return name === undefined ? nodes : nodes.flatMap((one) => (typeof one === 'string' ? [] : all(one[name], ...rest)))
}
const textOf = (node: XmlNode | undefined): string => (node === undefined ? '' : typeof node === 'string' ? node : (textOf(all(node, '#text')[0]) ?? '')).trim()
const first = (node: XmlNode, ...path: string[]): string => textOf(all(node, ...path)[0])

const DIGITS: Record<string, number> = { JPY: 0, KRW: 0, ISK: 0 }
const [MOST_LINES, MOST_WORDS] = [50, 200]

/**
 * Reads an electronic invoice: UBL 2.1 (OASIS; ISO/IEC 19845), as the European standard EN 16931 fills it in. A line whose
 * price has more places than money, or which bears an allowance, becomes one of its whole amount, so that sums stay what
 * the invoice says.
 *
 * @param file the root element by its local name
 * @param currency of the site; what is billed in another is not read
 * @returns the bill, or in a sentence why it cannot be read as one
 */
export function billFromUbl(file: XmlNode, currency: string): BillRead | { problem: string } {
  const invoice = all(file, 'Invoice')[0]
  if (!invoice) return { problem: all(file, 'CreditNote').length ? 'This is a credit note. Call the desk.' : 'This is not an invoice in the UBL format.' }
  const number = first(invoice, 'ID')
  if (!number || number.length > 40) return { problem: 'The invoice bears no number that can be kept.' }
  const billedIn = first(invoice, 'DocumentCurrencyCode')
  if (billedIn && billedIn !== currency) return { problem: `It is in ${billedIn}; bills here are in ${currency}.` }
  if (all(invoice, 'AllowanceCharge').length)
    return { problem: 'It has an allowance or a charge on the whole. Enter it line by line, with the file beside it.' }
  const lines = all(invoice, 'InvoiceLine')
  if (!lines.length || lines.length > MOST_LINES) return { problem: lines.length ? 'It has more lines than are taken.' : 'It has no lines.' }
  const rates = new Set(lines.map((line) => Number(first(line, 'Item', 'ClassifiedTaxCategory', 'Percent') || 0)))
  const [rate] = rates
  if (rates.size > 1 || !Number.isFinite(rate)) return { problem: 'It has several rates of tax. Enter it line by line, a bill for each rate; call the desk.' }
  try {
    const read = lines.map((line) => lineFrom(line, DIGITS[currency] ?? 2))
    const net = read.reduce((sum, line) => sum + lineAmount(line.quantity, line.unitPriceMinor), 0)
    const said = first(invoice, 'LegalMonetaryTotal', 'TaxExclusiveAmount')
    if (said && minorOf(said, DIGITS[currency] ?? 2) !== net)
      return { problem: `Its lines do not add up to the ${said} it says before tax. Enter it line by line.` }
    return { number, taxBp: Math.round(rate! * 100), lines: read }
  } catch {
    return { problem: 'A line of it cannot be read. Enter it line by line, with the file beside it.' }
  }
}

const minorOf = (amount: string, digits: number): number => Number(new Big(amount).times(10 ** digits).toFixed(0, Big.roundHalfUp))

/** @throws Error for a line that is no plain line of a bill */
function lineFrom(line: XmlNode, digits: number): BillRead['lines'][number] {
  const quantity = new Big(first(line, 'InvoicedQuantity'))
  const amountMinor = minorOf(first(line, 'LineExtensionAmount'), digits)
  const base = new Big(first(line, 'Price', 'BaseQuantity') || 1)
  const price = new Big(first(line, 'Price', 'PriceAmount')).div(base).times(10 ** digits)
  const what = [first(line, 'Item', 'Name') || first(line, 'Item', 'Description') || first(line, 'ID'), first(line, 'Note')]
    .filter(Boolean)
    .join(', ')
    .slice(0, MOST_WORDS)
  if (quantity.lte(0) || amountMinor < 0) throw new Error('below nought')
  const isPlain = price.eq(price.round(0)) && quantity.eq(quantity.round(3)) && lineAmount(quantity.toString(), Number(price)) === amountMinor
  if (isPlain) return { description: what, quantity: quantity.toString(), unitPriceMinor: Number(price) }
  return { description: `${what} (${quantity.toString()})`.slice(0, MOST_WORDS), quantity: '1', unitPriceMinor: amountMinor }
}
