import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { AssetFields } from '#core/assets'
import { LABEL_SIZES } from '#core/places'
import type { LabelSize } from '#core/places'

export interface PlaceRow {
  id: number
  kind: string
  code: string
  name: string
  within: string
  payerId: number | null
}

export const findPlaces = endpoint<{ q?: string; limit?: number }, { rows: PlaceRow[] }>({
  method: 'GET',
  path: '/api/places',
  says: 'Find places by part of code or name.',
  may: 'desk.read',
  input: Joi.object<{ q?: string; limit?: number }, true>({ q: field.search(), limit: field.limit() }),
})

export interface AssetRow {
  id: number
  tag: string
  name: string
  classCode: string | null
  placeId: number
  placeCode: string
  placeName: string
  warrantyUntil: string | null
}

export const findAssets = endpoint<{ q?: string; placeId?: number; limit?: number }, { rows: AssetRow[] }>({
  method: 'GET',
  path: '/api/assets',
  says: 'Find assets by part of tag or name, or at a place.',
  may: 'desk.read',
  input: Joi.object<{ q?: string; placeId?: number; limit?: number }, true>({ q: field.search(), placeId: field.id(), limit: field.limit() }),
})

/** What stands beside a request or order while deciding. */
export interface Context {
  place: { id: number; code: string; name: string; within: string; access: string | null; openOrders: number; openRequests: number } | null
  asset: {
    id: number
    tag: string
    name: string
    maker: string | null
    model: string | null
    installedOn: string | null
    warrantyFrom: string | null
    warrantyUntil: string | null
    warrantyCovers: AssetFields['warrantyCovers']
    warrantyTerms: string | null
    underWarranty: boolean
    repairs90Days: number
  } | null
  reporter: {
    name: string
    email: string | null
    phone: string | null
    title: string | null
    earlier: { id: number; number: string; summary: string; state: string; receivedAt: Instant }[]
  } | null
  /** Open at this place, or on this asset: could be the same thing. */
  open: { type: 'request' | 'order'; id: number; number: string; summary: string; state: string; at: Instant }[]
  history: { id: number; number: string; summary: string; finishedAt: Instant | null; cause: string | null; fix: string | null; costMinor: number }[]
}

export const readContext = endpoint<{ placeId?: number; assetId?: number; requestId?: number; orderId?: number }, Context>({
  method: 'GET',
  path: '/api/context',
  says: 'What is known around a request or an order.',
  may: 'desk.read',
  input: Joi.object<{ placeId?: number; assetId?: number; requestId?: number; orderId?: number }, true>({
    placeId: field.id(),
    assetId: field.id(),
    requestId: field.id(),
    orderId: field.id(),
  }),
})

/** What an asset says of the work on it. */
export interface AssetSays {
  id: number
  label: string
  place: { id: number; label: string }
  payer: { id: number; label: string } | null
  vendor: { id: number; label: string } | null
  contact: { name: string; phone: string | null } | null
  underWarrantyUntil: string | null
}

export const readAssetSays = endpoint<{ id: number }, AssetSays>({
  method: 'GET',
  path: '/api/assets/:id/says',
  says: 'Place, payer, vendor and contact of an asset: what choosing it fills in.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

/** Of what labels are printed. */
export const LABELLED = ['places', 'assets', 'parts', 'equipment'] as const
export type Labelled = (typeof LABELLED)[number]
interface Labels {
  kind: Labelled
  ids: string
  size: LabelSize
}
export const printLabels = endpoint<Labels, Blob>({
  method: 'GET',
  path: '/api/labels/:kind',
  says: 'A4 sheets of labels as PDF. Codes of places and assets open the Counter with both filled in; those of parts and equipment are for who takes them.',
  may: 'desk.read',
  answers: 'pdf',
  input: Joi.object<Labels, true>({
    kind: field.oneOf(LABELLED).required(),
    /** At most 500 ids with commas between. */
    ids: Joi.string()
      .pattern(/^\d{1,9}(,\d{1,9}){0,499}$/)
      .required(),
    size: field.oneOf(LABEL_SIZES).required(),
  }),
})

export * from './record'
