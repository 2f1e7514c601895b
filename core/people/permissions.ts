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
  'help.edit': ['coordinator', 'manager', 'administrator'],
} as const satisfies Record<string, readonly Role[]>

export type Permission = keyof typeof PERMISSIONS

/** Whether any of these roles carries the permission. */
export function may(roles: readonly Role[], permission: Permission): boolean {
  return roles.some((role) => (PERMISSIONS[permission] as readonly Role[]).includes(role))
}
