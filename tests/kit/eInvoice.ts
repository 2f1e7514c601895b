import { InvoiceService } from '@e-invoice-eu/core'
import type { Invoice } from '@e-invoice-eu/core'

interface Line {
  name: string
  quantity: string
  price: string
  amount: string
  /** For how many the price is. */
  per?: string
  /** In percent. */
  tax?: string
}
interface Billed {
  number: string
  currency?: string
  lines: Line[]
  net: string
  root?: object
}

const money = (name: string, amount: string, currency: string) => ({ [`cbc:${name}`]: amount, [`cbc:${name}@currencyID`]: currency })
const VAT = { 'cac:TaxScheme': { 'cbc:ID': 'VAT' } }
const party = (name: string, isSeller: boolean) => ({
  'cac:Party': {
    'cbc:EndpointID': 'bills@vendor.example',
    'cbc:EndpointID@schemeID': 'EM',
    'cac:PostalAddress': { 'cbc:StreetName': 'Quay 1', 'cbc:CityName': 'Skerry', 'cac:Country': { 'cbc:IdentificationCode': 'IE' } },
    'cac:PartyTaxScheme': isSeller ? [{ 'cbc:CompanyID': 'IE1234567T', ...VAT }] : { 'cbc:CompanyID': 'IE7654321T', ...VAT },
    'cac:PartyLegalEntity': { 'cbc:RegistrationName': name },
  },
})

/** An electronic invoice in UBL 2.1 as EN 16931 fills it in, written and checked against its schema by a reference library (@e-invoice-eu/core). */
export async function eInvoice({ number, currency = 'EUR', lines, net, root = {} }: Billed): Promise<string> {
  const service = new InvoiceService({ log: () => undefined, warn: () => undefined, error: () => undefined })
  const rates = [...new Set(lines.map(({ tax = '13.5' }) => tax))]
  const invoice = {
    'ubl:Invoice': {
      'cbc:CustomizationID': 'urn:cen.eu:en16931:2017',
      'cbc:ID': number,
      'cbc:IssueDate': '2026-11-20',
      'cbc:DueDate': '2026-12-20',
      'cbc:InvoiceTypeCode': '380',
      'cbc:DocumentCurrencyCode': currency,
      'cbc:BuyerReference': 'W-31400',
      'cac:AccountingSupplierParty': party('Ohm & Sons', true),
      'cac:AccountingCustomerParty': party('Skerry Sound', false),
      ...root,
      'cac:TaxTotal': [
        {
          ...money('TaxAmount', '0.00', currency),
          'cac:TaxSubtotal': rates.map((rate) => ({
            ...money('TaxableAmount', net, currency),
            ...money('TaxAmount', '0.00', currency),
            'cac:TaxCategory': { 'cbc:ID': 'S', 'cbc:Percent': rate, ...VAT },
          })),
        },
      ],
      'cac:LegalMonetaryTotal': {
        ...money('LineExtensionAmount', net, currency),
        ...money('TaxExclusiveAmount', net, currency),
        ...money('TaxInclusiveAmount', net, currency),
        ...money('PayableAmount', net, currency),
      },
      'cac:InvoiceLine': lines.map(({ name, quantity, price, amount, per, tax = '13.5' }, index) => ({
        'cbc:ID': String(index + 1),
        'cbc:InvoicedQuantity': quantity,
        'cbc:InvoicedQuantity@unitCode': 'C62',
        ...money('LineExtensionAmount', amount, currency),
        'cac:Item': { 'cbc:Name': name, 'cac:ClassifiedTaxCategory': { 'cbc:ID': 'S', 'cbc:Percent': tax, ...VAT } },
        'cac:Price': {
          ...money('PriceAmount', price, currency),
          ...(per ? { 'cbc:BaseQuantity': per, 'cbc:BaseQuantity@unitCode': 'C62' } : {}),
        },
      })),
    },
  } as unknown as Invoice
  return String(await service.generate(invoice, { format: 'UBL', lang: 'en' }))
}
