import { may, PERMISSIONS, ROLES } from '#core/people'

test('nobody without a role may do anything, and every role may do something', () => {
  for (const permission of Object.keys(PERMISSIONS) as (keyof typeof PERMISSIONS)[]) expect(may([], permission)).toBe(false)
  for (const role of ROLES) expect((Object.keys(PERMISSIONS) as (keyof typeof PERMISSIONS)[]).some((permission) => may([role], permission))).toBe(true)
})

test('technicians have no way to the Desk, and who asks for money does not approve it', () => {
  expect(may(['technician'], 'desk.read')).toBe(false)
  expect(may(['coordinator'], 'orders.approve')).toBe(false)
  expect(may(['approver'], 'ledger.post')).toBe(false)
})

/** Who may do what, as it is agreed, written out by hand: C coordinator, A approver, T technician, B billing clerk, M manager, S administrator. */
const AGREED: Record<keyof typeof PERMISSIONS, string> = {
  'self.read': 'CATBMS',
  'desk.read': 'CABMS',
  'requests.triage': 'C',
  'orders.edit': 'C',
  'orders.discard': 'C',
  'orders.approve': 'A',
  'orders.dispatch': 'C',
  'orders.check': 'CB',
  'field.work': 'T',
  'ledger.read': 'CBMS',
  'ledger.post': 'B',
  'insight.read': 'CABMS',
  'setup.edit': 'S',
  'help.edit': 'CMS',
}
test.each(Object.entries(AGREED) as [keyof typeof PERMISSIONS, string][])('%s: %s', (permission, letters) => {
  const letter = { coordinator: 'C', approver: 'A', technician: 'T', billing_clerk: 'B', manager: 'M', administrator: 'S' }
  expect(ROLES.filter((role) => may([role], permission)).map((role) => letter[role])).toEqual([...letters])
})
