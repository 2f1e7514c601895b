import type Joi from 'joi'
import type { Permission } from '#core/people'

/** Who may call: a permission, or one of the doors that need no account. */
export type Door = Permission | OpenDoor

/** Doors without a session: anybody’s, or one that an unguessable link opens. */
const OPEN_DOORS = ['public', 'reporter', 'vendor', 'approver'] as const
export type OpenDoor = (typeof OPEN_DOORS)[number]
export const isOpenDoor = (may: Door): may is OpenDoor => (OPEN_DOORS as readonly string[]).includes(may)

/** One promise of the server: how to call it, what goes in, what comes out. */
export interface Endpoint<Input, Answer> {
  method: 'GET' | 'POST' | 'PATCH' | 'DELETE'
  /** Express form: "/api/orders/:id". Path words are part of the input. */
  path: string
  says: string
  may: Door
  /**
   * Everything the caller sends, path words included: `Joi.object<Input, true>`, which does not compile while a key
   * is missing, wrong or one too many.
   */
  input?: Joi.ObjectSchema<Input>
  /** What the answer is when it is not JSON. */
  answers?: 'json' | 'pdf' | 'csv' | 'image' | 'file' | 'stream'
  /** The answer holds a secret shown once: it is not kept, and a repeat is told that it was done. */
  secret?: boolean
  /** Takes one file, field "file". */
  upload?: boolean
  readonly shapes?: { input: Input; answer: Answer }
}

/**
 * Declares an endpoint; its types flow to the server's command and to the web's call.
 *
 * @example export const approveOrder = endpoint<{ id: number; version: number }, Done>({ method: 'POST', … })
 */
export function endpoint<Input, Answer>(definition: Endpoint<Input, Answer>): Endpoint<Input, Answer> {
  return definition
}

export type InputOf<E> = E extends Endpoint<infer Input, unknown> ? Input : never
export type AnswerOf<E> = E extends Endpoint<never, infer Answer> ? Answer : E extends Endpoint<infer _, infer Answer> ? Answer : never

/** A UTC instant as ISO 8601 text. */
export type Instant = string

/** What a change answers when there is nothing to say but that it is done. */
export interface Done {
  id: number
  version: number
  state: string
}

export interface Page<Row> {
  rows: Row[]
  /** Pass as `after` for the next page; null on the last. */
  next: string | null
  total?: number
}
