import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

/** Something that happened of which nobody could be told: it was tried, and set aside. */
export interface UntoldEvent {
  id: number
  at: Instant
  kind: string
  actorName: string
  number: string | null
  error: string
  attempts: number
}

export const listUntold = endpoint<object, { rows: UntoldEvent[] }>({
  method: 'GET',
  path: '/api/setup/untold',
  says: 'Events whose mails and notices could not be written, set aside after some tries.',
  may: 'setup.edit',
})

export const tellAgain = endpoint<{ id: number }, { rows: UntoldEvent[] }>({
  method: 'POST',
  path: '/api/setup/untold/:id',
  says: 'Try once more to tell of an event that was set aside.',
  may: 'setup.edit',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
