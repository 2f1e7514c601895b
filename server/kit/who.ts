import { and, eq, gt, inArray, isNull, lte, or } from 'drizzle-orm'
import type { Placeholder, SQL } from 'drizzle-orm'
import type { Request } from 'express'
import type { MySqlColumn } from 'drizzle-orm/mysql-core'
import { may, mayAt, ROLES, sitesOf } from '#core/people'
import type { Grant, Permission, Role } from '#core/people'
import { accountRoles, accounts, deputies, people, sessions, technicians } from '../tables'
import type { Reader } from './database'
import { statement } from './statement'
import { sha256 } from './tokens'

/** Who is asking: somebody signed in, or somebody at a public door. */
export interface Asker {
  accountId: number | null
  name: string
  email: string | null
  roles: Role[]
  grants: Grant[]
  /** The sites they act at, null for all: in a command or query, those where a role of theirs carries its permission. */
  siteIds: number[] | null
  homeSiteId: number | null
  approvalLimitMinor: number | null
  technicianId: number | null
}

export const SESSION_COOKIE = 'evrix_session'

/** Whether cookies may travel over encrypted lines alone: what people reach us by is one, directly or by a proxy we trust. */
export const isSecure = (service: { publicUrl: () => string }, request: Pick<Request, 'secure'>): boolean =>
  request.secure || service.publicUrl().startsWith('https:')

export const nobody: Asker = {
  accountId: null,
  name: 'Somebody',
  email: null,
  roles: [],
  grants: [],
  siteIds: [],
  homeSiteId: null,
  approvalLimitMinor: null,
  technicianId: null,
}

/** The person behind a session token, or null when it is unknown or over. */
export const askerOf = async (db: Reader, token: string, now: Date): Promise<Asker | null> => askerIn(await bySession(db, { tokenHash: sha256(token), now }))

/** Somebody as they stand now, with roles and limit, or null when the account is closed. */
export const askerById = async (db: Reader, accountId: number): Promise<Asker | null> => askerIn(await byAccount(db, { accountId }))

const bySession = statement(['tokenHash', 'now'], (db, { tokenHash, now }) =>
  standing(db)
    .innerJoin(sessions, eq(sessions.accountId, accounts.id))
    .where(and(eq(sessions.tokenHash, tokenHash), gt(sessions.expiresAt, now), isNull(accounts.disabledAt))),
)

const byAccount = statement(['accountId'], (db, { accountId }) => standing(db).where(and(eq(accounts.id, accountId), isNull(accounts.disabledAt))))

/** An account with its person, a row for each of its roles. */
const standing = (db: Reader) =>
  db
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

function askerIn(rows: Awaited<ReturnType<typeof byAccount>>): Asker | null {
  const first = rows[0]
  if (!first) return null
  const grants = rows.flatMap((row) => (row.role ? [{ role: row.role, siteId: row.siteId }] : []))
  const roles = [...new Set(grants.map((grant) => grant.role))]
  return {
    accountId: first.accountId,
    name: first.name,
    email: first.email,
    roles,
    grants,
    siteIds: sitesOf(grants, 'self.read'),
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

/** The same person with the sites narrowed to those where a role of theirs carries this permission. */
export const acting = (who: Asker, permission: Permission): Asker => ({ ...who, siteIds: sitesOf(who.grants, permission) })

export const canAt = (who: Asker, permission: Permission, siteId: number) => mayAt(who.grants, permission, siteId)

/** Accounts that carry a permission at a site: open, and with a role that holds there. */
export function holdersAt(permission: Permission, siteId: number | Placeholder): SQL {
  const roles = ROLES.filter((role) => may([role], permission))
  return and(isNull(accounts.disabledAt), inArray(accountRoles.role, roles), or(isNull(accountRoles.siteId), eq(accountRoles.siteId, siteId)))!
}

/** Those of these accounts that carry a permission at a site. */
export function openHolders(db: Reader, permission: Permission, siteId: number, ids?: number[]) {
  return db
    .selectDistinct({ id: accounts.id })
    .from(accounts)
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(ids ? inArray(accounts.id, ids) : undefined, holdersAt(permission, siteId)))
}

/**
 * Those this person decides for now at a site, with the limits they lend. Acting for somebody counts only
 * while that person could act: their account is open, and they approve there.
 */
export async function standsInFor(db: Reader, accountId: number, now: Date, siteId: number) {
  return db
    .selectDistinct({ accountId: accounts.id, name: people.name, limitMinor: accounts.approvalLimitMinor })
    .from(deputies)
    .innerJoin(accounts, eq(accounts.id, deputies.forAccountId))
    .innerJoin(people, eq(people.id, accounts.personId))
    .innerJoin(accountRoles, eq(accountRoles.accountId, accounts.id))
    .where(and(eq(deputies.deputyAccountId, accountId), lte(deputies.fromAt, now), gt(deputies.untilAt, now), holdersAt('orders.approve', siteId)))
}
