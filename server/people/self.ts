import { asc, eq } from 'drizzle-orm'
import type { Self } from '#contract/people'
import type { Asker, Outgoing, Reader } from '#server/kit'
import { sites } from '../tables'

/** What the interface needs to know of the person signed in. */
export async function selfOf(db: Reader, who: Asker, now: Date): Promise<Outgoing<Self>> {
  const wanted = who.siteIds?.[0] ?? who.homeSiteId
  const [site] = await db
    .select()
    .from(sites)
    .where(wanted ? eq(sites.id, wanted) : undefined)
    .orderBy(asc(sites.id))
    .limit(1)
  return {
    accountId: who.accountId!,
    name: who.name,
    email: who.email!,
    roles: who.roles,
    approvalLimitMinor: who.approvalLimitMinor,
    technicianId: who.technicianId,
    site: { id: site!.id, code: site!.code, name: site!.name, zone: site!.zone, currency: site!.currency },
    now,
  }
}
