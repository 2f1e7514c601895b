import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

/** What could be chosen, how sure that is, and because of what. Nothing is chosen by itself. */
export interface Suggestion {
  id: number
  name: string
  sure: 'almost certain' | 'likely' | 'a guess'
  /** "because of “drips” and “tap”" */
  because: string
}

/** How such a thing was solved before. */
export interface Precedent {
  id: number
  number: string
  summary: string
  place: string | null
  finishedAt: Instant
  who: string | null
  minutes: number
  costMinor: number
  outcome: string
}

export interface Duplicate {
  id: number
  number: string
  summary: string
  place: string | null
  receivedAt: Instant
}

export interface Suggestions {
  /** False while history is still being read, right after a start. */
  ready: boolean
  category: Suggestion | null
  trade: Suggestion | null
  asset: Suggestion | null
  precedents: Precedent[]
  duplicates: Duplicate[]
}

export const readSuggestions = endpoint<{ id: number }, Suggestions>({
  method: 'GET',
  path: '/api/requests/:id/suggestions',
  says: 'What this request most likely is, from what was decided before, with the reasons; open ones like it; how such things were solved.',
  may: 'requests.triage',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
