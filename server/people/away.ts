import { and, eq, gt, inArray, lte } from 'drizzle-orm'
import type { Reader } from '#server/kit'
import { accounts, deputies, people } from '../tables'

/** Who of these is away at this moment, until when, and who decides for them. */
export async function awayNow(db: Reader, accountIds: number[], now: Date): Promise<Map<number, { untilAt: Date; deputy: string }>> {
  if (!accountIds.length) return new Map()
  const rows = await db
    .select({ accountId: deputies.forAccountId, untilAt: deputies.untilAt, deputy: people.name })
    .from(deputies)
    .innerJoin(accounts, eq(accounts.id, deputies.deputyAccountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(inArray(deputies.forAccountId, accountIds), lte(deputies.fromAt, now), gt(deputies.untilAt, now)))
    .orderBy(deputies.untilAt)
  return new Map(rows.map(({ accountId, untilAt, deputy }) => [accountId, { untilAt, deputy }]))
}
