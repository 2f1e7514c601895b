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

export const readConversation = endpoint<{ id: number }, Conversation>({
  method: 'GET',
  path: '/api/requests/:id/conversation',
  says: 'What was said about a request, and who a message would reach.',
  may: 'desk.read',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const writeComment = endpoint<{ id: number; kind: CommentKind; text: string }, Conversation>({
  method: 'POST',
  path: '/api/requests/:id/comments',
  says: 'Write a note for the desk, or a message to the reporter.',
  may: 'requests.triage',
  input: Joi.object<{ id: number; kind: CommentKind; text: string }, true>({
    id: field.id().required(),
    kind: field.oneOf(['note', 'message']).required(),
    text: field.words(4000).min(1).required(),
  }),
})

/** A mail that made no request: why, and what the desk can do with it. */
export interface KeptMail {
  id: number
  sender: string
  subject: string | null
  receivedAt: Instant
  state: 'ignored' | 'refused'
  reason: string | null
  /** Its length as it came; null for mail of before it was counted. */
  bytes: number | null
}

/** All of a mail that came in. */
export interface WholeMail {
  id: number
  sender: string
  subject: string | null
  receivedAt: Instant
  state: 'waiting' | 'request' | 'joined' | 'ignored' | 'refused' | 'dismissed'
  reason: string | null
  /** What of it did not fit where it went. */
  leftOut: string | null
  requestId: number | null
  text: string
  bytes: number
  files: { index: number; name: string; bytes: number }[]
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
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const dismissMail = endpoint<{ id: number; reason: string }, { rows: KeptMail[] }>({
  method: 'POST',
  path: '/api/kept-mail/:id/dismiss',
  says: 'Say that nothing is to be made of a mail, and why. It is kept.',
  may: 'requests.triage',
  input: Joi.object<{ id: number; reason: string }, true>({ id: field.id().required(), reason: field.line(300).required() }),
})

export const readKeptMail = endpoint<{ id: number }, WholeMail>({
  method: 'GET',
  path: '/api/kept-mail/:id',
  says: 'All of a mail that came in: its text, and the names of its files.',
  may: 'requests.triage',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})

export const readKeptMailFile = endpoint<{ id: number; index: number }, Blob>({
  method: 'GET',
  path: '/api/kept-mail/:id/files/:index',
  says: 'One file of a mail, as it came.',
  may: 'requests.triage',
  answers: 'file',
  input: Joi.object<{ id: number; index: number }, true>({ id: field.id().required(), index: Joi.number().integer().min(0).max(10_000).required() }),
})

export const readRawMail = endpoint<{ id: number }, Blob>({
  method: 'GET',
  path: '/api/kept-mail/:id/raw',
  says: 'A mail exactly as it came.',
  may: 'requests.triage',
  answers: 'file',
  input: Joi.object<{ id: number }, true>({ id: field.id().required() }),
})
