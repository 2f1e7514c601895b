import Big from 'big.js'

/** An amount in minor units (cents) of the currency that stands beside it. Always a whole number. */
export type Minor = number

/** A share or rate in basis points: 10 000 is the whole, 2 300 is 23 %. */
export type BasisPoints = number

export const WHOLE: BasisPoints = 10_000

/**
 * Rounds half up, away from zero, to a whole number of minor units.
 * Source: EN 16931-1, BR-CO-17 (tax amounts are rounded half up to two decimals).
 */
export function roundHalfUp(value: Big): Minor {
  return value.round(0, Big.roundHalfUp).toNumber()
}

/** A percentage of an amount, in minor units. @param rate basis points, may exceed the whole. */
export function percentOf(amount: Minor, rate: BasisPoints): Minor {
  return roundHalfUp(new Big(amount).times(rate).div(WHOLE))
}

/**
 * Splits an amount by weights with the largest-remainder method, so that the parts always add to
 * the whole. Ties go to the earlier part. Negative amounts split as their positive mirror.
 *
 * @param weights whole numbers of zero or more, at least one above zero
 * @throws RangeError when the weights cannot divide anything
 * @example allocate(10000, [1, 1, 1]) // [3334, 3333, 3333]
 */
export function allocate(amount: Minor, weights: number[]): Minor[] {
  const sum = weights.reduce((total, weight) => total + weight, 0)
  if (sum <= 0 || weights.some((weight) => weight < 0 || !Number.isInteger(weight)))
    throw new RangeError('Weights are whole numbers of zero or more, with at least one above zero.')
  if (amount < 0) return allocate(-amount, weights).map((part) => (part === 0 ? 0 : -part))
  const exact = weights.map((weight) => new Big(amount).times(weight).div(sum))
  const parts = exact.map((share) => share.round(0, Big.roundDown).toNumber())
  let left = amount - parts.reduce((total, part) => total + part, 0)
  const byRemainder = exact
    .map((share, index) => ({ index, remainder: share.minus(parts[index]!) }))
    .sort((a, b) => b.remainder.cmp(a.remainder) || a.index - b.index)
  for (const { index } of byRemainder) {
    if (left === 0) break
    parts[index]! += 1
    left -= 1
  }
  return parts
}

/** Quantity times unit price, in minor units. @param quantity a decimal string, e.g. "1.250" */
export function lineAmount(quantity: string, unitPrice: Minor): Minor {
  return roundHalfUp(new Big(quantity).times(unitPrice))
}

/** "1,234.50" for 123450, without the currency sign: tables name the currency once. */
export function formatMinor(amount: Minor): string {
  const sign = amount < 0 ? '−' : ''
  const whole = Math.floor(Math.abs(amount) / 100)
  const cents = String(Math.abs(amount) % 100).padStart(2, '0')
  return `${sign}${whole.toLocaleString('en-IE')}.${cents}`
}

/** Minutes as hours with three decimals, as a decimal string: "1.250" for 75. */
export function chargedHours(minutes: number): string {
  return new Big(minutes).div(60).toFixed(3)
}
