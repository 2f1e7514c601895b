export const ROLES = ['coordinator', 'approver', 'technician', 'billing_clerk', 'manager', 'administrator'] as const
export type Role = (typeof ROLES)[number]

export const ROLE_NAMES: Record<Role, string> = {
  coordinator: 'Coordinator',
  approver: 'Approver',
  technician: 'Technician',
  billing_clerk: 'Billing clerk',
  manager: 'Manager',
  administrator: 'Administrator',
}

/** Everything a person may do, by name, with the roles that may do it. */
export const PERMISSIONS = {
  'self.read': ['coordinator', 'approver', 'technician', 'billing_clerk', 'manager', 'administrator'],
  'desk.read': ['coordinator', 'approver', 'billing_clerk', 'manager', 'administrator'],
  'requests.triage': ['coordinator'],
  'orders.edit': ['coordinator'],
  'orders.discard': ['coordinator'],
  'orders.approve': ['approver'],
  'orders.dispatch': ['coordinator'],
  'orders.check': ['coordinator', 'billing_clerk'],
  'field.work': ['technician'],
  'ledger.read': ['billing_clerk', 'manager', 'coordinator', 'administrator'],
  'ledger.post': ['billing_clerk'],
  'insight.read': ['manager', 'coordinator', 'billing_clerk', 'administrator', 'approver'],
  'setup.edit': ['administrator'],
  'registers.edit': ['coordinator', 'manager', 'administrator'],
  'payers.edit': ['billing_clerk', 'administrator'],
  'spaces.say': ['coordinator', 'technician', 'manager', 'administrator'],
  'help.edit': ['coordinator', 'manager', 'administrator'],
} as const satisfies Record<string, readonly Role[]>

export type Permission = keyof typeof PERMISSIONS

/** Whether any of these roles carries the permission. */
export function may(roles: readonly Role[], permission: Permission): boolean {
  return roles.some((role) => (PERMISSIONS[permission] as readonly Role[]).includes(role))
}

/** A role as somebody holds it: at one site, or everywhere. */
export interface Grant {
  role: Role
  /** Null for every site. */
  siteId: number | null
}

/** The sites at which these grants carry the permission: null for all of them, an empty list for none. */
export function sitesOf(grants: readonly Grant[], permission: Permission): number[] | null {
  const carrying = grants.filter((grant) => may([grant.role], permission))
  if (carrying.some((grant) => grant.siteId === null)) return null
  return [...new Set(carrying.map((grant) => grant.siteId!))]
}

/** Whether these grants carry the permission at this site. */
export function mayAt(grants: readonly Grant[], permission: Permission, siteId: number): boolean {
  return grants.some((grant) => (grant.siteId === null || grant.siteId === siteId) && may([grant.role], permission))
}

/**
 * What one person may not change of another's grants: those that reach further than their own reach.
 * Somebody bound to a site gives and takes roles there and nowhere else.
 */
export function outOfReach(own: number[] | null, before: readonly Grant[], after: readonly Grant[]): Grant[] {
  if (own === null) return []
  const same = (a: Grant) => (b: Grant) => a.role === b.role && a.siteId === b.siteId
  const changed = [...before.filter((grant) => !after.some(same(grant))), ...after.filter((grant) => !before.some(same(grant)))]
  return changed.filter((grant) => grant.siteId === null || !own.includes(grant.siteId))
}
