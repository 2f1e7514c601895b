import { verify } from '@node-rs/argon2'
import { eq } from 'drizzle-orm'
import * as contract from '#contract/people'
import { accounts, sessions } from '../tables'
import { delivery, ProblemReply, randomToken, SESSION_COOKIE, sha256 } from '#server/kit'
import type { Service } from '#server/kit'
import { askerOf } from '#server/kit'
import { selfOf } from './self'

const SESSION_HOURS = 12
const FREE_TRIES = 3
const LONGEST_WAIT_SECONDS = 60

/** A hash of nothing anybody knows: an unknown address takes as long as a wrong password. */
const DECOY = '$argon2id$v=19$m=19456,t=2,p=1$ZGVjb3lkZWNveWRlY295$5hIF6wC0bRzQ6UKQYhmRq7yNaXlCOBDoPzzA0YDCk2o'

export default delivery(contract.signIn, async ({ input, now, service, request, response }) => {
  const account = await provePassword(service, input, now)
  const token = randomToken()
  const expiresAt = new Date(now.getTime() + SESSION_HOURS * 3_600_000)
  await service.db.insert(sessions).values({ tokenHash: sha256(token), accountId: account.id, createdAt: now, expiresAt })
  response.cookie(SESSION_COOKIE, token, { httpOnly: true, sameSite: 'lax', secure: request.secure, path: '/', maxAge: SESSION_HOURS * 3_600_000 })
  const who = await askerOf(service.db, token, now)
  response.json(await selfOf(service.db, who!, now))
})

/** Wrong passwords make the next try wait longer, and never shut anybody out. */
async function provePassword(service: Service, input: { email: string; password: string }, now: Date) {
  const { db } = service
  const [account] = await db.select().from(accounts).where(eq(accounts.email, input.email.toLowerCase()))
  if (account?.waitUntil && account.waitUntil > now) {
    const seconds = Math.ceil((account.waitUntil.getTime() - now.getTime()) / 1000)
    throw new ProblemReply(429, 'Wait a little', `Several wrong passwords were tried. Try again in ${seconds} seconds.`, {}, seconds)
  }
  const right = await verify(account?.passwordHash ?? DECOY, input.password).catch(() => false)
  if (!account || !right || account.disabledAt) {
    if (account) {
      const failed = account.failedLogins + 1
      const seconds = failed <= FREE_TRIES ? 0 : Math.min(LONGEST_WAIT_SECONDS, 2 ** (failed - FREE_TRIES))
      await db
        .update(accounts)
        .set({ failedLogins: failed, waitUntil: seconds ? new Date(now.getTime() + seconds * 1000) : null })
        .where(eq(accounts.id, account.id))
    }
    throw new ProblemReply(401, 'Not signed in', 'Mail address and password do not belong together.', {
      reasons: [{ code: 'credentials', sentence: 'Mail address and password do not belong together.', field: 'password' }],
    })
  }
  if (account.failedLogins) await db.update(accounts).set({ failedLogins: 0, waitUntil: null }).where(eq(accounts.id, account.id))
  return account
}
