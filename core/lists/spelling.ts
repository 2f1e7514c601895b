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
    const near = this.index.search(word, { fuzzy: 0.25 })
    // Two letters changed places count as two changes: such a word is looked for further off.
    const letters = (text: string) => [...text].sort().join('')
    const turned = this.index.search(word, { fuzzy: 0.45 }).filter((row) => letters(String(row.id)) === letters(word))
    const rank = (one: { id: unknown; score: number }) => one.score + Math.log1p(this.uses.get(String(one.id))!) / 10
    const [best] = (turned.length ? turned : near).sort((a, b) => rank(b) - rank(a))
    return best ? String(best.id) : word
  }

  /** Whether a word that was written begins like this. */
  private begins(start: string): boolean {
    return this.uses.has(start) || this.index.search(start, { prefix: true, fuzzy: false }).length > 0
  }
}
