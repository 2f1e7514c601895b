/** A point of a series: days against what a counter has run by then. */
export interface Point {
  x: number
  y: number
}

const median = (numbers: readonly number[]): number => {
  const sorted = [...numbers].sort((a, b) => a - b)
  const half = sorted.length >> 1
  return sorted.length % 2 ? sorted[half]! : (sorted[half - 1]! + sorted[half]!) / 2
}

/**
 * How steep a series is, whatever a few wild points say: the median of the slopes between all pairs of points (Theil 1950,
 * Sen 1968). Pairs at the same x say nothing. Up to 29 % of the points may be wrong without it breaking down.
 *
 * @returns null where no two points differ in x
 */
export function robustSlope(points: readonly Point[]): number | null {
  const slopes = points.flatMap((a, index) => points.slice(index + 1).flatMap((b) => (a.x === b.x ? [] : [(b.y - a.y) / (b.x - a.x)])))
  return slopes.length ? median(slopes) : null
}
