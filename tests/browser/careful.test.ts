import { By, Key } from 'selenium-webdriver'
import { switchStint } from '#contract/field'
import { joinGroup } from '#contract/orders'
import { castAt, House, orderAt, report, version } from '../kit'
import type { Cast, Running } from '../kit'
import { Person } from '../kit/browser'

/** Words, keys and groups in a real browser: nothing typed is lost, nothing happens by mistake. */
let house: House
let server: Running
let cast: Cast
let desk: Person

beforeAll(async () => {
  house = await House.open('careful')
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})

const stateOf = async (table: 'request' | 'work_order', id: number) =>
  (await house.rows<{ state: string }>(`SELECT state FROM ${table} WHERE id = ?`, [id]))[0]!.state
const burst = (text: string) =>
  desk.driver
    .actions()
    .sendKeys(...text)
    .perform()

test('a lead order is finished with an open member only after saying what becomes of it', async () => {
  const [lead, member] = [await orderAt(cast, 'dispatched'), await orderAt(cast, 'ready')]
  await cast.coordinator.must(joinGroup, { id: member.id, version: await version(cast, member.id), leadId: lead.id })
  await cast.technician.must(switchStint, { visitId: lead.visitId, kind: 'work' })
  const phone = await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran')
  await phone.go(`/rounds/${lead.visitId}`)
  await phone.press('Finish')
  const [{ number }] = (await house.rows<{ number: string }>('SELECT number FROM work_order WHERE id = ?', [member.id])) as [{ number: string }]
  await phone.reads(`It leads ${number}, not over yet.`)
  await phone.choose('What was wrong', 'Leaking')
  await phone.choose('Why', 'Wear')
  await phone.choose('What was done', 'Replaced')
  const finish = () => phone.press('Finish', '//form[@aria-label="Leave the job"]')
  await finish()
  await phone.reads('say first what becomes of')
  expect(await stateOf('work_order', lead.id)).toBe('on_job')
  await phone.press('They go on by themselves, whole')
  await finish()
  await phone.reads('You have left this job.')
  // The phone says so before the server does.
  await phone.until('it is done', async () => (await stateOf('work_order', lead.id)) === 'done')
  expect(await stateOf('work_order', member.id)).toBe('ready')
  const [row] = await house.rows('SELECT lead_order_id FROM work_order WHERE id = ?', [member.id])
  expect(row).toEqual({ lead_order_id: null })
  await phone.quit()
})

test('letters typed outside a field do nothing; one that stands alone acts', async () => {
  const { id } = await report(cast, { summary: 'Typed beside the field' })
  await desk.go(`/desk/intake/request/${id}`)
  await desk.reads('Typed beside the field')
  const events = () => house.rows('SELECT kind FROM event WHERE request_id = ? ORDER BY id', [id])
  const before = await events()
  await burst('tkadxjgo takes everything')
  // Longer than whoever pressed a key that did nothing is given to notice.
  await desk.driver.sleep(1_800)
  expect(await events()).toEqual(before)
  expect(await desk.driver.findElements(By.css('#move-reason, #into-order'))).toEqual([])
  await desk.keys('t')
  await desk.reads('is in Triage')
  // Nothing is proposed to accept into before something is typed: Enter takes nothing.
  await desk.driver.sleep(400)
  await desk.keys('o')
  await desk.until('the field', async () => (await desk.driver.findElements(By.id('into-order'))).length === 1)
  await desk.driver.sleep(600)
  await desk.keys(Key.ENTER)
  await desk.driver.sleep(600)
  expect(await stateOf('request', id)).toBe('new')
})

test('a reason that was begun is there again after Esc and after the page was read anew', async () => {
  const { id } = await report(cast, { summary: 'To be declined' })
  await desk.go(`/desk/intake/request/${id}`)
  await desk.reads('To be declined')
  await desk.move('Decline')
  const reason = () => desk.find(By.id('move-reason'))
  await reason().sendKeys('It belongs to the tenant, who')
  await desk.keys(Key.ESCAPE)
  await desk.move('Decline')
  expect(await reason().getAttribute('value')).toBe('It belongs to the tenant, who')
  await desk.load(`/desk/intake/request/${id}`)
  await desk.reads('To be declined')
  await desk.move('Decline')
  expect(await reason().getAttribute('value')).toBe('It belongs to the tenant, who')
  await desk.find(By.id('comment')).sendKeys('half a note')
  await desk.load(`/desk/intake/request/${id}`)
  await desk.reads('To be declined')
  expect(await desk.find(By.id('comment')).getAttribute('value')).toBe('half a note')
})

test('an unknown caller is typed once; a draft comes back with names; Enter sends a call of one line', async () => {
  await desk.go('/desk/intake')
  await desk.reads('Intake')
  await desk.driver.sleep(500)
  await desk.keys('n')
  await desk.until('the form', async () => (await desk.driver.findElements(By.id('call-person'))).length === 1)
  await desk.find(By.id('call-person')).sendKeys('Zebulon Quist')
  await desk.driver.sleep(600)
  await desk.leave()
  await desk.until('the name', async () => (await desk.find(By.id('call-name')).getAttribute('value')) === 'Zebulon Quist')
  await desk.pick('Where (needed)', 'KEL-104')
  await desk.keys(Key.ESCAPE)
  await desk.load('/desk/intake')
  await desk.reads('Intake')
  await desk.driver.sleep(500)
  await desk.keys('n')
  await desk.until('the form', async () => (await desk.driver.findElements(By.id('call-person'))).length === 1)
  await desk.until('the place by its name', async () => (await desk.find(By.css('form.call')).getText()).includes('KEL-104'))
  await desk.find(By.id('call-summary')).sendKeys('The door squeaks', Key.ENTER)
  await desk.reads('is in Intake.')
  const [row] = await house.rows<{ reporter_name: string; description: string }>(
    "SELECT reporter_name, description FROM request WHERE summary = 'The door squeaks'",
  )
  expect(row).toEqual({ reporter_name: 'Zebulon Quist', description: '' })
})

test('every Desk page is as wide as a phone, at twice the text too', async () => {
  const phone = await (await Person.at(server.url, 'phone')).signIn('maren.quill')
  for (const address of ['/desk/intake', '/desk/dispatch', '/lists/orders', '/registers', '/ledger', '/kept-mail', '/search?q=tap']) {
    await phone.go(address)
    await phone.driver.sleep(500)
    for (const size of ['100%', '200%']) {
      const width = await phone.driver.executeScript<number>(`document.documentElement.style.fontSize = '${size}'; return document.documentElement.scrollWidth`)
      expect([address, size, width]).toEqual([address, size, 390])
    }
  }
  await phone.quit()
})

test('places of the Counter are chosen with the arrow keys', async () => {
  const phone = await (await Person.at(server.url, 'phone')).go('/c/SKE')
  await phone.type('Part of a name', 'GAN204')
  await phone.reads('GAN-204')
  await phone.driver.sleep(600)
  await phone.keys(Key.ARROW_DOWN, Key.ENTER)
  await phone.until('the next question', async () => (await phone.driver.findElements(By.id('category-text'))).length === 1)
  expect(await phone.driver.executeScript<string>("return localStorage.getItem('evrix-report-SKE')")).toContain('GAN-204')
  await phone.quit()
})
