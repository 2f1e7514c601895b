import type { NextFunction, Request, Response } from 'express'
import Joi from 'joi'
import multer from 'multer'
import { Refusal } from '#core/kit'
import type { Reason } from '#core/kit'
import type { Problem } from '#contract/kit'
import { isOutOfTime, unavailability } from './database'
import { logger } from './logger'

/** An answer that says no, as RFC 9457 has it. */
export class ProblemReply extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Partial<Problem> = {},
    readonly retryAfterSeconds?: number,
  ) {
    super(detail)
  }
}

export const notFound = (what: string) => new ProblemReply(404, 'Not found', `There is no such ${what}, or it is not yours to see.`)
export const notSignedIn = () => new ProblemReply(401, 'Not signed in', 'Sign in and try again. What you typed is still on the screen.')
export const notAllowed = () => new ProblemReply(403, 'Not allowed', 'Your role does not include this. Nothing was changed.')

/** A change that lost against others each time it was tried. */
export const metSomebody = () =>
  new ProblemReply(
    409,
    'Changed meanwhile',
    'Somebody did the same at this moment, and was first. Nothing of yours was saved; look at what is there now and try again.',
  )

/** For a little while nothing can be done, and it is nobody’s fault. */
const NOT_NOW = {
  away: 'The database cannot be reached at the moment. What you typed is still on the screen; it goes on when the database is back.',
  full: 'There is no room left on the disk of the server. Nothing was saved; what you typed is still on the screen. Tell your administrator.',
}
const COME_AGAIN_SECONDS = 5

export function conflict(version: number, differences: NonNullable<Problem['conflict']>): ProblemReply {
  return new ProblemReply(409, 'Changed meanwhile', 'Somebody else changed this since you opened it. Nothing of yours was saved yet; choose which to keep.', {
    conflict: differences,
    version,
  })
}

/** Why one row of several was refused. @throws the error itself when it is no refusal: it ends the whole */
export function refusedFor(error: unknown): Reason[] {
  if (error instanceof Refusal) return error.reasons
  if (error instanceof ProblemReply && error.status === 409)
    return [{ code: 'changed', sentence: 'Somebody changed it since the list was read; look at it again.' }]
  if (error instanceof ProblemReply && error.status < 500) return error.more.reasons ?? [{ code: 'refused', sentence: error.detail }]
  throw error
}

/** Joi's findings as reasons, one for each field. */
export function reasonsOf(error: Joi.ValidationError): Reason[] {
  return error.details.map((detail) => {
    const field = detail.path.join('.')
    const custom = !detail.message.includes('"')
    return { code: detail.type, field, sentence: custom ? detail.message : sentenceOf(detail) }
  })
}

const SENTENCES: Record<string, string> = {
  'any.required': 'This is needed.',
  'string.empty': 'This is needed.',
  'string.min': 'This is needed.',
  'string.email': 'Write a mail address like name@place.example.',
  'number.base': 'Write a number.',
  'number.integer': 'Write a whole number.',
  'date.format': 'Write a date and time.',
  'date.base': 'Write a date and time.',
  'any.only': 'Choose one of the values offered.',
  'object.unknown': 'This field is not known here.',
  'array.unique': 'The same one stands here twice.',
  'string.pattern.base': 'This is not in the form that is needed.',
}

function sentenceOf(detail: Joi.ValidationErrorItem): string {
  if (detail.type === 'string.max') return `Write at most ${detail.context?.limit} characters.`
  if (detail.type === 'number.min' || detail.type === 'number.max')
    return `Write a number of at ${detail.type === 'number.min' ? 'least' : 'most'} ${detail.context?.limit}.`
  return SENTENCES[detail.type] ?? 'This is not in the form that is needed.'
}

/** Express's last stop: every failure leaves as a problem reply. */
export function answerProblem(error: unknown, request: Request, response: Response, _next: NextFunction): void {
  const reply = replyFor(error)
  if (reply.status === 500) logger.error({ error, path: request.path }, 'request failed')
  if (response.headersSent) {
    response.end()
    return
  }
  if (reply.retryAfterSeconds) response.setHeader('Retry-After', String(reply.retryAfterSeconds))
  const problem: Problem = { type: 'about:blank', title: reply.title, status: reply.status, detail: reply.detail, ...reply.more }
  response.status(reply.status).type('application/problem+json').send(JSON.stringify(problem))
}

function replyFor(error: unknown): ProblemReply {
  if (error instanceof ProblemReply) return error
  if (error instanceof Refusal) return new ProblemReply(422, 'Not possible', error.message, { reasons: error.reasons })
  if (error instanceof Joi.ValidationError) {
    const reasons = reasonsOf(error)
    return new ProblemReply(400, 'Something is missing or wrong', 'Nothing was saved. Mend the fields named and send it again.', { reasons })
  }
  if (error instanceof multer.MulterError) {
    const tooLarge = error.code === 'LIMIT_FILE_SIZE'
    const sentence = tooLarge ? 'The file is larger than 15 MB. Send a smaller one.' : 'Send one file, in the field “file”.'
    return new ProblemReply(tooLarge ? 413 : 400, 'The file was not taken', sentence, {
      reasons: [{ code: error.code.toLowerCase(), sentence, field: 'file' }],
    })
  }
  const unavailable = unavailability(error)
  if (unavailable) return new ProblemReply(503, 'Not now', NOT_NOW[unavailable], {}, COME_AGAIN_SECONDS)
  if (isOutOfTime(error))
    return new ProblemReply(422, 'Too much to look through', 'Looking for this takes too long. Write another word, or narrow it by place, state or time.', {
      reasons: [
        { code: 'out_of_time', sentence: 'Looking for this takes too long. Write another word, or narrow it by place, state or time.', field: 'words' },
      ],
    })
  const http = error as { status?: number; type?: string }
  if (http.type === 'entity.too.large')
    return new ProblemReply(413, 'Too large', 'What was sent is larger than this takes. Nothing was saved.', {
      reasons: [{ code: 'too_large', sentence: 'What was sent is too large.', field: 'body' }],
    })
  // What the reader of bodies refuses: cut off, of an unknown encoding or character set, malformed.
  if (http.status && http.status >= 400 && http.status < 500)
    return new ProblemReply(http.status, 'Not readable', 'What was sent cannot be read. Nothing was saved; send it as JSON, in UTF-8.', {
      reasons: [{ code: http.status === 400 ? 'not_json' : 'not_readable', sentence: 'This cannot be read as JSON in UTF-8.', field: 'body' }],
    })
  return new ProblemReply(
    500,
    'Our fault',
    'The server failed while doing this. Nothing was changed. Try again; if it happens twice, tell your administrator when it was.',
  )
}
