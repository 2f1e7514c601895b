import { and, eq, inArray, isNull } from 'drizzle-orm'
import * as contract from '#contract/people'
import { query } from '#server/kit'
import { accountRoles, accounts, people, settings } from '../tables'

/** What the maker of a demo world leaves behind; no other world has it. */
interface DemoWorld {
  password: string
  emails: string[]
}

export default query(contract.readDemoPeople, async ({ db }) => {
  const [demo] = await db.select({ value: settings.value }).from(settings).where(eq(settings.name, 'demo_world'))
  if (!demo) return { password: null, rows: [] }
  const { password, emails } = demo.value as DemoWorld
  const rows = await db
    .select({ name: people.name, email: accounts.email, approvalLimitMinor: accounts.approvalLimitMinor, role: accountRoles.role })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(inArray(accounts.email, emails), isNull(accounts.disabledAt)))
  const found = emails.flatMap((email) => {
    const mine = rows.filter((row) => row.email === email)
    const [first] = mine
    return first ? [{ name: first.name, email, approvalLimitMinor: first.approvalLimitMinor, roles: [...new Set(mine.map((row) => row.role))] }] : []
  })
  return { password, rows: found }
})
