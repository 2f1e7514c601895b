import Big from 'big.js'

/** What lies of a part in one store, as far as whoever takes it is concerned. */
export interface Lying {
  storeId: number
  /** What is not kept for others, as a decimal text. */
  free: string
  /** How much of it is kept for this very order. */
  kept?: string
  /** In the van of whoever takes it. */
  mine: boolean
}

const isKept = ({ kept }: Lying) => Number(kept ?? 0) > 0

/**
 * Where a part is taken from: where it is kept for the order, then the own van, then where most of it is free (common
 * practice, no source).
 */
export const inTakingOrder = <Store extends Lying>(stores: readonly Store[]): Store[] =>
  [...stores].sort((a, b) => Number(isKept(b)) - Number(isKept(a)) || Number(b.mine) - Number(a.mine) || Number(b.free) - Number(a.free))

/** The first of them that has enough; null where none has. @param quantity a decimal text above nought */
export const takenFrom = <Store extends Lying>(stores: readonly Store[], quantity: string): Store | null =>
  inTakingOrder(stores).find(({ free }) => new Big(free).gte(quantity)) ?? null

/** What is missing of a quantity where only so much is free; nought where nothing is. Decimal texts. */
export function missingOf(free: string, quantity: string): string {
  const left = new Big(quantity).minus(free)
  return left.lte(0) ? '0' : left.toString()
}
