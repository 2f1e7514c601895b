import { and, eq, gt, inArray, isNull, lte } from 'drizzle-orm'
import type { SQL } from 'drizzle-orm'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { may } from '#core/people'
import type { Permission, Role } from '#core/people'
import { accountRoles, accounts, deputies, people, sessions, technicians } from '../tables'
import type { Reader } from './database'
import { sha256 } from './tokens'

/** Who is asking: somebody signed in, or somebody at a public door. */
export interface Asker {
  accountId: number | null
  name: string
  email: string | null
  roles: Role[]
  /** The sites they may see; null for all. */
  siteIds: number[] | null
  homeSiteId: number | null
  approvalLimitMinor: number | null
  technicianId: number | null
}

export const SESSION_COOKIE = 'evrix_session'

export const nobody: Asker = {
  accountId: null,
  name: 'Somebody',
  email: null,
  roles: [],
  siteIds: [],
  homeSiteId: null,
  approvalLimitMinor: null,
  technicianId: null,
}

/** The person behind a session token, or null when it is unknown or over. */
export async function askerOf(db: Reader, token: string, now: Date): Promise<Asker | null> {
  const [session] = await db
    .select({ accountId: sessions.accountId })
    .from(sessions)
    .where(and(eq(sessions.tokenHash, sha256(token)), gt(sessions.expiresAt, now)))
  return session ? askerById(db, session.accountId) : null
}

/** Somebody as they stand now, with roles and limit, or null when the account is closed. */
export async function askerById(db: Reader, accountId: number): Promise<Asker | null> {
  const rows = await db
    .select({
      accountId: accounts.id,
      name: people.name,
      email: accounts.email,
      limit: accounts.approvalLimitMinor,
      homeSiteId: people.siteId,
      technicianId: technicians.id,
      role: accountRoles.role,
      siteId: accountRoles.siteId,
    })
    .from(accounts)
    .innerJoin(people, eq(people.id, accounts.personId))
    .leftJoin(technicians, eq(technicians.accountId, accounts.id))
    .leftJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(eq(accounts.id, accountId), isNull(accounts.disabledAt)))
  const first = rows[0]
  if (!first) return null
  const roles = [...new Set(rows.flatMap((row) => (row.role ? [row.role] : [])))]
  const everywhere = rows.some((row) => row.role && row.siteId === null)
  return {
    accountId: first.accountId,
    name: first.name,
    email: first.email,
    roles,
    siteIds: everywhere ? null : [...new Set(rows.flatMap((row) => (row.siteId ? [row.siteId] : [])))],
    homeSiteId: first.homeSiteId,
    approvalLimitMinor: may(roles, 'orders.approve') ? first.limit : null,
    technicianId: first.technicianId,
  }
}

/** Restricts a query to the sites somebody may see. */
export function withinSites(who: Pick<Asker, 'siteIds'>, column: MySqlColumn): SQL | undefined {
  if (who.siteIds === null) return undefined
  return who.siteIds.length ? inArray(column, who.siteIds) : eq(column, -1)
}

export function maySee(who: Asker, siteId: number): boolean {
  return who.siteIds === null || who.siteIds.includes(siteId)
}

export const can = (who: Asker, permission: Permission) => may(who.roles, permission)

/** Those this person decides for now, with the limits they lend. */
export async function standsInFor(db: Reader, accountId: number, now: Date) {
  return db
    .select({ accountId: accounts.id, name: people.name, limitMinor: accounts.approvalLimitMinor })
    .from(deputies)
    .innerJoin(accounts, eq(accounts.id, deputies.forAccountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .where(and(eq(deputies.deputyAccountId, accountId), lte(deputies.fromAt, now), gt(deputies.untilAt, now)))
}
