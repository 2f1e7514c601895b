import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import { TRANSFER_KINDS } from '#core/assets'
import type { TransferKind, TransferMove, TransferState } from '#core/assets'

export interface TransferRow {
  id: number
  version: number
  asset: { id: number; tag: string; name: string }
  kind: TransferKind
  state: TransferState
  from: { siteId: number; site: string; place: string }
  /** Without a place while nobody has said it. */
  to: { siteId: number; site: string; place: string | null }
  reason: string
  returnBy: string | null
  askedBy: string
  askedAt: Instant
  decidedBy: string | null
  decidedAt: Instant | null
  note: string | null
  returnedAt: Instant | null
  /** What who asks may do with it now. */
  may: TransferMove[]
}

export interface TransferSheet {
  rows: TransferRow[]
  /** Where assets can go: every site there is. */
  sites: { id: number; name: string }[]
}

export const listTransfers = endpoint<{ assetId?: number }, TransferSheet>({
  method: 'GET',
  path: '/api/transfers',
  says: 'Assets going from or to your sites, or the transfers of one asset; the newest first.',
  may: 'desk.read',
  input: Joi.object<{ assetId?: number }, true>({ assetId: field.id() }),
})

export interface AskTransfer {
  assetId: number
  kind: TransferKind
  toSiteId: number
  toPlaceId?: number
  reason: string
  returnBy?: string
}

export const askTransfer = endpoint<AskTransfer, TransferRow>({
  method: 'POST',
  path: '/api/transfers',
  says: 'Ask for an asset to go to another place or site, for good or on loan until a day.',
  may: 'registers.edit',
  input: Joi.object<AskTransfer, true>({
    assetId: field.id().required(),
    kind: field.oneOf(TRANSFER_KINDS).required(),
    toSiteId: field.id().required(),
    toPlaceId: field.id(),
    reason: field.words(2000).min(1).required(),
    returnBy: field.day(),
  }),
})

interface OfTransfer {
  id: number
  version: number
}
const ofTransfer = { id: field.id().required(), version: field.version().required() }

export const agreeTransfer = endpoint<OfTransfer & { placeId?: number }, TransferRow>({
  method: 'POST',
  path: '/api/transfers/:id/agree',
  says: 'Agree that an asset comes here: it stands there at once, with its parts and the open work on it.',
  may: 'registers.edit',
  input: Joi.object<OfTransfer & { placeId?: number }, true>({ ...ofTransfer, placeId: field.id() }),
})

export const refuseTransfer = endpoint<OfTransfer & { reason: string }, TransferRow>({
  method: 'POST',
  path: '/api/transfers/:id/refuse',
  says: 'Refuse that an asset comes here.',
  may: 'registers.edit',
  input: Joi.object<OfTransfer & { reason: string }, true>({ ...ofTransfer, reason: field.words(2000).min(1).required() }),
})

export const withdrawTransfer = endpoint<OfTransfer, TransferRow>({
  method: 'POST',
  path: '/api/transfers/:id/withdraw',
  says: 'Withdraw what you asked for, while nobody has agreed.',
  may: 'registers.edit',
  input: Joi.object<OfTransfer, true>(ofTransfer),
})

export const giveBackAsset = endpoint<OfTransfer, TransferRow>({
  method: 'POST',
  path: '/api/transfers/:id/give-back',
  says: 'Record that an asset on loan is back where it came from.',
  may: 'registers.edit',
  input: Joi.object<OfTransfer, true>(ofTransfer),
})
