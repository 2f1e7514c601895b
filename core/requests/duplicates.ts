import { nearness } from './precedents'
import { likeness } from './twins'

/** What is compared of a request that came in, and of those that are open. */
export interface PerhapsSame {
  id: number
  text: string
  /** What was written besides the one line. */
  more?: string
  /** Ids of places from the root to where it was; empty when nobody said. */
  placePath: readonly number[]
  assetId: number | null
}

/** What each kind of likeness weighs (our own choice, measured by the bench on held-out history). */
const WEIGHT = { line: 0.35, all: 0.2, place: 0.3, asset: 0.15 }
/** Less alike than this is another trouble. */
const LEAST = 0.3
/** Nearness of two places that have site and building in common, in a tree four deep. */
const SAME_BUILDING = 0.5

/**
 * Open requests that are perhaps the same trouble, the likeliest first: alike in words, near, about the
 * same asset. The same words in another building are another trouble.
 */
export function likelyTheSame<Row extends PerhapsSame>(asked: PerhapsSame, open: readonly Row[], limit: number): Row[] {
  const scored = open.flatMap((row) => {
    if (row.id === asked.id) return []
    const near = nearness(asked.placePath, row.placePath)
    const sameAsset = asked.assetId !== null && asked.assetId === row.assetId
    if (!sameAsset && asked.placePath.length > 0 && row.placePath.length > 0 && near < SAME_BUILDING) return []
    const whole = (one: PerhapsSame) => `${one.text} ${one.more ?? ''}`
    const score =
      WEIGHT.line * likeness(asked.text, row.text) +
      WEIGHT.all * likeness(whole(asked), whole(row)) +
      WEIGHT.place * near ** 2 +
      WEIGHT.asset * Number(sameAsset)
    return score >= LEAST ? [{ row, score }] : []
  })
  return scored
    .sort((a, b) => b.score - a.score || b.row.id - a.row.id)
    .slice(0, limit)
    .map(({ row }) => row)
}
