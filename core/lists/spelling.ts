import MiniSearch from 'minisearch'
import { foldText } from '#core/kit'

/** Words shorter than this are too like too many others to be put right. */
const SHORTEST = 4
const LONGEST = 30

/**
 * The words people wrote, to put a mistyped one right. Likeness of words is the search library's
 * (minisearch: edit distance up to a quarter of the length); of those equally like, the most used.
 */
export class Spelling {
  private readonly uses = new Map<string, number>()
  private readonly index = new MiniSearch<{ id: string; word: string }>({ fields: ['word'], processTerm: (term) => term })

  get size(): number {
    return this.uses.size
  }

  learn(text: string): void {
    for (const word of foldText(text).split(' ')) {
      if (word.length < SHORTEST || word.length > LONGEST || /\d/.test(word)) continue
      const before = this.uses.get(word) ?? 0
      this.uses.set(word, before + 1)
      if (!before) this.index.add({ id: word, word })
    }
  }

  /** The word meant, when this one was never written but one like it was; otherwise the word itself. */
  mend(word: string): string {
    if (word.length < SHORTEST || /\d/.test(word) || this.begins(word)) return word
    const found = this.index.search(word, { fuzzy: 0.25, prefix: false }).slice(0, 20)
    // Two letters changed places counts as two changes; a word with the same letters is like it all the same.
    const letters = (text: string) => [...text].sort().join('')
    const rank = (one: { id: string; score: number }) => (letters(one.id) === letters(word) ? 1_000 : 0) + one.score + Math.log1p(this.uses.get(one.id)!) / 10
    const best = found.map((row) => ({ id: row.id as string, score: row.score })).sort((a, b) => rank(b) - rank(a))[0]
    return best?.id ?? word
  }

  /** Whether a word that was written begins like this. */
  private begins(start: string): boolean {
    return this.uses.has(start) || this.index.search(start, { prefix: true, fuzzy: false }).length > 0
  }
}
