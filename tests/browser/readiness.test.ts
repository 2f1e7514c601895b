import { savePlan } from '#contract/methods'
import { castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Walking through a building with a phone, and lending a tower: said, booked, handed out, given back. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let phone: Person

beforeAll(async () => {
  house = await House.open('readiness_seen')
  server = await house.start()
  cast = await castAt(server.url)
  ;[desk, phone] = [await (await Person.at(server.url)).signIn('maren.quill'), await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran')]
})
afterAll(async () => {
  for (const person of [desk, phone]) await person?.quit()
  await house?.close()
})

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!

test('on the phone a space is said to be ready, or out of use with a reason; the desk sees who said so', async () => {
  await phone.go('/rounds')
  await phone.press('Readiness')
  await phone.press('Gannet Court')
  await phone.find(By.xpath("//li[starts-with(@aria-label,'GAN-102')]"))
  expect(await phone.overflow()).toBe(0)
  expect(await phone.accessibilityFindings()).toEqual([])
  const row = "//li[starts-with(@aria-label,'GAN-102')]"
  await phone.press('Ready', row)
  await phone.reads('GAN-102: ready.')
  await phone.press('Out of use', row)
  await phone.type('Why it is out of use', 'Window will not close')
  await phone.keys(Key.ENTER)
  await phone.reads('Window will not close')
  const said = await one<{ state: string; note: string }>('SELECT r.state, r.note FROM space_readiness r JOIN place p ON p.id = r.place_id WHERE p.code = ?', [
    'GAN-102',
  ])
  expect(said).toEqual({ state: 'out_of_use', note: 'Window will not close' })
  const { id } = await one<{ id: number }>("SELECT id FROM place WHERE code = 'GAN-102'")
  await desk.go(`/registers/places/${id}`)
  await desk.reads('said how the space stands')
})

test('a piece of equipment is booked on the Sheet: what is in the way is seen first; handed out and given back', async () => {
  const { id: towerId } = await one<{ id: number }>("SELECT id FROM equipment WHERE tag = 'EQ-1'")
  const { id } = await orderAt(cast, 'ready')
  await cast.coordinator.must(savePlan, { orderId: id, version: 0, tools: [{ text: 'Scaffold tower', equipmentId: towerId }] })
  await desk.go(`/desk/planning/order/${id}`)
  await desk.reads('Scaffold tower is not booked for it.')
  await desk.press('Book', "//li[contains(., 'planned, not booked')]")
  await desk.type('From', '24 Nov 2026 08:00')
  await desk.leave()
  await desk.type('Until', '24 Nov 2026 17:00')
  await desk.leave()
  await desk.reads('has it then.')
  await desk.type('Until', '12 Dec 2026 17:00')
  await desk.leave()
  await desk.type('From', '11 Dec 2026 08:00')
  await desk.leave()
  await desk.reads('It is free then.')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Book it')
  await desk.reads('Booked.')
  await desk.readsNot('Scaffold tower is not booked for it.')
  await desk.go('/stock/equipment')
  await desk.find(By.xpath("//a[contains(@class,'bar')]"))
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.go(`/registers/equipment/${towerId}`)
  await desk.press('Take back', "//ul[@aria-label='Bookings']")
  await desk.type('In what state it came back', 'Whole')
  await desk.keys(Key.ENTER)
  await desk.reads('Scaffold tower is back.')
  expect(await one("SELECT count(*) AS n FROM booking WHERE equipment_id = ? AND state = 'out'", [towerId])).toEqual({ n: 0 })
})
