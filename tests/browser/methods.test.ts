import { accepted, approved, castAt, dispatched, House, report } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** A method from the library to the phone: written, offered, applied, a step given away, and done on the job. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let clerk: Person
let phone: Person

beforeAll(async () => {
  house = await House.open('methods_seen')
  server = await house.start()
  cast = await castAt(server.url)
  ;[desk, clerk, phone] = [
    await (await Person.at(server.url)).signIn('maren.quill'),
    await (await Person.at(server.url)).signIn('petra.lindqvist'),
    await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran'),
  ]
})
afterAll(async () => {
  for (const person of [desk, clerk, phone]) await person?.quit()
  await house?.close()
})

const inRow = (text: string) => `//div[contains(@class,'step')][.//p[contains(., '${text}')]]`

test('written on its Portrait, and what cannot be kept is said at its field', async () => {
  await desk.go('/registers/methods')
  await desk.press('New method')
  await desk.type('Code (needed)', 'M-SINK-1')
  await desk.type('Name (needed)', 'Sink light renewed')
  await desk.press('Enter it')
  await desk.press('Write it')
  await desk.press('Add a step')
  await desk.type('Step 1', 'Order the lamp')
  await (await desk.find(By.xpath("//*[contains(@class,'n-checkbox')][contains(.,'Before anybody is dispatched')]"))).click()
  await desk.press('Add a step')
  await desk.type('Step 2', 'Brightness')
  await desk.press('Add labour')
  await desk.choose('Of which trade', 'Electrical')
  await desk.choose('Asks for', 'Measured value')
  await desk.press('Keep as version 1')
  await desk.reads('Say in which unit it is measured.')
  await desk.choose('Asks for', 'Done or not')
  await desk.press('Keep as version 1')
  await desk.reads('Version 1 is written.')
  await desk.reads('before dispatch')
  expect(await desk.accessibilityFindings()).toEqual([])
})

test('found, read and applied on the Sheet; a step given away is done by somebody else; nobody goes before it', async () => {
  const id = await accepted(cast, (await report(cast)).id)
  await approved(cast, id)
  await desk.go(`/desk/dispatch/order/${id}`)
  await desk.press('Apply a method')
  // What was opened has the keyboard.
  await desk.until('the search has the keyboard', async () => (await (await desk.focused()).getAttribute('id')) === 'offer-q')
  await desk.type('Find a method by name or code', 'sink')
  await (await desk.find(By.xpath("//li[contains(., 'M-SINK-1')]//*[contains(@class,'n-checkbox')]"))).click()
  await desk.press('What it adds', "//li[contains(., 'M-SINK-1')]")
  await desk.reads('Order the lamp')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Apply the method')
  await desk.reads('2 of 2 steps to do')
  await desk.press('Change', inRow('Order the lamp'))
  await desk.choose('Done by', 'Petra Lindqvist')
  await desk.press('Keep it')
  await desk.reads('For Petra Lindqvist')

  await desk.reads('To be done before anybody goes')
  await desk.press('Bram Oyelaran')
  await desk.press('Dispatch and tell them')
  await desk.reads('This step has to be done before anybody goes: “Order the lamp”.')

  // By key alone: the step is the first thing to press.
  await clerk.go('/my-steps')
  await clerk.reads('Order the lamp')
  await clerk.press('Done', inRow('Order the lamp'))
  await clerk.reads('The step is done.')
  expect(await clerk.accessibilityFindings()).toEqual([])
  await desk.reads('Done by Petra Lindqvist')
  await desk.readsNot('To be done before anybody goes')
  await desk.press('Dispatch and tell them')
  await desk.until(
    'it is dispatched',
    async () => (await house.rows<{ state: string }>('SELECT state FROM work_order WHERE id = ?', [id]))[0]!.state === 'dispatched',
  )
})

test('on the phone each step asks for what it wants, and is taken back where one was wrong', async () => {
  const id = await accepted(cast, (await report(cast)).id)
  await approved(cast, id)
  const [method] = await house.rows<{ id: number }>("SELECT id FROM method WHERE code = 'M-DRAIN-1'")
  await cast.coordinator.must((await import('#contract/methods')).applyMethods, { orderId: id, version: 0, methodIds: [method!.id] })
  const visitId = await dispatched(cast, id)
  await phone.go(`/rounds/${visitId}`)
  await phone.reads('4 of 4 to do')
  await phone.press('Done', inRow('Take off the trap'))
  await phone.reads('3 of 4 to do')
  await (await phone.find(By.xpath(`${inRow('What it was')}//*[contains(@class,'n-base-selection')]`))).click()
  await phone.driver.actions().sendKeys('Grease').perform()
  await phone.driver.sleep(300)
  await phone.keys(Key.ENTER)
  await phone.press('Done', inRow('What it was'))
  await phone.reads('2 of 4 to do')
  await phone.reads('Grease')
  await phone.press('Take it back', inRow('Take off the trap'))
  await phone.reads('3 of 4 to do')
  await phone.press('Leave out', inRow('Flush for five minutes'))
  await phone.type('Why it is left out', 'No water today')
  await phone.press('Leave it out')
  await phone.reads('No water today')
  expect(await phone.accessibilityFindings()).toEqual([])
})

test('parts are kept for the order where they lie; what stands between it and dispatch is told, and each line leads to its cure', async () => {
  const id = await accepted(cast, (await report(cast)).id)
  await approved(cast, id)
  const [method] = await house.rows<{ id: number }>("SELECT id FROM method WHERE code = 'M-COIL-1'")
  await cast.coordinator.must((await import('#contract/methods')).applyMethods, { orderId: id, version: 0, methodIds: [method!.id] })
  await desk.go(`/desk/dispatch/order/${id}`)
  await desk.press('1 pc of Fan belt A38 is on hand and not reserved for it.')
  await desk.press('Reserve', "//tr[contains(., 'HV-201')]")
  await desk.reads('Reserved in')
  await desk.readsNot('1 pc of Fan belt A38 is on hand and not reserved for it.')
  await desk.reads('It takes a permit: electrical isolation.')
  await desk.press('Issue', "//tr[contains(., 'HV-201')]")
  await desk.type('How many', '1')
  await desk.press('Issue to an order')
  await desk.reads('Issue to an order: done.')
  expect(await house.rows('SELECT quantity FROM stock_movement WHERE order_id = ?', [id])).toHaveLength(1)
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.go('/registers/parts/13')
  await desk.press('Move or count')
  await desk.type('How many', '3')
  await desk.press('Receive', "//form[@aria-label='Move stock']/div[contains(@class,'row')]")
  await desk.reads('Say what one of it cost.')
  await desk.type('Price of one', '90')
  await desk.press('Receive', "//form[@aria-label='Move stock']/div[contains(@class,'row')]")
  await desk.reads('Receive: done.')
  expect(await desk.accessibilityFindings()).toEqual([])
})
