import { eq } from 'drizzle-orm'
import * as contract from '#contract/people'
import { sessions } from '../tables'
import { command, SESSION_COOKIE, sha256 } from '#server/kit'

export default command(contract.signOut, async ({ tx, who, request, response, tell }) => {
  const token = (request.cookies as Record<string, string>)[SESSION_COOKIE]
  if (token) await tx.delete(sessions).where(eq(sessions.tokenHash, sha256(token)))
  await tell({ kind: 'people.signOut', details: { accountId: who.accountId } })
  response.clearCookie(SESSION_COOKIE, { path: '/' })
  return { signedOut: true as const }
})
