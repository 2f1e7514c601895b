import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
export * from './unable'

/** What an approver decides on from a mail: the whole of it, and nothing of other orders. */
export interface ApprovalPage {
  /** Whose link this is, and for whom they decide when their own limit is not enough. */
  person: string
  actingFor: string | null
  site: { name: string; deskPhone: string }
  number: string
  version: number
  summary: string
  description: string
  place: string | null
  priority: string
  prioritySentence: string | null
  currency: string
  estimateMinor: number
  shares: { code: string; name: string; shareBp: number }[]
  askedBy: string | null
  askedAt: Instant
  expiresAt: Instant
  pictures: { id: number; name: string }[]
  /** Why it cannot be decided here any more, or null while it can. */
  over: string | null
}

const byToken = { token: field.token().required() }

export const readApproval = endpoint<{ token: string }, ApprovalPage>({
  method: 'GET',
  path: '/api/approval/:token',
  says: 'What an approver is asked, by the link mailed to them. Opening it decides nothing.',
  may: 'approver',
  input: Joi.object<{ token: string }, true>(byToken),
})

export type LinkVerdict = 'approve' | 'send_back' | 'ask'

export const decideApprovalByLink = endpoint<{ token: string; version: number; verdict: LinkVerdict; note?: string }, ApprovalPage>({
  method: 'POST',
  path: '/api/approval/:token/decide',
  says: 'Approve, send back, or ask the desk something. A decision uses the link up; a question does not.',
  may: 'approver',
  input: Joi.object<{ token: string; version: number; verdict: LinkVerdict; note?: string }, true>({
    ...byToken,
    version: field.version().required(),
    verdict: field.oneOf(['approve', 'send_back', 'ask']).required(),
    note: field.words(2000).allow(''),
  }),
})

export const readApprovalPicture = endpoint<{ token: string; id: number }, Blob>({
  method: 'GET',
  path: '/api/approval/:token/pictures/:id',
  says: 'A picture of the order that is to be approved.',
  may: 'approver',
  answers: 'file',
  input: Joi.object<{ token: string; id: number }, true>({ ...byToken, id: field.id().required() }),
})
