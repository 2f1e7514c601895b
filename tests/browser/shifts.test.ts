import { castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Person } from '../kit/browser'

/** Leave asked for on a phone and agreed on the Board; who is on call; a calendar to subscribe to; a sheet to print. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let phone: Person
beforeAll(async () => {
  house = await House.open('time')
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
  phone = await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran')
})
afterAll(async () => {
  for (const person of [desk, phone]) await person?.quit()
  await house?.close()
})

test('leave is asked for on a phone, refused once with a reason, asked again and agreed to on the Board', async () => {
  await phone.go('/rounds')
  await phone.press('My time')
  await phone.type('From', '+7d')
  await phone.type('Through', '+8d')
  await phone.type('What for', 'Moving house')
  await phone.press('Ask the desk')
  await phone.reads('asked')
  expect(await phone.accessibilityFindings()).toEqual([])
  await desk.go('/board')
  await desk.press('2 ask for leave')
  const mine = "//article[contains(@aria-label, 'Bram Oyelaran')]"
  await desk.press('Refuse', mine)
  await desk.type('Why not', 'Audit week')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Refuse it')
  await phone.reads('Audit week')
  await phone.type('From', '+20d')
  await phone.press('Ask the desk')
  await desk.press('Agree', mine)
  await desk.reads('Bram Oyelaran is on leave then.')
  await phone.reads('agreed by Maren Quill')
})

test('a calendar address is made on the phone; turns of being on call are kept on the Portrait of the team and shown on the Board', async () => {
  await phone.go('/rounds/time')
  await phone.press('Make the address')
  await phone.until('there is one', async () => {
    const [field] = await phone.driver.findElements(By.id('my-feed'))
    return ((await field?.getAttribute('value')) ?? '').endsWith('/visits.ics')
  })
  const [team] = await house.rows<{ id: number }>("SELECT id FROM team WHERE name = 'Electrical'")
  await desk.go(`/registers/teams/${team!.id}`)
  await desk.press('Say who is on call')
  await desk.choose('Next in turn', 'Bram Oyelaran')
  await desk.type('First turn begins', 'today')
  await desk.type('Handed over at', '25:00')
  await desk.press('Keep the turns')
  await desk.reads('Write the hour like 08:00.')
  await desk.type('Handed over at', '08:00')
  await desk.press('Keep the turns')
  await desk.reads('Who is on call is noted.')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.go('/board')
  await desk.reads('Electrical, until')
})

test('a sheet is printed from the Sheet, which copy is asked; the code on it leads to one’s own visit', async () => {
  const { id, visitId } = await orderAt(cast, 'dispatched')
  await desk.go(`/desk/field/order/${id}`)
  await desk.move('Print')
  await desk.reads('Which copy')
  await desk.driver.executeScript('window.opened = []; window.open = (address) => void window.opened.push(address)')
  await desk.choose('Which copy', 'Payer’s copy')
  await desk.press('Print', "//form[contains(@class,'ask')]")
  await desk.until('it is opened', async () =>
    (await desk.driver.executeScript<string[]>('return window.opened')).some((one) => one.endsWith(`/orders/${id}/print/payer`)),
  )
  await phone.go(`/job/${id}`)
  await phone.until('their own visit is shown', async () => (await phone.driver.getCurrentUrl()).endsWith(`/rounds/${visitId}`))
  await desk.go(`/job/${id}`)
  await desk.until('the Sheet is shown', async () => (await desk.driver.getCurrentUrl()).includes(`/order/${id}`))
})
