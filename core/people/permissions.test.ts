import { may, mayAt, outOfReach, pauseAfter, PERMISSIONS, ROLES, sitesOf } from '#core/people'
import type { Grant } from '#core/people'

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
  'registers.edit': 'CMS',
  'payers.edit': 'BS',
  'spaces.say': 'CTMS',
  'help.edit': 'CMS',
}
test.each(Object.entries(AGREED) as [keyof typeof PERMISSIONS, string][])('%s: %s', (permission, letters) => {
  const letter = { coordinator: 'C', approver: 'A', technician: 'T', billing_clerk: 'B', manager: 'M', administrator: 'S' }
  expect(ROLES.filter((role) => may([role], permission)).map((role) => letter[role])).toEqual([...letters])
})

describe('roles at sites', () => {
  const grants: Grant[] = [
    { role: 'coordinator', siteId: 1 },
    { role: 'coordinator', siteId: 2 },
    { role: 'approver', siteId: 2 },
    { role: 'manager', siteId: null },
  ]

  test('somebody acts at the sites of the roles that carry it, at all of them by one that holds everywhere, at none without', () => {
    expect(sitesOf(grants, 'orders.edit')).toEqual([1, 2])
    expect(sitesOf(grants, 'orders.approve')).toEqual([2])
    expect(sitesOf(grants, 'insight.read')).toBeNull()
    expect(sitesOf(grants, 'ledger.post')).toEqual([])
    expect(sitesOf([...grants, { role: 'coordinator', siteId: 1 }], 'orders.edit')).toEqual([1, 2])
  })

  test('at a site: by a role there, or by one that holds everywhere, that carries it', () => {
    expect([mayAt(grants, 'orders.approve', 2), mayAt(grants, 'orders.approve', 1)]).toEqual([true, false])
    expect([mayAt(grants, 'insight.read', 1), mayAt(grants, 'insight.read', 9)]).toEqual([true, true])
    expect([mayAt(grants, 'ledger.post', 1), mayAt([], 'desk.read', 1)]).toEqual([false, false])
  })

  test('nobody gives or takes what reaches further than they do; what stays as it is may', () => {
    const everywhere: Grant = { role: 'manager', siteId: null }
    const elsewhere: Grant = { role: 'approver', siteId: 2 }
    const here: Grant = { role: 'coordinator', siteId: 1 }
    expect(outOfReach(null, [], [everywhere, elsewhere])).toEqual([])
    expect(outOfReach([1], [everywhere, elsewhere], [everywhere, elsewhere, here])).toEqual([])
    expect(outOfReach([1], [here], [])).toEqual([])
    expect(outOfReach([1], [everywhere, elsewhere, here], [here])).toEqual([everywhere, elsewhere])
    expect(outOfReach([1], [], [everywhere, elsewhere, here])).toEqual([everywhere, elsewhere])
    // Another role at the same site is another grant, and so is the same role at another site.
    expect(outOfReach([1], [elsewhere], [{ ...elsewhere, role: 'coordinator' }])).toEqual([elsewhere, { ...elsewhere, role: 'coordinator' }])
    expect(outOfReach([1], [elsewhere], [{ ...elsewhere, siteId: 1 }])).toEqual([elsewhere])
  })
})

test('the first three tries cost nothing, each one after that waits twice as long, and none longer than eight seconds', () => {
  expect([0, 1, 2, 3, 4, 5, 6, 7, 8, 50].map(pauseAfter)).toEqual([0, 0, 0, 500, 1_000, 2_000, 4_000, 8_000, 8_000, 8_000])
})
