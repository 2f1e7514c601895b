import type * as contract from '#contract/lists'
import type { SearchFound } from '#contract/lists'
import type { InputOf } from '#contract/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'

/** What the search is asked for. */
export type Ask = InputOf<typeof contract.search>
export interface Looking {
  db: Reader
  who: Asker
  ask: Ask
  words: string[]
  before: number | undefined
  limit: number
}
/** With what the next page goes on from: for conversations that is not the id of what they open. */
export type Found = Outgoing<SearchFound> & { key: number }
export interface Looked {
  rows: Found[]
  partial: boolean
}
