import { UNIFORMAT } from '#core/assets'
import { foldText, spell } from '#core/kit'
import { ORDER_KIND_NAMES } from '#core/orders'
import type { OrderKind } from '#core/orders'
import type { MethodFields } from './fields'

/** What an order is, as far as a method is chosen for it. */
export interface OrderAsk {
  kind: OrderKind
  classCode: string | null
  categoryId: number | null
  tradeId: number | null
  /** Its summary and description. */
  text: string
}

/** How often a method was used on earlier work that is like this. */
export interface MethodUse {
  /** Of the last finished orders of this kind on this very asset; of those on assets of its class; at this place. */
  onAsset: Share
  inClass: Share
  atPlace: Share
  /** Minutes of work in all, of each finished order that was done by it. */
  minutes: number[]
}
export interface Share {
  used: number
  of: number
}

export interface Fit {
  /** Above nought for what fits at all; larger fits better. */
  score: number
  reasons: string[]
}

/** So many orders have to be known before a share of them says anything. */
const LEAST_KNOWN = 3
const NONE: Share = { used: 0, of: 0 }
export const NO_USE: MethodUse = { onAsset: NONE, inClass: NONE, atPlace: NONE, minutes: [] }

/**
 * How well a method fits an order, and why, the weightiest reason first. What was done before on the same asset counts
 * most, then what is usual for its class and kind of work, then what the method says of itself. A method for another
 * kind of work or another class never fits, unless it was used here before. Weights are our own.
 */
export function fitOf(method: Pick<MethodFields, 'name' | 'kind' | 'classCode' | 'categoryId' | 'tradeId'>, ask: OrderAsk, use: MethodUse = NO_USE): Fit {
  const usedHere = use.onAsset.used + use.inClass.used + use.atPlace.used > 0
  const misfits =
    (method.kind !== null && method.kind !== ask.kind) || (method.classCode !== null && ask.classCode !== null && method.classCode !== ask.classCode)
  if (misfits && !usedHere) return { score: 0, reasons: [] }
  const kind = ORDER_KIND_NAMES[ask.kind].toLowerCase()
  const orders = (of: number) => (of === 1 ? `${kind} order` : `${kind} orders`)
  const used: Weighed[] = [
    { weight: use.onAsset.used ? 5 * share(use.onAsset) + 1 : 0, says: `Used on ${ofLast(use.onAsset)} ${orders(use.onAsset.of)} of this asset` },
    {
      weight: use.inClass.of >= LEAST_KNOWN ? 4 * share(use.inClass) : 0,
      says: `Used on ${ofLast(use.inClass)} ${orders(use.inClass.of)} of such assets (${className(ask.classCode)})`,
    },
    { weight: use.atPlace.of >= LEAST_KNOWN ? 2 * share(use.atPlace) : 0, says: `Used on ${ofLast(use.atPlace)} ${orders(use.atPlace.of)} at this place` },
  ]
  const words = wordsInCommon(method.name, ask.text)
  const fits: Weighed[] = [
    { weight: method.classCode !== null && method.classCode === ask.classCode ? 3 : 0, says: `Made for ${className(ask.classCode)}` },
    { weight: method.categoryId !== null && method.categoryId === ask.categoryId ? 2.5 : 0, says: 'Made for this category' },
    { weight: Math.min(2, words.length), says: `The order speaks of ${words.join(', ')}` },
    { weight: method.tradeId !== null && method.tradeId === ask.tradeId ? 0.6 : 0, says: 'Done by this trade' },
    { weight: method.kind === ask.kind ? 0.4 : 0, says: `Made for ${kind} work` },
  ]
  const score = [...used, ...fits].reduce((sum, { weight }) => sum + weight, 0)
  if (score < LEAST_SCORE) return { score: 0, reasons: [] }
  // What was done before says most; of what the method says of itself, two reasons are enough.
  return { score, reasons: [...saying(used).slice(0, 2), ...tookSays(use.minutes), ...saying(fits).slice(0, 2)] }
}

interface Weighed {
  weight: number
  says: string
}
const saying = (all: Weighed[]): string[] =>
  all
    .filter(({ weight }) => weight > 0)
    .sort((one, other) => other.weight - one.weight)
    .map(({ says }) => says)

/** Trade and kind of work alone say too little. */
const LEAST_SCORE = 1.5

const share = ({ used, of }: Share) => (of ? used / of : 0)
const ofLast = ({ used, of }: Share) => (of === 1 ? 'the last' : `${used} of the last ${of}`)
const className = (code: string | null) => (code ? (UNIFORMAT[code]?.toLowerCase() ?? code) : '')

/** Words that say little about a job. */
const COMMON = new Set(['the', 'and', 'for', 'with', 'from', 'not', 'new', 'room', 'check', 'order', 'work', 'service', 'repair', 'replace', 'clean', 'test'])

function wordsInCommon(name: string, text: string): string[] {
  const said = new Set(foldText(text).split(' '))
  return [...new Set(foldText(name).split(' '))].filter((word) => word.length > 2 && !COMMON.has(word) && said.has(word))
}

/** "Took 1 h 50 min at the median, 2 h 30 min in nine of ten." */
function tookSays(minutes: number[]): string[] {
  if (minutes.length < LEAST_KNOWN) return []
  return [`Took ${spell(quantile(minutes, 0.5))} at the median, up to ${spell(quantile(minutes, 0.9))} in nine of ten`]
}

/**
 * The value below which a share of the values lies, between two of them in proportion (type 7 of Hyndman and Fan,
 * "Sample Quantiles in Statistical Packages", 1996; what spreadsheets compute).
 * @param values at least one @param at from 0 to 1
 */
export function quantile(values: readonly number[], at: number): number {
  const sorted = [...values].sort((a, b) => a - b)
  const position = (sorted.length - 1) * at
  const below = Math.floor(position)
  const next = sorted[Math.min(below + 1, sorted.length - 1)]!
  return sorted[below]! + (position - below) * (next - sorted[below]!)
}
