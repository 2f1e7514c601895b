import { and, eq } from 'drizzle-orm'
import type { Request, Response } from 'express'
import { isOpenDoor } from '#contract/kit'
import type { Endpoint } from '#contract/kit'
import { cleanDeep } from '#core/kit'
import type { Permission } from '#core/people'
import { idempotencyKeys } from '../tables'
import { isDeadlock, isDuplicate } from './database'
import type { Db, Reader, Tx } from './database'
import { recordEvent } from './events'
import { metSomebody, notAllowed, notSignedIn, ProblemReply } from './problems'
import type { Service } from './service'
import { dropReceived, fingerprintOf, receiveFile } from './uploads'
import { sha256 } from './tokens'
import { acting, askerOf, can, nobody, SESSION_COOKIE } from './who'
import type { Asker } from './who'
import type { Tell } from './events'

/** Answers may hold Dates where the contract says instants; JSON writes them as ISO text. */
export type Outgoing<T> = T extends (infer U)[]
  ? Outgoing<U>[]
  : T extends string
    ? string extends T
      ? string | Date
      : T
    : T extends object
      ? { [K in keyof T]: Outgoing<T[K]> }
      : T

interface Circumstances<Input> {
  who: Asker
  input: Input
  now: Date
  service: Service
  request: Request
  response: Response
}

export interface CommandContext<Input, Ready = undefined> extends Circumstances<Input> {
  tx: Tx
  /** What was made ready before the transaction began. */
  ready: Ready
  /** Writes an event in this transaction. */
  tell: Tell
}

export interface QueryContext<Input> extends Circumstances<Input> {
  db: Db
}

/** An endpoint with what answers it, ready to be mounted. */
export interface Route {
  endpoint: Endpoint<never, unknown>
  respond: (service: Service, request: Request, response: Response) => Promise<void>
}

const MAX_TRIES = 5
const TRIES_WHEN_TAKEN = 3

/**
 * A change. The runner does what is the same for all: who asks, may they, validation, the
 * idempotency key, the transaction, the answer; the command holds only what is particular.
 */
export function command<Input, Answer>(endpoint: Endpoint<Input, Answer>, change: (context: CommandContext<Input>) => Promise<Outgoing<Answer>>): Route {
  return preparedCommand(endpoint, () => Promise.resolve(undefined), change)
}

/** Asks, before a file is read, whether its sender may send it here. @throws ProblemReply, Refusal */
type Doorkeeper<Input> = (context: QueryContext<Input>) => Promise<unknown>

/**
 * A change with something that takes long and needs no row, like writing a photo anew: made ready
 * before the transaction begins, so that nobody waits for it with rows locked.
 */
export function preparedCommand<Input, Answer, Ready>(
  endpoint: Endpoint<Input, Answer>,
  prepare: (circumstances: Circumstances<Input>) => Promise<Ready>,
  change: (context: CommandContext<Input, Ready>) => Promise<Outgoing<Answer>>,
  mayUpload?: Doorkeeper<Input>,
): Route {
  return {
    endpoint: endpoint as unknown as Route['endpoint'],
    async respond(service, request, response) {
      response.once('close', () => void dropReceived(request))
      const circumstances = await admit(endpoint, service, request, response)
      const key = endpoint.method === 'POST' ? idempotencyKeyOf(request) : null
      if (endpoint.upload) {
        await mayUpload?.({ ...circumstances, db: service.db })
        await receiveFile(service, request, response)
      }
      const fingerprint = request.file ? await fingerprintOf(request.file) : ''
      const ready = await prepare(circumstances)
      const answer = await withRetries(() =>
        service.writer.transaction(async (tx) => {
          const { who, now } = circumstances
          const run = () => change({ ...circumstances, ready, tx, tell: (happening) => recordEvent(tx, who, now, happening) })
          return key ? once(tx, key, circumstances, fingerprint, endpoint, run) : run()
        }),
      )
      service.publisher.nudge()
      response.json(answer)
    },
  }
}

/** A read: exactly what a screen needs, nothing changed. */
export function query<Input, Answer>(endpoint: Endpoint<Input, Answer>, read: (context: QueryContext<Input>) => Promise<Outgoing<Answer>>): Route {
  return {
    endpoint: endpoint as unknown as Route['endpoint'],
    async respond(service, request, response) {
      const circumstances = await admit(endpoint, service, request, response)
      const answer = await read({ ...circumstances, db: service.db })
      if (!response.headersSent) response.json(answer)
    },
  }
}

/** A read that writes its own answer: files and streams. */
export function delivery<Input>(endpoint: Endpoint<Input, unknown>, deliver: (context: QueryContext<Input>) => Promise<void>): Route {
  return {
    endpoint: endpoint as unknown as Route['endpoint'],
    async respond(service, request, response) {
      const circumstances = await admit(endpoint, service, request, response)
      await deliver({ ...circumstances, db: service.db })
    },
  }
}

/** Whoever is signed in. @throws ProblemReply 401 when nobody is */
export async function signedIn(db: Reader, request: Request, now: Date): Promise<Asker> {
  const who = await sessionOf(db, request, now)
  if (!who) throw notSignedIn()
  return who
}

const sessionOf = async (db: Reader, request: Request, now: Date): Promise<Asker | null> => {
  const token = (request.cookies as Record<string, string> | undefined)?.[SESSION_COOKIE]
  return token ? askerOf(db, token, now) : null
}

async function admit<Input>(endpoint: Endpoint<Input, unknown>, service: Service, request: Request, response: Response): Promise<Circumstances<Input>> {
  const now = service.clock()
  const open = isOpenDoor(endpoint.may)
  const who = open ? null : await sessionOf(service.db, request, now)
  if (!open && !who) throw notSignedIn()
  if (!open && !can(who!, endpoint.may as Permission)) throw notAllowed()
  return { who: who ? acting(who, endpoint.may as Permission) : nobody, input: inputOf(endpoint, request), now, service, request, response }
}

function inputOf<Input>(endpoint: Endpoint<Input, unknown>, request: Request): Input {
  if (!endpoint.input) return {} as Input
  const carried = endpoint.method === 'GET' || endpoint.upload ? request.query : (request.body as object)
  const { value, error } = endpoint.input.validate(cleanDeep({ ...carried, ...request.params }), { abortEarly: false, errors: { wrap: { label: '"' } } })
  if (error) throw error
  return value
}

function idempotencyKeyOf(request: Request): string {
  const key = request.get('Idempotency-Key') ?? ''
  if (!/^[A-Za-z0-9_-]{16,80}$/.test(key))
    throw new ProblemReply(
      400,
      'Idempotency-Key missing',
      'Every POST carries an Idempotency-Key header of 16 to 80 letters and digits, the same again when it is repeated.',
      {
        reasons: [{ code: 'idempotency_key', sentence: 'Send an Idempotency-Key header.', field: 'Idempotency-Key' }],
      },
    )
  return key
}

const doneBefore = { code: 'done_before', sentence: 'This was done already.' }

/** Runs a change once per key: the row is locked by its unique index until the first try ends. */
async function once<Answer>(
  tx: Tx,
  key: string,
  circumstances: Circumstances<unknown>,
  fingerprint: string,
  { path: endpoint, secret }: Pick<Endpoint<never, unknown>, 'path' | 'secret'>,
  run: () => Promise<Answer>,
): Promise<Answer> {
  const { who, input, now } = circumstances
  const scope = who.accountId
    ? `account:${who.accountId}`
    : 'token' in (input as object)
      ? `link:${sha256((input as { token: string }).token).slice(0, 40)}`
      : 'public'
  const inputHash = sha256(JSON.stringify(input) + fingerprint)
  const claimed = await tx.insert(idempotencyKeys).ignore().values({ scope, key, endpoint, inputHash, at: now })
  const mine = and(eq(idempotencyKeys.scope, scope), eq(idempotencyKeys.key, key))
  if (claimed[0].affectedRows === 0) {
    const [earlier] = await tx.select().from(idempotencyKeys).where(mine)
    if (!earlier || earlier.inputHash !== inputHash || earlier.endpoint !== endpoint)
      throw new ProblemReply(422, 'Key used before', 'This Idempotency-Key was used for something else. Nothing was changed; send it with a new key.')
    if (secret) throw new ProblemReply(409, 'Done before', 'This was done already, and what it answered was shown once. Make another if you did not see it.')
    // Answers are kept for a day only; that it was done, for as long as a phone without signal may ask again.
    if (earlier.answer === null) throw new ProblemReply(409, 'Done before', 'This was done already.', { reasons: [doneBefore] })
    return earlier.answer as Answer
  }
  const answer = await run()
  await tx
    .update(idempotencyKeys)
    .set({ answer: secret ? null : answer })
    .where(mine)
  return answer
}

/** Tries a change again that lost against another. @throws ProblemReply 409 when it loses each time */
export async function withRetries<Answer>(attempt: () => Promise<Answer>): Promise<Answer> {
  for (let tries = 1; ; tries++) {
    try {
      return await attempt()
    } catch (error) {
      // Two who made the same at once: the second look finds the first one's, and the rules say what then.
      const again = isDeadlock(error) || (isDuplicate(error) && tries < TRIES_WHEN_TAKEN)
      if (!again || tries === MAX_TRIES) throw isDuplicate(error) || isDeadlock(error) ? metSomebody() : error
      await new Promise((resolve) => setTimeout(resolve, 10 * tries * tries))
    }
  }
}
