import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { READINESS } from '#core/readiness'
import type { Readiness, ReadinessCounts } from '#core/readiness'

export interface ReadyBuilding {
  id: number
  siteId: number
  code: string
  name: string
  counts: ReadinessCounts
}
export const listReadiness = endpoint<object, { rows: ReadyBuilding[] }>({
  method: 'GET',
  path: '/api/readiness',
  says: 'How the spaces of each building stand: ready, to be cleaned, out of use, or nobody said.',
  may: 'spaces.say',
})

export interface ReadySpace {
  id: number
  code: string
  name: string
  state: Readiness | null
  /** Counts on with everything that is said of it; 0 while nothing was. */
  version: number
  note: string | null
  at: Instant | null
  by: string | null
  /** The order whose work left it so. */
  orderNumber: string | null
  openOrders: number
  /** Taken out of use now or within a week, for which order and why. */
  closed: { from: Instant; until: Instant; reason: string; orderNumber: string; now: boolean } | null
}
export interface ReadinessBoard {
  building: { id: number; code: string; name: string }
  floors: { id: number; code: string; name: string; spaces: ReadySpace[] }[]
}
export const readReadiness = endpoint<{ id: number }, ReadinessBoard>({
  method: 'GET',
  path: '/api/readiness/:id',
  says: 'Every space of a building, floor by floor, with who said how it stands and when.',
  may: 'spaces.say',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

interface Said {
  id: number
  version: number
  state: Readiness
  note?: string
}
export const sayReadiness = endpoint<Said, ReadySpace>({
  method: 'POST',
  path: '/api/places/:id/readiness',
  says: 'Say how a space stands.',
  may: 'spaces.say',
  input: Joi.object<Said, true>({
    id: field.id().required(),
    version: Joi.number().integer().min(0).required(),
    state: field.oneOf(READINESS).required(),
    note: field.line(200).allow(''),
  }),
})
