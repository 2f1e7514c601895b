import { contract } from '#contract'
import { isOpenDoor } from '#contract/kit'
import { may, ROLES } from '#core/people'
import type { Permission, Role } from '#core/people'
import { Client, House } from '../kit'
import type { Running } from '../kit'

/** Every role against every endpoint of the contract: those without the permission get 403, always. */
const PEOPLE: Record<Role, string> = {
  coordinator: 'maren.quill',
  approver: 'ines.ferrall',
  technician: 'bram.oyelaran',
  billing_clerk: 'petra.lindqvist',
  manager: 'yusuf.adeyemi-rourke',
  administrator: 'wendeline.stroud',
}
/** Words in paths, with ids nobody has: permission is decided before the record is looked for. */
const WORDS = {
  id: 999_999,
  orderId: 999_999,
  visitId: 999_999,
  payerId: 999_999,
  siteId: 999_999,
  month: '2031-01',
  register: 'places',
  kind: 'orders',
  site: 'SKE',
  series: 'order',
  reason: 'part',
  token: 'x'.repeat(43),
  fileId: 1,
  occasion: 'received',
}

let house: House
let server: Running
const clients = new Map<Role, Client>()

beforeAll(async () => {
  house = await House.open('permissions')
  server = await house.start()
  for (const role of ROLES) clients.set(role, await new Client(server.url).signIn(PEOPLE[role]))
})
afterAll(() => house?.close())

const guarded = Object.entries(contract).filter(([, endpoint]) => !isOpenDoor(endpoint.may) && endpoint.answers !== 'stream' && endpoint.method !== 'DELETE')

describe.each(guarded)('%s', (_name, endpoint) => {
  test('is closed to nobody signed in', async () => {
    const reply = await new Client(server.url).call(endpoint, WORDS)
    expect(reply.status).toBe(401)
    expect(reply.headers.get('content-type')).toContain('application/problem+json')
  })

  test.each(ROLES)('%s', async (role) => {
    const reply = await clients.get(role)!.call(endpoint, WORDS)
    if (may([role], endpoint.may as Permission)) expect(reply.status).not.toBe(403)
    else {
      expect(reply.status).toBe(403)
      expect(reply.problem.detail).toContain('Nothing was changed')
    }
    expect(reply.status).toBeLessThan(500)
  })
})

test('a coordinator of one site sees nothing of the other', async () => {
  const [second] = await house.rows<{ id: number }>("SELECT id FROM site WHERE code = 'MUS'")
  await house.rows('UPDATE account_role SET site_id = ? WHERE account_id = (SELECT id FROM account WHERE email = ?)', [
    second!.id,
    'tobias.achterberg@skerry.example',
  ])
  const elsewhere = await new Client(server.url).signIn('tobias.achterberg')
  const flow = await elsewhere.must(contract.readFlow as never, {} as never)
  expect((flow as { stations: { count: number }[] }).stations.every((station) => station.count === 0)).toBe(true)
  const [order] = await house.rows<{ id: number; version: number }>("SELECT id, version FROM work_order WHERE state = 'draft' AND site_id <> ? LIMIT 1", [
    second!.id,
  ])
  for (const name of ['readOrder', 'editOrder', 'submitOrder', 'cancelOrder', 'discardOrder']) {
    const more =
      name === 'readOrder' ? {} : name === 'editOrder' ? { version: order!.version, summary: 'taken over' } : { version: order!.version, reason: 'why' }
    const reply = await elsewhere.call(contract[name]!, { id: order!.id, ...more })
    expect([name, reply.status]).toEqual([name, 404])
  }
  expect(await house.rows('SELECT version FROM work_order WHERE id = ?', [order!.id])).toEqual([{ version: order!.version }])
})
