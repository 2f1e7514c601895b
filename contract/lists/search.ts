import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { ListKind } from '#core/lists'
import type { Station } from '#core/orders'
import { PRIORITIES } from '#core/requests'
import type { Priority } from '#core/requests'

export const SEARCH_TYPES = ['order', 'request', 'conversation', 'place', 'asset', 'person', 'document'] as const
export type SearchType = (typeof SEARCH_TYPES)[number]

export interface SearchFound {
  type: SearchType
  /** Of the record it opens: a conversation opens its request, a document what it is of. */
  id: number
  /** Of a document: what it is of. */
  on?: ListKind
  title: string
  subtitle: string
  /** Where the words were found, for conversations and documents. */
  snippet: string | null
  state: string | null
  station: Station | null
  at: Instant | null
}

export interface SearchAnswer {
  rows: SearchFound[]
  /** What was looked for instead, when nothing was written like that. */
  instead: string | null
  /** The words are so common that only the newest were looked through. */
  partial: boolean
  next: string | null
}

export const search = endpoint<
  { q: string; type?: SearchType; open?: boolean; priority?: Priority; placeId?: number; from?: Date; after?: string; limit?: number },
  SearchAnswer
>({
  method: 'GET',
  path: '/api/search',
  says: 'Full-text search over orders, requests, conversations, places, assets, people and the words inside documents; numbers and outside references first, typing errors forgiven.',
  may: 'desk.read',
  input: Joi.object<{ q: string; type?: SearchType; open?: boolean; priority?: Priority; placeId?: number; from?: Date; after?: string; limit?: number }, true>(
    {
      q: field.search().required(),
      type: field.oneOf(SEARCH_TYPES),
      open: Joi.boolean(),
      priority: field.oneOf(PRIORITIES),
      placeId: field.id(),
      from: field.instant(),
      after: Joi.string().max(200),
      limit: field.limit(),
    },
  ),
})
