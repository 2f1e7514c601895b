import { asc, eq } from 'drizzle-orm'
import type { Self } from '#contract/people'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { rulesOf } from '#server/orders'
import { accounts, sites } from '../tables'

/** What the interface needs to know of the person signed in. */
export async function selfOf(db: Reader, who: Asker, now: Date): Promise<Outgoing<Self>> {
  const wanted = who.siteIds?.[0] ?? who.homeSiteId
  const [site] = await db
    .select()
    .from(sites)
    .where(wanted ? eq(sites.id, wanted) : undefined)
    .orderBy(asc(sites.id))
    .limit(1)
  const [account] = await db.select({ preset: accounts.callPreset }).from(accounts).where(eq(accounts.id, who.accountId!))
  return {
    accountId: who.accountId!,
    name: who.name,
    email: who.email!,
    roles: who.roles,
    approvalLimitMinor: who.approvalLimitMinor,
    technicianId: who.technicianId,
    site: { id: site!.id, code: site!.code, name: site!.name, zone: site!.zone, currency: site!.currency, ...(await rulesOf(db, site!.id)).writing },
    callPreset: account?.preset ?? {},
    now,
  }
}
