import Joi from 'joi'
import { endpoint, field } from '#contract/kit'
import type { Instant } from '#contract/kit'
import type { Progress } from '#core/requests'
import { fileClaims } from './counter'
import type { KeptFile, SiteContact } from './counter'

export interface SharedFile {
  id: number
  kind: 'picture' | 'document'
  name: string
  width: number | null
  height: number | null
}

/** What a reporter sees through the private link: nothing internal. Who follows sees how it goes, not what was sent. */
export interface TrackedRequest {
  number: string
  site: SiteContact
  following: boolean
  /** Who follows has yet to say that the address is theirs. */
  toConfirm: boolean
  summary: string
  description: string | null
  place: string | null
  receivedAt: Instant
  progress: Progress
  steps: { at: Instant; sentence: string }[]
  answers: { label: string; answer: string }[]
  files: SharedFile[]
  messages: { at: Instant; from: string; mine: boolean; text: string; files: SharedFile[] }[]
  mayAnswer: boolean
  mayWrite: boolean
  /** It is said to be done: the reporter may say it is not. */
  maySayNotFixed: boolean
  /** Done, and nobody has said yet whether it is. */
  maySayFixed: boolean
  /** They have said so: the request the desk got again. */
  toldAgain: string | null
}

const byToken = { token: field.token().required() }

export const trackRequest = endpoint<{ token: string }, TrackedRequest>({
  method: 'GET',
  path: '/api/track/:token',
  says: 'Where a request stands, in the reporter’s words.',
  may: 'reporter',
  input: Joi.object<{ token: string }, true>(byToken),
})

export const confirmFollow = endpoint<{ token: string }, TrackedRequest>({
  method: 'POST',
  path: '/api/track/:token/confirm',
  says: 'Say that the address is yours: from then on you hear how it goes.',
  may: 'reporter',
  input: Joi.object<{ token: string }, true>(byToken),
})

export const answerQuestion = endpoint<{ token: string; answer: string }, TrackedRequest>({
  method: 'POST',
  path: '/api/track/:token/answer',
  says: 'Answer the desk’s question.',
  may: 'reporter',
  input: Joi.object<{ token: string; answer: string }, true>({ ...byToken, answer: field.words(2000).min(1).required() }),
})

export const writeAsReporter = endpoint<{ token: string; text: string; fileClaims?: string[] }, TrackedRequest>({
  method: 'POST',
  path: '/api/track/:token/messages',
  says: 'Write to the desk about this request.',
  may: 'reporter',
  input: Joi.object<{ token: string; text: string; fileClaims?: string[] }, true>({
    ...byToken,
    text: field.words(2000).min(1).required(),
    fileClaims: fileClaims(),
  }),
})

export const uploadTrackedFile = endpoint<{ token: string; name?: string }, KeptFile>({
  method: 'POST',
  path: '/api/track/:token/files',
  says: 'Send a photo or document ahead of a message.',
  may: 'reporter',
  upload: true,
  input: Joi.object<{ token: string; name?: string }, true>({ ...byToken, name: Joi.string().trim().max(160) }),
})

export const sayFixed = endpoint<{ token: string }, TrackedRequest>({
  method: 'POST',
  path: '/api/track/:token/fixed',
  says: 'Say that it is fixed.',
  may: 'reporter',
  input: Joi.object<{ token: string }, true>(byToken),
})

export const sayNotFixed = endpoint<{ token: string; text: string }, TrackedRequest>({
  method: 'POST',
  path: '/api/track/:token/not-fixed',
  says: 'Say that it is not fixed: the desk gets it again, with what was done before.',
  may: 'reporter',
  input: Joi.object<{ token: string; text: string }, true>({ ...byToken, text: field.words(2000).min(1).required() }),
})

export const readTrackedFile = endpoint<{ token: string; fileId: number; small?: boolean }, Blob>({
  method: 'GET',
  path: '/api/track/:token/files/:fileId',
  says: 'A photo or document of the reporter’s own request.',
  may: 'reporter',
  answers: 'file',
  input: Joi.object<{ token: string; fileId: number; small?: boolean }, true>({ ...byToken, fileId: field.id().required(), small: Joi.boolean() }),
})
