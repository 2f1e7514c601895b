import { currencyDecimals, decimalSignOf, readDecimal, readMoney, readPercent, writeDecimal, writeMoney } from '#core/kit'
import type { DecimalSign, ReadAs } from '#core/kit'

/** How the site on this screen writes numbers and money. */
let sign: DecimalSign = '.'
let currency = 'EUR'

export function showNumbersOf(site: { locale?: string; currency: string }): void {
  sign = decimalSignOf(site.locale ?? 'en-IE')
  currency = site.currency
}

/** What a field for numbers is for. Money is in minor units, a percentage in basis points, a quantity a decimal as text. */
export type DecimalKind = 'money' | 'percent' | 'quantity'

export function readTyped(kind: DecimalKind, text: string): ReadAs<number | string | null> {
  if (kind === 'money') return readMoney(text, sign, currency)
  return kind === 'percent' ? readPercent(text, sign) : readDecimal(text, sign, 3)
}

export function writtenAs(kind: DecimalKind, value: number | string | null): string {
  if (value === null || value === '') return ''
  if (kind === 'money') return writeMoney(Number(value), sign, currency)
  return kind === 'percent' ? writeDecimal(String(Number(value) / 100), sign) : writeDecimal(String(value), sign)
}

/** Whether a text could have been read in two ways: one sign with three digits after it. */
export const couldBeEither = (text: string): boolean => /^[+−-]?\d{1,3}[.,]\d{3}$/.test(text.trim())

export const exampleAmount = (): string => writtenAs('money', 1250 * 10 ** currencyDecimals(currency))
