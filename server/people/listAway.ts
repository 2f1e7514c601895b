import { and, asc, eq, gt } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import * as contract from '#contract/people'
import type { AwayRow } from '#contract/people'
import { query, withinSites } from '#server/kit'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { accounts, deputies, people } from '../tables'

export default query(contract.listAway, async ({ db, who, now }) => ({ rows: await awayRows(db, who, now) }))

/** Who is away now or will be, the soonest first. */
export async function awayRows(db: Reader, who: Asker, now: Date): Promise<Outgoing<AwayRow>[]> {
  const [forAccount, forPerson, deputyAccount, deputyPerson] = [
    alias(accounts, 'for_account'),
    alias(people, 'for_person'),
    alias(accounts, 'deputy_account'),
    alias(people, 'deputy_person'),
  ]
  const rows = await db
    .select({
      id: deputies.id,
      accountId: deputies.forAccountId,
      name: forPerson.name,
      deputyId: deputies.deputyAccountId,
      deputy: deputyPerson.name,
      fromAt: deputies.fromAt,
      untilAt: deputies.untilAt,
    })
    .from(deputies)
    .innerJoin(forAccount, eq(forAccount.id, deputies.forAccountId))
    .innerJoin(forPerson, eq(forPerson.id, forAccount.personId))
    .innerJoin(deputyAccount, eq(deputyAccount.id, deputies.deputyAccountId))
    .innerJoin(deputyPerson, eq(deputyPerson.id, deputyAccount.personId))
    .where(and(gt(deputies.untilAt, now), withinSites(who, forPerson.siteId)))
    .orderBy(asc(deputies.fromAt), asc(deputies.id))
  return rows.map((row) => ({ ...row, now: row.fromAt <= now }))
}
