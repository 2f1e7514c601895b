import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

/** Somebody is away, and somebody decides for them. */
export interface AwayRow {
  id: number
  accountId: number
  name: string
  deputyId: number
  deputy: string
  fromAt: Instant
  untilAt: Instant
  now: boolean
}

export const listAway = endpoint<object, { rows: AwayRow[] }>({
  method: 'GET',
  path: '/api/away',
  says: 'Who is away now or soon, and who decides for them.',
  may: 'desk.read',
})

export const saveAway = endpoint<{ accountId?: number; deputyId: number; fromAt: Instant; untilAt: Instant }, { rows: AwayRow[] }>({
  method: 'POST',
  path: '/api/away',
  says: 'Be away for a period and name who decides meanwhile. An administrator can say it for others.',
  may: 'desk.read',
  input: Joi.object<{ accountId?: number; deputyId: number; fromAt: Instant; untilAt: Instant }, true>({
    accountId: field.id(),
    deputyId: field.id().required(),
    fromAt: field.instant().required(),
    untilAt: field.instantAfter('fromAt', 'It ends after it begins.').required(),
  }),
})

export const endAway = endpoint<{ id: number }, { rows: AwayRow[] }>({
  method: 'DELETE',
  path: '/api/away/:id',
  says: 'Be back: the deputy decides no longer.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
