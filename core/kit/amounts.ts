import type { BasisPoints, Minor } from './money'

/** The sign between whole and part, as a site writes numbers. */
export type DecimalSign = '.' | ','

/** What a text was read as, or why it was not. */
export type ReadAs<T> = { value: T; problem?: undefined } | { value?: undefined; problem: string }

/** ISO 4217 currencies whose minor unit is not a hundredth, with its decimals (list one, from memory). */
const DECIMALS: Record<string, number> = Object.fromEntries([
  ...['BIF', 'CLP', 'DJF', 'GNF', 'ISK', 'JPY', 'KMF', 'KRW', 'PYG', 'RWF', 'UGX', 'UYI', 'VND', 'VUV', 'XAF', 'XOF', 'XPF'].map((code) => [code, 0]),
  ...['BHD', 'IQD', 'JOD', 'KWD', 'LYD', 'OMR', 'TND'].map((code) => [code, 3]),
  ...['CLF', 'UYW'].map((code) => [code, 4]),
])

/** How many decimals the amounts of a currency have. Source: ISO 4217. @param currency its three letters; unknown ones have two */
export const currencyDecimals = (currency: string): number => DECIMALS[currency.toUpperCase()] ?? 2

/** The decimal sign of a locale. @param locale a BCP 47 tag; one that is not known writes a point */
export function decimalSignOf(locale: string): DecimalSign {
  try {
    return new Intl.NumberFormat(locale).formatToParts(1.5).find((part) => part.type === 'decimal')?.value === ',' ? ',' : '.'
  } catch {
    return '.'
  }
}

/**
 * The one reader of numbers people write, as a decimal with a point: "1 234,5", "1.234,50" and "1,234.5"
 * are all read. The last sign with one or two digits after it is the decimal sign; where both signs stand,
 * the last is; what could be either ("1,234") is read as the site writes.
 *
 * @param places the most decimals it may have
 * @returns the decimal as plain text, or a sentence for the field; nothing written is null
 */
export function readDecimal(text: string, sign: DecimalSign, places: number): ReadAs<string | null> {
  // Blanks of every kind and apostrophes only group digits; the minus of typesetters is a minus.
  const plain = text.replace(/[\s\u00A0\u202F\u2009'’]/g, '').replace(/^[−–]/, '-')
  if (plain === '') return { value: null }
  if (!/^[+-]?[\d.,]*\d[.,]?$/.test(plain) || !/\d/.test(plain)) return { problem: notANumber(sign, places) }
  const [, minus = '', digits = ''] = /^([+-]?)(.*)$/.exec(plain)!
  const split = wholeAndPart(digits, sign)
  if (!split) return { problem: notANumber(sign, places) }
  const part = split.part.replace(/0+$/, '').length > places ? null : split.part.slice(0, places)
  if (part === null) return { problem: places ? `Write at most ${places} ${places === 1 ? 'decimal' : 'decimals'}.` : 'Write a whole number.' }
  const whole = split.whole.replace(/^0+(?=\d)/, '') || '0'
  return { value: `${minus === '-' && /[1-9]/.test(whole + part) ? '-' : ''}${whole}${part ? `.${part}` : ''}` }
}

/** Where the decimal sign is, and whether the others group digits by three. */
function wholeAndPart(digits: string, sign: DecimalSign): { whole: string; part: string } | null {
  const signs = [...digits.matchAll(/[.,]/g)]
  const last = signs.at(-1)
  if (!last) return { whole: digits, part: '' }
  const before = digits.slice(0, last.index)
  const after = digits.slice(last.index + 1)
  const kinds = new Set(signs.map((one) => one[0]))
  const groups = (text: string, by: string) =>
    /^\d+$/.test(text) ? text : new RegExp(`^\\d{1,3}(\\${by}\\d{3})+$`).test(text) ? text.replaceAll(by, '') : null
  const asDecimal = () => {
    const whole = before === '' ? '0' : groups(before, last[0] === '.' ? ',' : '.')
    return whole === null ? null : { whole, part: after }
  }
  if (kinds.size === 2) return asDecimal()
  const grouped = groups(digits, last[0])
  if (signs.length > 1) return grouped === null ? null : { whole: grouped, part: '' }
  // Three digits after a single sign group them or part them; a group never begins with nought.
  if (after.length === 3 && grouped !== null && last[0] !== sign && !before.startsWith('0')) return { whole: grouped, part: '' }
  return asDecimal()
}

const notANumber = (sign: DecimalSign, places: number) => `Write a number like ${places ? `1250${sign}${'50'.padEnd(places, '0').slice(0, places)}` : '1250'}.`

/** An amount as people write it, in minor units. Nothing written is null. */
export function readMoney(text: string, sign: DecimalSign, currency: string): ReadAs<Minor | null> {
  const decimals = currencyDecimals(currency)
  const read = readDecimal(text, sign, decimals)
  if (read.problem !== undefined) return { problem: read.problem }
  if (read.value === null) return { value: null }
  const [whole = '0', part = ''] = read.value.split('.')
  const minor = Number(whole.replace('-', '') + part.padEnd(decimals, '0'))
  if (minor > MOST_MINOR) return { problem: 'This is more than an amount here may be.' }
  return { value: read.value.startsWith('-') ? -minor : minor }
}
/** The largest amount a column holds. */
const MOST_MINOR = 2_000_000_000

/** A percentage as people write it, in basis points. Nothing written is null. */
export function readPercent(text: string, sign: DecimalSign): ReadAs<BasisPoints | null> {
  const read = readDecimal(text.replace(/%/g, ''), sign, 2)
  if (read.problem !== undefined) return { problem: read.problem }
  return { value: read.value === null ? null : Math.round(Number(read.value) * 100) }
}

/** A decimal as a site writes it, digits in groups of three: "1,234.50", or "1.234,50" with a comma. */
export function writeDecimal(decimal: string, sign: DecimalSign): string {
  const [whole = '0', part] = decimal.replace('-', '').split('.')
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, sign === ',' ? '.' : ',')
  return `${decimal.startsWith('-') ? '−' : ''}${grouped}${part ? sign + part : ''}`
}

/** An amount in minor units as a site writes it, without the currency. */
export function writeMoney(minor: Minor, sign: DecimalSign, currency: string): string {
  const decimals = currencyDecimals(currency)
  const digits = String(Math.abs(minor)).padStart(decimals + 1, '0')
  const whole = digits.slice(0, digits.length - decimals)
  return writeDecimal(`${minor < 0 ? '-' : ''}${whole}${decimals ? `.${digits.slice(-decimals)}` : ''}`, sign)
}
