import { savePlan } from '#contract/methods'
import { addPart, moveStock } from '#contract/stock'
import { castAt, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Parts that are not there: bought for an order that waits for them, and goes on when they come; what to buy; a count. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let other: Person

beforeAll(async () => {
  house = await House.open('buying_seen')
  server = await house.start()
  cast = await castAt(server.url)
  ;[desk, other] = [await (await Person.at(server.url)).signIn('maren.quill'), await (await Person.at(server.url)).signIn('tobias.achterberg')]
})
afterAll(async () => {
  for (const person of [desk, other]) await person?.quit()
  await house?.close()
})

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!
const partId = async (code: string) => (await one<{ id: number }>('SELECT id FROM part WHERE code = ?', [code])).id

test('a part that is not there is bought for the order, which waits for it by name and goes on when it comes', async () => {
  const { id } = await orderAt(cast, 'ready')
  await cast.coordinator.must(savePlan, { orderId: id, version: 0, parts: [{ partId: await partId('PL-303'), quantity: '5' }] })
  await desk.go(`/desk/planning/order/${id}`)
  await desk.reads('4 pc are not in stock')
  await desk.press('Buy 4')
  await desk.reads('asked for for it')
  await desk.press('Wait for Toilet fill valve')
  await desk.reads('It waits, and goes on by itself when they come.')
  expect(await one('SELECT state, hold_reason AS what FROM work_order WHERE id = ?', [id])).toEqual({ state: 'on_hold', what: 'part' })
  const { number } = await one<{ number: string }>('SELECT p.number FROM purchase p JOIN purchase_line l ON l.purchase_id = p.id WHERE l.order_id = ?', [id])
  await desk.press(number)
  await desk.find(By.xpath(`//section[@aria-label='Purchase ${number}']`))
  await desk.type('Expected on', 'tomorrow')
  await desk.leave()
  await desk.reads('Kept.')
  await desk.press('Order it')
  await desk.reads(`${number} is ordered; Northbay Cooling is sent it by mail.`)
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Receive', "//section[starts-with(@aria-label,'Purchase')]")
  await desk.type('How many came of Toilet fill valve, pc', '4')
  await desk.type('Price of one', '13,50')
  await desk.press('Take it in')
  await desk.reads('Received. What orders waited for is reserved for them.')
  expect(await one('SELECT state FROM work_order WHERE id = ?', [id])).toEqual({ state: 'ready' })
  expect(await one('SELECT quantity FROM reservation WHERE order_id = ?', [id])).toEqual({ quantity: '5.000' })
})

test('the last one of a part is issued by two people: one has it, the other is told why not', async () => {
  const { id } = await cast.coordinator.must(addPart, { code: 'LAST-1', name: 'Last gasket', unit: 'pc' })
  await cast.coordinator.must(moveStock, { act: 'receipt', storeId: 1, partId: id, quantity: '1', unitCostMinor: 100 })
  const { number } = await one<{ number: string }>('SELECT number FROM work_order WHERE id = ?', [(await orderAt(cast, 'ready')).id])
  for (const person of [desk, other]) {
    await person.go(`/registers/parts/${id}`)
    await person.press('Move or count')
    await person.choose('What happens', 'Issue to an order')
    await person.type('How many', '1')
    await person.type('Order', number)
  }
  const issue = (person: Person) => person.press('Issue to an order', "//form[@aria-label='Move stock']/div[contains(@class,'row')]")
  await issue(desk)
  await desk.reads('Issue to an order: done.')
  await issue(other)
  await other.reads('There are 0 pc of it free in this store.')
  expect(await house.rows("SELECT id FROM stock_movement WHERE part_id = ? AND kind = 'issue'", [id])).toHaveLength(1)
})

test('what has run low is told with its sum, and becomes purchases in one act', async () => {
  await desk.go('/stock')
  await desk.press('Why', "//tr[contains(., 'Door closer')]")
  await desk.reads('Economic quantity: √')
  expect(await desk.accessibilityFindings()).toEqual([])
  const before = (await house.rows('SELECT id FROM purchase')).length
  await desk.press('Ask for')
  await desk.find(By.xpath("//table[@aria-label='Purchases']"))
  expect((await house.rows('SELECT id FROM purchase')).length).toBeGreaterThan(before)
  await desk.type('Find', 'door closer')
  await desk.until('only that is listed', async () => (await desk.driver.findElements(By.xpath("//table[@aria-label='Purchases']/tbody/tr"))).length === 1)
})

test('a store is counted by key alone, and what differs is corrected', async () => {
  await desk.go('/stock/count')
  const field = await desk.field('Found of Hinge, stainless')
  await field.sendKeys('38', Key.TAB)
  await desk.type('Who counted, and why it differs', 'Maren, two were used and not written down')
  await desk.keys(Key.ENTER)
  await desk.reads('40 becomes 38 pair.')
  expect(await desk.accessibilityFindings()).toEqual([])
})

test('a plan that grew beyond what was agreed to is asked about again, with what changed', async () => {
  const { id } = await orderAt(cast, 'ready')
  await cast.coordinator.must(savePlan, { orderId: id, version: 0, parts: [{ partId: await partId('LS-401'), quantity: '4' }] })
  await desk.go(`/desk/planning/order/${id}`)
  await desk.reads('What is planned comes to 336.00; 200.00 was agreed to. Ask for approval again, or plan less.')
  await desk.move('Ask for approval again')
  await desk.type('What has changed since it was agreed to', 'The pump takes four seals, not one')
  await desk.press('Ask for approval again', "//form[@class='ask']")
  await desk.reads('waits for approval again')
  expect(await one('SELECT state, estimate_minor AS estimate, outgrown_minor AS outgrown FROM work_order WHERE id = ?', [id])).toEqual({
    state: 'to_approve',
    estimate: 33_600,
    outgrown: null,
  })
})
