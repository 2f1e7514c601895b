/** What gets a number that runs on by itself. */
export const SERIES = ['request', 'order', 'asset', 'purchase'] as const
export type Series = (typeof SERIES)[number]
export const SERIES_NAMES: Record<Series, string> = { request: 'Requests', order: 'Orders', asset: 'Assets without a tag', purchase: 'Purchases' }

/** Letters before the number, and the digits it has at least: together with the dash no more than a number may be long. */
export const MOST_PREFIX = 6
export const MOST_DIGITS = 9
export const isPrefix = (text: string): boolean => /^[A-Z]{1,6}$/.test(text)

/** "R-24018" from prefix and number, with as many digits at least. */
export function formatNumber(prefix: string, value: number, digits = 5): string {
  return `${prefix}-${String(value).padStart(digits, '0')}`
}

/**
 * A number of ours however it was typed, "w31406", "W 31406" or "W-31406", as it may be written: with the digits that
 * were typed first, then with more before them, since a site says how many its numbers have. None when it is none.
 */
export function numbersAsked(text: string): string[] {
  const [, prefix, typed] = /^\s*([a-z]{1,6})[\s-]*(\d{3,9})\s*$/i.exec(text) ?? []
  if (!prefix || !typed) return []
  const value = typed.replace(/^0+(?=\d)/, '')
  const lengths = Array.from({ length: MOST_DIGITS + 1 - value.length }, (_, more) => value.length + more)
  const all = lengths.map((digits) => formatNumber(prefix.toUpperCase(), Number(value), digits))
  const asTyped = `${prefix.toUpperCase()}-${typed}`
  return [asTyped, ...all.filter((one) => one !== asTyped)]
}
