import { eq } from 'drizzle-orm'
import type { Db, Service } from '#server/kit'
import { assets, categories } from '../tables'
import { askPrecedents } from './askPrecedents'
import type { PrecedentAnswer } from './precedents.worker'

const LOOK_MS = 100
const MOST_LOOKS = 12

interface Told {
  summary: string
  description: string
  category: string | null
  assetId: number | null
  placePath: number[]
  receivedAt: Date
}

/**
 * What kind of trouble a request is about, for strangers, before the desk has read it: its category; what
 * history says such words are about; or the thing it was reported on. Never a word of its reporter's own.
 */
export async function kindOfTrouble(db: Db, service: Service, told: Told): Promise<string> {
  if (told.category) return told.category
  const asked = { text: told.summary, more: told.description, placePath: told.placePath, assetId: told.assetId, at: told.receivedAt.getTime() }
  const answer = await soonReady(() => askPrecedents(service, asked)).catch(() => null)
  const guess = answer?.ready ? answer.guesses?.category : null
  const [category] = guess ? await db.select({ name: categories.name }).from(categories).where(eq(categories.id, guess.id)) : []
  if (category) return `${category.name}, it seems`
  const [asset] = told.assetId ? await db.select({ name: assets.name }).from(assets).where(eq(assets.id, told.assetId)) : []
  return asset ? `Something about: ${asset.name}` : 'A trouble the desk has not sorted yet'
}

/** A server that has just started reads history for a moment; a page can wait that long, and no longer. */
async function soonReady(ask: () => Promise<PrecedentAnswer>): Promise<PrecedentAnswer> {
  for (let tries = 0; ; tries++) {
    const answer = await ask()
    if (answer.ready || tries === MOST_LOOKS) return answer
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS))
  }
}
