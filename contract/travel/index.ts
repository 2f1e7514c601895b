import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

/** How long a way takes, as somebody said or as stints have shown. */
export interface WayRow {
  toId: number
  to: string
  /** There, and back; null where it is not known by itself. */
  minutes: number
  back: number | null
  source: 'hand' | 'stints'
  seen: number | null
  by: string | null
  at: Instant
}
export interface PlaceWays {
  rows: WayRow[]
  whyNot: string | null
}

const ofPlace = { placeId: field.id().required() }
const path = '/api/places/:placeId/ways'
export const readPlaceWays = endpoint<{ placeId: number }, PlaceWays>({
  method: 'GET',
  path,
  says: 'How long the ways from a place take, as somebody said or as logged travel has shown; others are reckoned.',
  may: 'desk.read',
  input: Joi.object<{ placeId: number }, true>(ofPlace),
})
interface Said {
  placeId: number
  toId: number
  minutes: number
  /** The other way as well. */
  both?: boolean
}
export const sayWay = endpoint<Said, PlaceWays>({
  method: 'POST',
  path,
  says: 'Say how long a way takes; it holds for what lies within both places, too.',
  may: 'registers.edit',
  input: Joi.object<Said, true>({
    ...ofPlace,
    toId: field.id().required(),
    minutes: Joi.number().integer().min(0).max(600).required(),
    both: Joi.boolean(),
  }),
})
export const dropWay = endpoint<{ placeId: number; toId: number }, PlaceWays>({
  method: 'DELETE',
  path: `${path}/:toId`,
  says: 'Nothing is said of a way any more: it is reckoned, or taken from logged travel.',
  may: 'registers.edit',
  input: Joi.object<{ placeId: number; toId: number }, true>({ ...ofPlace, toId: field.id().required() }),
})
