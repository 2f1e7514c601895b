import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { addEquipment } from '#contract/stock'
import { castAt, dispatched, House, orderAt } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'
import { cameraPlaying, filmOf } from '../kit/camera'
import { eInvoice } from '../kit/eInvoice'

/** On the spot with a camera, parts by their code, words between desk and phone, and a vendor’s job by the pass. */
let house: House
let server: Running
let cast: Cast
let phone: Person
let desk: Person
/** How long the browser has to show what was delivered. */
const AGAIN_MS = 3_000
const folder = mkdtempSync(path.join(process.env.EVRIX_TEST_FOLDER ?? tmpdir(), 'camera-'))

beforeAll(async () => {
  house = await House.open('in_the_field', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  const film = filmOf(folder, `${server.url}/c/SKE?place=GAN-204`)
  ;[phone, desk] = [
    await (await Person.at(server.url, 'phone', cameraPlaying(film))).signIn('sunniva.teague'),
    await (await Person.at(server.url)).signIn('maren.quill'),
  ]
})
afterAll(async () => {
  for (const person of [phone, desk]) await person?.quit()
  await house?.close()
})

test('a label is scanned with the camera; what is open and was done there is seen; three presses start the work', async () => {
  await phone.go('/rounds')
  await phone.press('On the spot')
  await phone.press('Scan a label')
  await phone.reads('Studio 4')
  await phone.reads('Done here before')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  await phone.type('What is wrong', 'Handle of the window is loose. Asked in passing.')
  await phone.press('Start on it now')
  await phone.reads('Stop the clock')
  await phone.reads('Handle of the window is loose')
})

test('a part is found by its code, taken out of the van, and a little of it brought back; equipment is taken by its tag', async () => {
  await phone.press('Part')
  await phone.type('Part by name or code', 'HV-201')
  await phone.keys(Key.ENTER)
  await phone.reads('My van, Van 1')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  await phone.type('How many', '2')
  await phone.press('Use it')
  await phone.reads('2 pc Fan belt A38')
  await phone.press('Bring back')
  await phone.press('Bring back', "//form[starts-with(@aria-label, 'Bring back')]")
  await phone.reads('1 pc Fan belt A38')
  await cast.coordinator.must(addEquipment, { siteId: 1, tag: 'EQ-77', name: 'Hoist' })
  await phone.press('Other equipment')
  await phone.type('Tag of the equipment', 'eq-77')
  await phone.keys(Key.ENTER)
  await phone.reads('Handed out to Sunniva Teague')
  await phone.press('Finish')
  await phone.reads('Still with this job: Hoist')
  await phone.press('Not yet')
})

test('what is written on the phone is read at the desk, and the answer on the phone', async () => {
  const visitId = Number((await phone.driver.getCurrentUrl()).split('/').at(-1))
  await phone.press('Write a message')
  await phone.type('To the desk', 'Which handle do we keep in stock?')
  expect(await phone.accessibilityFindings()).toEqual([])
  await phone.press('Send')
  await phone.reads('Which handle do we keep in stock?')
  const [{ id }] = (await house.rows<{ id: number }>('SELECT order_id AS id FROM visit WHERE id = ?', [visitId])) as [{ id: number }]
  await desk.go(`/desk/field/order/${id}`)
  await desk.reads('Which handle do we keep in stock?')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.type('To our people on it', 'The long one, in the main store')
  await (await desk.focused()).sendKeys(Key.chord(Key.CONTROL, Key.ENTER))
  await phone.reads('The long one, in the main store')
})

test('a vendor works by the pass: comes, begins, reads a meter, puts time right, finds, brings a part, and sends an electronic invoice that is read', async () => {
  const { id } = await orderAt(cast, 'ready')
  await house.rows("UPDATE work_order SET asset_id = (SELECT id FROM asset WHERE tag = 'GEN-1') WHERE id = ?", [id])
  await dispatched(cast, id, { vendorId: 1 })
  const [{ email }] = (await house.rows<{ email: string }>('SELECT email FROM vendor WHERE id = 1')) as [{ email: string }]
  const link = /\/p\/[\w-]+/.exec((await house.mail(email)).text)![0]
  await phone.go(link)
  await phone.press('Yes, we come then')
  await phone.reads('You have accepted.')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  await phone.press('Name a price')
  await phone.type('In all before tax', '450')
  await phone.press('Send the price')
  await phone.reads('The desk has it.')
  await phone.press('Work')
  // The button rests while the clock is started, and has the keyboard again afterwards.
  await phone.until('the clock runs', async () => (await phone.find(By.xpath('//button[@aria-pressed="true"]'))).isEnabled())
  await phone.until('the keyboard is where it was', async () => (await (await phone.focused()).getText()) === 'Work')
  // What is opened by key is gone on in by key.
  for (let tabs = 0; tabs < 60 && (await (await phone.focused()).getText()) !== 'Note'; tabs++) await phone.keys(Key.TAB)
  await phone.keys(Key.ENTER)
  await phone.until('the note has the keyboard', async () => (await (await phone.focused()).getTagName()) === 'textarea')
  await phone.go(link)
  await phone.type('Now, h', '900')
  await phone.press('Write it down')
  await phone.press('It is right')
  await phone.reads('Read here: 900 h')
  await phone.press('It cannot be used')
  await phone.type('Why, if that is known', 'Belt is off')
  await phone.press('Write it down', '//form[@aria-label="It cannot be used"]')
  await phone.reads('GEN-1 cannot be used')
  await phone.press('Stop the clock')
  await (await phone.find(By.css('[aria-label^="Put right Work"]'))).click()
  await phone.type('From', '09:05')
  await phone.type('Why', 'Began before the link was opened')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  await phone.press('Put it right')
  await phone.reads('Work 09:05 to')
  await phone.press('Add a part')
  await phone.type('What', 'Door gasket')
  await phone.press('Write it down', '//section[@aria-label="Parts you brought"]')
  await phone.reads('1 pc Door gasket')
  await phone.press('Record a finding')
  await phone.type('What is wrong, and where exactly', 'Hinge of the next door is cracked')
  await phone.press('Tell the desk')
  await phone.reads('Waits for an order')
  await phone.press('Enter the bill')
  const lines = [
    { name: 'Call-out', quantity: '1', price: '140.00', amount: '140.00' },
    { name: 'Fitter', quantity: '1.25', price: '71.00', amount: '88.75' },
  ]
  const file = path.join(folder, 'OHM-118.xml')
  writeFileSync(file, await eInvoice({ number: 'OHM-118', lines, net: '228.75' }))
  await phone.upload('As a file, if you have one', file)
  await phone.reads('Look it through, then send it.')
  expect(await phone.accessibilityFindings()).toEqual([])
  expect(await phone.overflow()).toBe(0)
  await phone.press('Send the bill')
  await phone.reads('Your bill OHM-118')
  await phone.reads('228.75')
})

test('without signal something is reported all the same, and reaches the desk once there is signal', async () => {
  await phone.go('/rounds/spot')
  await phone.until('the phone carries its jobs', async () => (await phone.driver.executeScript('return document.documentElement.dataset.carried')) === 'yes')
  await phone.signal('cut')
  await phone.type('Code, name or tag', 'KEL-302')
  await phone.reads('cannot be looked up without signal')
  await phone.press('Report something at KEL-302')
  await phone.type('What is wrong', 'Blind is torn')
  await phone.press('Report it')
  await phone.reads('Kept on this phone.')
  await phone.signal('whole')
  await phone.until(
    'it has reached the desk',
    async () => (await house.rows("SELECT id FROM request WHERE summary = 'Blind is torn' AND place_id IS NOT NULL")).length === 1,
  )
})

test('news that comes through the browser’s push service is shown, and leads to the job', async () => {
  await phone.driver.sendDevToolsCommand('Browser.grantPermissions', { origin: server.url, permissions: ['notifications'] })
  await phone.go('/rounds')
  await phone.until(
    'Rounds is installed',
    async () => await phone.driver.executeAsyncScript<boolean>('navigator.serviceWorker.ready.then(({ active }) => arguments[0](!!active))'),
  )
  await phone.driver.sendDevToolsCommand('ServiceWorker.enable', {})
  const told = { sentence: 'New job W-31500: Lamp is out', leadsTo: '/rounds' }
  // Which registration it is, the browser tells by an event alone: it is the only one, and among the first.
  const deliver = async () => {
    for (const registrationId of ['0', '1', '2'])
      await phone.driver
        .sendDevToolsCommand('ServiceWorker.deliverPushMessage', { origin: server.url, registrationId, data: JSON.stringify(told) })
        .catch(() => undefined)
  }
  const shown = () =>
    phone.driver.executeAsyncScript<string[]>(
      'navigator.serviceWorker.ready.then(async (one) => arguments[0]((await one.getNotifications()).map(({ body }) => body)))',
    )
  // What comes while the browser is still keeping what was installed it lets fall: a push service delivers it again.
  let delivered = 0
  await phone.until('it is shown', async () => {
    if (Date.now() - delivered > AGAIN_MS) await deliver().then(() => (delivered = Date.now()))
    return (await shown()).includes(told.sentence)
  })
})
