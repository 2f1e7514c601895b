import { holdOrder } from '#contract/orders'
import { castAt, House, orderAt, version } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** The Board: people against time, and what nobody is planned for; followed by key, and seen to change by itself. */
let house: House
let server: Running
let cast: Cast
let desk: Person
beforeAll(async () => {
  house = await House.open('board_seen')
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})

test('a warranty stands between an order and dispatch on the Board as on its Sheet; by key from one to the other', async () => {
  const [asset] = await house.rows<{ id: number; tag: string }>(
    'SELECT id, tag FROM asset WHERE site_id = 1 AND vendor_id IS NOT NULL AND retired_at IS NULL LIMIT 1',
  )
  await house.rows("UPDATE asset SET warranty_until = '2027-03-05' WHERE id = ?", [asset!.id])
  const { id } = await orderAt(cast, 'ready')
  await house.rows('UPDATE work_order SET asset_id = ?, vendor_id = NULL WHERE id = ?', [asset!.id, id])
  const [order] = await house.rows<{ number: string }>('SELECT number FROM work_order WHERE id = ?', [id])
  await desk.go('/board')
  await desk.reads('Bram Oyelaran')
  await desk.type('Find', order!.number)
  await desk.reads('is under warranty with')
  expect([await desk.overflow(), await desk.accessibilityFindings()]).toEqual([0, []])
  await desk.keys(Key.TAB, Key.ENTER)
  await desk.reads('Who fits best')
  await desk.reads('is under warranty with')
  await desk.keys(Key.TAB, Key.TAB, Key.ENTER)
  await desk.until('the Sheet is open', async () => (await desk.driver.getCurrentUrl()).includes(`/order/${id}`))
})

test('days are turned, and somebody sent elsewhere is seen at once', async () => {
  await desk.go('/board')
  await desk.press('Three days')
  await desk.reads('Wed 25 Nov')
  await desk.press('→')
  await desk.reads('Sat 28 Nov')
  await desk.press('Today')
  await desk.press('Day')
  const { id } = await orderAt(cast, 'dispatched')
  const [order] = await house.rows<{ number: string }>('SELECT number FROM work_order WHERE id = ?', [id])
  const bar = By.xpath(`//*[contains(@class,'visit')][starts-with(@aria-label, '${order!.number}')]`)
  await desk.find(bar)
  expect(await desk.accessibilityFindings()).toEqual([])
  await cast.coordinator.must(holdOrder, { id, version: await version(cast, id), holdReason: 'access', reason: 'Locked' })
  await desk.until('the visit is gone from the Board', async () => !(await desk.driver.findElements(bar)).length)
  await desk.type('Find', order!.number)
  await desk.reads('On hold: waiting for access.')
})
