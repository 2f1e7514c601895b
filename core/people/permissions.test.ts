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
