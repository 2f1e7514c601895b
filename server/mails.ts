import type { WritingKind } from '#core/events'
import { approvalMails } from '#server/approvals'
import { assetMails } from '#server/assets'
import { bookingMails } from '#server/bookings'
import { closureMails } from '#server/closures'
import { dispatchMails } from '#server/dispatch'
import { documentMails } from '#server/documents'
import { fieldMails } from '#server/field'
import { findingMails } from '#server/findings'
import { talkMails } from '#server/talk'
import type { Mails } from '#server/kit'
import { methodMails } from '#server/methods'
import { orderMails } from '#server/orders'
import { quoteMails } from '#server/quotes'
import { requestMails } from '#server/requests'
import { shiftMails } from '#server/shifts'
import { stockMails } from '#server/stock'
import { vendorMails } from '#server/vendors'
import { windowMails } from '#server/windows'

const BY_ROOM = {
  requestMails,
  approvalMails,
  dispatchMails,
  orderMails,
  fieldMails,
  findingMails,
  talkMails,
  assetMails,
  documentMails,
  methodMails,
  stockMails,
  shiftMails,
  bookingMails,
  vendorMails,
  quoteMails,
  windowMails,
  closureMails,
}
type Written = { [Room in keyof typeof BY_ROOM]: keyof (typeof BY_ROOM)[Room] }[keyof typeof BY_ROOM]

/** Does not compile while a kind that says it is written of has nobody who writes, or the other way round. */
const COMPLETE: { missing: Exclude<WritingKind, Written>; unasked: Exclude<Written, WritingKind> } extends { missing: never; unasked: never } ? true : never =
  true

/** What every room writes, in the order in which it is written. */
export const MAILS: readonly Mails[] = COMPLETE ? Object.values(BY_ROOM) : []
