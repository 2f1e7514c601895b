import { verify } from '@node-rs/argon2'
import { eq, sql } from 'drizzle-orm'
import * as contract from '#contract/people'
import { LONGEST_WAIT_MS, pauseAfter } from '#core/people'
import { askerOf, delivery, isSecure, ProblemReply, randomToken, SESSION_COOKIE, sha256, withRetries } from '#server/kit'
import type { Service } from '#server/kit'
import { accounts, sessions, signInTries } from '../tables'
import { selfOf } from './self'

const SESSION_HOURS = 12

/** A hash of nothing anybody knows, made as all others are: an unknown address takes as long as a wrong password. */
const DECOY = '$argon2id$v=19$m=19456,t=2,p=1$ZGVjb3lkZWNveWRlY295$5hIF6wC0bRzQ6UKQYhmRq7yNaXlCOBDoPzzA0YDCk2o'

export default delivery(contract.signIn, async ({ input, now, service, request, response }) => {
  const account = await provePassword(service, input, request.ip ?? '', now)
  const token = randomToken()
  const expiresAt = new Date(now.getTime() + SESSION_HOURS * 3_600_000)
  await service.db.insert(sessions).values({ tokenHash: sha256(token), accountId: account.id, createdAt: now, expiresAt })
  response.cookie(SESSION_COOKIE, token, {
    httpOnly: true,
    sameSite: 'lax',
    secure: isSecure(service, request),
    path: '/',
    maxAge: SESSION_HOURS * 3_600_000,
  })
  const who = await askerOf(service.db, token, now)
  response.json(await selfOf(service.db, who!, now))
})

/** Every try takes a turn and is answered in the same way and time, whether anybody has that address or not. */
async function provePassword(service: Service, input: { email: string; password: string }, source: string, now: Date) {
  const { db } = service
  const email = input.email.toLowerCase()
  const pairHash = sha256(`${email}\n${source}`)
  await turn(service, pairHash, now)
  const [account] = await db.select().from(accounts).where(eq(accounts.email, email))
  const right = await verify(account?.passwordHash ?? DECOY, input.password).catch(() => false)
  if (!account || !right || account.disabledAt)
    throw new ProblemReply(401, 'Not signed in', 'Mail address and password do not belong together.', {
      reasons: [{ code: 'credentials', sentence: 'Mail address and password do not belong together.', field: 'password' }],
    })
  await db.delete(signInTries).where(eq(signInTries.pairHash, pairHash))
  return account
}

/**
 * Waits for its turn among the tries of this address from this source, and counts before it is looked at,
 * so that many at once are counted one by one. Nobody else waits: not the owner at another desk.
 *
 * @throws ProblemReply 429 when too many stand before it
 */
async function turn(service: Service, pairHash: string, now: Date): Promise<void> {
  const waitMs = await withRetries(() =>
    service.writer.transaction(async (tx) => {
      // One statement that makes the row or locks it, so that two who come first do not wait for each other.
      await tx
        .insert(signInTries)
        .values({ pairHash, tries: 0, nextAt: now })
        .onDuplicateKeyUpdate({ set: { tries: sql`${signInTries.tries}` } })
      const [row] = await tx.select().from(signInTries).where(eq(signInTries.pairHash, pairHash)).for('update')
      const at = Math.max(now.getTime(), row!.nextAt.getTime())
      if (at - now.getTime() > LONGEST_WAIT_MS) return at - now.getTime()
      await tx
        .update(signInTries)
        .set({ tries: row!.tries + 1, nextAt: new Date(at + pauseAfter(row!.tries + 1)) })
        .where(eq(signInTries.pairHash, pairHash))
      return at - now.getTime()
    }),
  )
  if (waitMs > LONGEST_WAIT_MS) {
    const seconds = Math.ceil((waitMs - LONGEST_WAIT_MS) / 1000)
    throw new ProblemReply(429, 'Wait a little', 'Too many passwords are being tried at once from where you are. Try again in a moment.', {}, seconds)
  }
  if (waitMs) await new Promise((resolve) => setTimeout(resolve, waitMs))
}
