import { castAt, House, orderAt } from '../kit'
import type { Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Found on the way, with a pin on the plan; decided at the desk, taken back, decided again. */
let house: House
let server: Running
let phone: Person
let desk: Person
let job: { id: number; visitId: number }

beforeAll(async () => {
  house = await House.open('findings_seen')
  server = await house.start()
  const cast = await castAt(server.url)
  job = await orderAt(cast, 'dispatched')
  const [{ id }] = (await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag LIKE 'SP-%' ORDER BY id LIMIT 1")) as [{ id: number }]
  await house.rows('UPDATE work_order SET asset_id = ?, place_id = (SELECT place_id FROM asset WHERE id = ?) WHERE id = ?', [id, id, job.id])
  ;[phone, desk] = [await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran'), await (await Person.at(server.url)).signIn('maren.quill')]
})
afterAll(async () => {
  for (const person of [phone, desk]) await person?.quit()
  await house?.close()
})

test('on the phone, with one hand: what is wrong, how bad, where on the plan; its page stands without faults', async () => {
  await phone.go(`/rounds/${job.visitId}`)
  await phone.press('Finding')
  await phone.type('What is wrong', 'Grating over the sump is loose')
  await phone.choose('How bad', 'Unsafe')
  await phone.press('Pin on the plan')
  await phone.press('Put it in the middle')
  await phone.until('the keyboard is on the plan', async () => (await (await phone.focused()).getAttribute('aria-roledescription')) === 'Floor plan')
  await phone.keys(Key.ARROW_UP, Key.ENTER)
  await phone.reads('pinned on the plan')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  await phone.press('Record it')
  await phone.reads('Waits for an order')
  await phone.press('Travel')
  await phone.press('Finish')
  await phone.reads('Not read yet: Running hours.')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  const [row] = await house.rows<{ severity: string; plan_id: number | null }>('SELECT severity, plan_id FROM finding WHERE order_id = ?', [job.id])
  expect(row).toEqual({ severity: 'unsafe', plan_id: expect.any(Number) as number })
})

async function chosen(): Promise<void> {
  const mark = await desk.find(By.xpath("//*[@role='checkbox'][@aria-label='Choose: Grating over the sump is loose']"))
  await desk.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', mark)
  await mark.click()
}

test('at the desk it waits in Planning; an order is drafted of it, taken back, and it is set aside with a reason', async () => {
  await desk.go('/desk/planning')
  await desk.press('Findings')
  await desk.reads('Grating over the sump is loose')
  expect(await desk.accessibilityFindings()).toEqual([])
  await chosen()
  await desk.press('Draft an order')
  await desk.reads('drafted, in Planning.')
  await desk.press('Undo')
  await desk.reads('Taken back.')
  await desk.go(`/desk/field/order/${job.id}`)
  await desk.reads('Grating over the sump is loose')
  await chosen()
  await desk.press('Set aside', "//*[@aria-label='What is made of them']")
  await desk.type('Why nothing is to be done', 'It is replaced tomorrow')
  await desk.keys(Key.ENTER)
  await desk.reads('It is replaced tomorrow')
  expect(await desk.accessibilityFindings()).toEqual([])
})
