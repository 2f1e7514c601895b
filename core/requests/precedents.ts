import MiniSearch from 'minisearch'
import { foldText } from '#core/kit'
import { stem, tellingWords } from './twins'

/** Something decided before: what was written, where, and what was made of it. */
export interface Decided {
  id: number
  text: string
  /** Ids of places from the root to where it was. */
  placePath: readonly number[]
  assetId: number | null
  categoryId: number | null
  tradeId: number | null
  /** Milliseconds since 1970. */
  at: number
}

export interface Asked extends Pick<Decided, 'placePath' | 'assetId' | 'at'> {
  /** The one line that says what is wrong. */
  text: string
  /** What was written besides: it counts, but less. */
  more?: string
}

export interface Alike {
  id: number
  /** 0 to 1; 1 is the same words about the same thing in the same place today. */
  score: number
}

/** What would be chosen, how sure that is, and because of what. */
export interface Guess {
  id: number
  /** Share of the likeness that speaks for it, 0 to 1. */
  share: number
  sure: 'almost certain' | 'likely' | 'a guess'
  /** The words that spoke for it most; empty when the place or the asset did. */
  words: string[]
}

export interface Guesses {
  category: Guess | null
  trade: Guess | null
  asset: Guess | null
}

/** What each kind of likeness weighs in the whole (our own choice, measured by the bench on held-out history). */
const WEIGHT = { text: 0.6, place: 0.2, asset: 0.15, time: 0.05 }
const HALF_LIFE_MS = 180 * 86_400_000
/** Words looked up: the rarest say most, and a common one would bring half of history along. */
const MOST_WORDS = 5
/** Texts with all of the very rarest are looked for first. */
const FIRST_WORDS = 3
const POOL = 150
const ON_A_SHELF = 10_000
const NEIGHBOURS = 25
const LEAST_SHARE = 0.4
/** What is written besides the one line counts this much. */
const MORE_COUNTS = 0.35
/** Less of what was written than this is in common: then it is about something else. */
const LEAST_COVER = 0.25

/**
 * Decided requests by likeness of text (BM25 of the search library minisearch), place (distance in
 * the tree), asset and time. Made to live in a thread of its own.
 */
export class Precedents {
  private readonly rows = new Map<number, Decided>()
  private readonly spread = new Map<string, number>()
  /** An index for every so many ids: the newest are asked first, older ones only when those know too little. */
  private readonly shelves = new Map<number, MiniSearch<{ id: number; text: string }>>()

  get size(): number {
    return this.rows.size
  }

  /** Adds it, or puts it in place of what was known under its id. */
  put(row: Decided): void {
    const before = this.rows.get(row.id)
    if (before) {
      this.shelfOf(row.id).replace({ id: row.id, text: row.text })
      this.count(before.text, -1)
    } else this.shelfOf(row.id).add({ id: row.id, text: row.text })
    this.rows.set(row.id, row)
    this.count(row.text, 1)
  }

  drop(id: number): void {
    const row = this.rows.get(id)
    if (!row) return
    this.shelfOf(id).discard(id)
    this.count(row.text, -1)
    this.rows.delete(id)
  }

  /** Those most alike, the most alike first, at most `limit`. */
  alike(asked: Asked, limit: number): Alike[] {
    const weights = this.weightsOf(asked)
    const words = this.rarest(weights)
    return this.candidates(words)
      .map((id) => this.rows.get(id)!)
      .map((row) => ({ row, cover: coverOf(weights, row.text) }))
      .filter(({ cover }) => cover >= LEAST_COVER)
      .map(({ row, cover }) => ({ id: row.id, score: this.whole(asked, row, cover) }))
      .sort((a, b) => b.score - a.score || b.id - a.id)
      .slice(0, limit)
  }

  /** What those most alike were decided to be. Nothing is guessed when they do not agree. `alike`: when it is known already. */
  guess(asked: Asked, alike = this.alike(asked, NEIGHBOURS)): Guesses {
    const near = alike.slice(0, NEIGHBOURS).map(({ id, score }) => ({ row: this.rows.get(id)!, score }))
    const weights = this.weightsOf(asked)
    const words = this.rarest(weights)
    const pick = (of: (row: Decided) => number | null): Guess | null => {
      const votes = new Map<number, number>()
      let all = 0
      for (const { row, score } of near) {
        const choice = of(row)
        if (choice === null) continue
        // Closeness counts more than numbers: a distant crowd does not outvote the same thing next door.
        const vote = score ** 2
        votes.set(choice, (votes.get(choice) ?? 0) + vote)
        all += vote
      }
      const [first] = [...votes].sort((a, b) => b[1] - a[1])
      if (!first || first[1] / all < LEAST_SHARE) return null
      const share = first[1] / all
      const speaking = near.filter(({ row }) => of(row) === first[0])
      const texts = speaking.map(({ row }) => new Set(tellingWords(row.text)))
      const cover = Math.max(...speaking.map(({ row }) => coverOf(weights, row.text)))
      return {
        id: first[0],
        share,
        sure: share >= 0.85 && cover >= 0.5 && near.length >= 3 ? 'almost certain' : share >= 0.6 && cover >= 0.35 ? 'likely' : 'a guess',
        words: words
          .filter((word) => texts.some((text) => text.has(word)))
          .slice(0, 3)
          .map((word) => asWritten(word, `${asked.text} ${asked.more ?? ''}`)),
      }
    }
    return {
      category: pick((row) => row.categoryId),
      trade: pick((row) => row.tradeId),
      asset: asked.assetId ? null : pick((row) => this.assetNear(asked, row)),
    }
  }

  /** An asset is only suggested where the asked place is: the same pump elsewhere is another pump. */
  private assetNear(asked: Asked, row: Decided): number | null {
    const [here, there] = [asked.placePath.at(-1), row.placePath.at(-1)]
    return here !== undefined && here === there ? row.assetId : null
  }

  private whole(asked: Asked, row: Decided, text: number): number {
    const place = nearness(asked.placePath, row.placePath)
    const asset = asked.assetId !== null && asked.assetId === row.assetId ? 1 : 0
    const time = 0.5 ** (Math.abs(asked.at - row.at) / HALF_LIFE_MS)
    return WEIGHT.text * text + WEIGHT.place * place + WEIGHT.asset * asset + WEIGHT.time * time
  }

  /** How much each word says: rare ones more (inverse document frequency), those of the one line more. */
  private weightsOf({ text, more }: Asked): Map<string, number> {
    const weights = new Map<string, number>()
    const says = (word: string) => Math.log(1 + (this.rows.size + 1) / ((this.spread.get(word) ?? 0) + 0.5))
    for (const word of tellingWords(text)) weights.set(word, says(word))
    // Of the rest, words that nobody has used before say nothing for or against.
    for (const word of tellingWords(more ?? '')) if (!weights.has(word) && this.spread.has(word)) weights.set(word, MORE_COUNTS * says(word))
    return weights
  }

  /** Ids of texts with the rarest words, the library's best first. */
  private candidates(words: string[]): number[] {
    if (!words.length) return []
    const found: number[] = []
    for (const key of [...this.shelves.keys()].sort((a, b) => b - a)) {
      const shelf = this.shelves.get(key)!
      const search = (some: string[], combineWith: 'AND' | 'OR') => shelf.search(some.join(' '), { prefix: false, combineWith }).slice(0, POOL)
      const all = search(words.slice(0, FIRST_WORDS), 'AND')
      found.push(...(all.length >= NEIGHBOURS ? all : search(words, 'OR')).map(({ id }) => id as number))
      if (found.length >= POOL) break
    }
    return found
  }

  private shelfOf(id: number): MiniSearch<{ id: number; text: string }> {
    const key = Math.floor(id / ON_A_SHELF)
    let shelf = this.shelves.get(key)
    if (!shelf) {
      shelf = new MiniSearch({ fields: ['text'], tokenize: (text) => foldText(text).split(' '), processTerm: (term) => stem(term) || null })
      this.shelves.set(key, shelf)
    }
    return shelf
  }

  private rarest(weights: Map<string, number>): string[] {
    return [...weights]
      .filter(([word]) => this.spread.has(word))
      .sort((a, b) => b[1] - a[1])
      .slice(0, MOST_WORDS)
      .map(([word]) => word)
  }

  private count(text: string, by: 1 | -1): void {
    for (const word of new Set(tellingWords(text))) {
      const times = (this.spread.get(word) ?? 0) + by
      if (times > 0) this.spread.set(word, times)
      else this.spread.delete(word)
    }
  }
}

/** The share of what was written, by what each word says, that another text has too: 0 to 1. */
function coverOf(weights: Map<string, number>, text: string): number {
  const words = new Set(tellingWords(text))
  let [common, all] = [0, 0]
  for (const [word, weight] of weights) {
    all += weight
    if (words.has(word)) common += weight
  }
  return all ? common / all : 0
}

/** A word as it stands in the text, rather than by its stem. */
const asWritten = (word: string, text: string) =>
  foldText(text)
    .split(' ')
    .find((one) => stem(one) === word) ?? word

/** How near two places are in the tree: the share of the way down that they go together, 0 to 1. */
export function nearness(a: readonly number[], b: readonly number[]): number {
  const deepest = Math.max(a.length, b.length)
  if (!deepest) return 0
  let together = 0
  while (together < Math.min(a.length, b.length) && a[together] === b[together]) together++
  return together / deepest
}
