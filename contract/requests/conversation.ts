import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'

export type CommentKind = 'note' | 'message'

export interface CommentRow {
  id: number
  /** A note stays at the desk; a message goes to the reporter, or came from them. */
  kind: CommentKind
  fromReporter: boolean
  author: string
  text: string
  quoted: string | null
  at: Instant
  files: { id: number; name: string; kind: 'picture' | 'document' }[]
}

export interface Conversation {
  rows: CommentRow[]
  /** Who a message reaches, by mail; empty when nobody left an address. */
  reaches: string[]
}

export const writeComment = endpoint<{ id: number; kind: CommentKind; text: string }, Conversation>({
  method: 'POST',
  path: '/api/requests/:id/comments',
  says: 'Write a note for the desk, or a message to the reporter.',
  may: 'requests.triage',
  input: Joi.object({ id: field.id().required(), kind: Joi.valid('note', 'message').required(), text: field.words(4000).min(1).required() }),
})

/** A mail that made no request: why, and what the desk can do with it. */
export interface KeptMail {
  id: number
  sender: string
  subject: string | null
  receivedAt: Instant
  state: 'ignored' | 'refused'
  reason: string | null
}

export const listKeptMail = endpoint<object, { rows: KeptMail[] }>({
  method: 'GET',
  path: '/api/kept-mail',
  says: 'Mail that made no request, newest first, with the reason.',
  may: 'requests.triage',
})

export const takeKeptMail = endpoint<{ id: number }, { requestId: number; number: string }>({
  method: 'POST',
  path: '/api/kept-mail/:id/take',
  says: 'Make a request of a mail that was left alone.',
  may: 'requests.triage',
  input: Joi.object({ id: field.id().required() }),
})
