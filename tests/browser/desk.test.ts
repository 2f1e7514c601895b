import { enterCall } from '#contract/requests'
import { Client, House } from '../kit'
import type { Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

let house: House
let server: Running
let desk: Person

beforeAll(async () => {
  house = await House.open('desk')
  server = await house.start()
  desk = await (await (await Person.at(server.url)).signIn('maren.quill')).go('/')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})

const focusedId = async () => (await desk.focused()).getAttribute('id')
/** How many lines the open select offers. */
const offered = () => desk.driver.executeScript("return [...document.querySelectorAll('.n-base-select-option')].filter((one) => one.offsetParent).length")
const lines = async () => (await desk.driver.findElements(By.css('ol .row'))).length
/** Goes on with Tab until the field has the keyboard. */
async function tabTo(id: string): Promise<void> {
  for (let n = 0; n < 60 && (await focusedId()) !== id; n++) await desk.keys(Key.TAB)
  expect(await focusedId()).toBe(id)
}

test('the Desk by keyboard alone: a call, triage, accept, hold, undo, palette, stations, help', async () => {
  await desk.find(By.css('ol .row'))
  const waiting = await lines()
  await desk.keys('n')
  await desk.driver.wait(async () => (await focusedId()) === 'call-person', 5_000, 'step 1')
  await desk.keys('Clio')
  await desk.driver.wait(
    async () => (await desk.driver.findElements(By.xpath('//*[contains(@class, "n-base-select-option")][contains(., "Clio")]'))).length > 0,
    5_000,
    'nobody found',
  )
  await desk.keys(Key.ARROW_DOWN, Key.ENTER)
  await tabTo('call-summary')
  await desk.keys('Window handle came off')
  await tabTo('call-description')
  await desk.keys('The left window, since yesterday, I have it in my hand.')
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform()
  await desk.reads('is in Intake.')
  await desk.keys(Key.ESCAPE)

  // Down the queue to the last line, which is the newest.
  await desk.driver.wait(async () => (await lines()) === waiting + 1, 5_000, 'step 2')
  for (let n = 0; n <= waiting; n++) await desk.keys(Key.ARROW_DOWN)
  await desk.reads('Phone,')
  await desk.keys('t')
  await desk.reads('is in Triage.')
  await desk.keys('2')
  await desk.driver.wait(async () => (await desk.driver.getCurrentUrl()).includes('/desk/triage'), 5_000, 'step 3')
  await desk.driver.wait(async () => (await desk.driver.findElements(By.css('ol .row'))).length === 6, 5_000, 'step 4')
  for (let n = 0; n < 6; n++) await desk.keys(Key.ARROW_DOWN)
  await desk.reads('Phone,')
  await desk.keys('a')
  await desk.reads('is not possible yet')
  await desk.keys(Key.ENTER)
  expect(await focusedId()).toBe('sheet')
  await tabTo('f-categoryId')
  await desk.keys('Furniture')
  await desk.driver.wait(async () => (await offered()) === 1, 5_000, 'options 1')
  await desk.keys(Key.ENTER)
  // What is missing has the keyboard then: one person, this week.
  const cell = () => desk.focused().then((one) => one.getAttribute('aria-label'))
  await desk.driver.wait(async () => (await cell())?.startsWith('Nobody affected, Can wait'), 5_000, 'the grid')
  await desk.keys('2', '2')
  await desk.reads('Routine, because one person is affected')
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('a')
  await desk.reads('Missing before it can be submitted')

  // A ready order: hold with its reason, undo at once.
  await desk.keys('4')
  await desk.driver.wait(async () => (await desk.driver.getCurrentUrl()).includes('/desk/dispatch'), 5_000, 'step 7')
  await desk.driver.wait(async () => (await desk.driver.findElements(By.css('ol .row'))).length > 5, 5_000, 'step 8')
  await desk.keys(Key.ARROW_DOWN)
  await desk.reads('Put on hold')
  await desk.keys('h')
  await desk.driver.wait(async () => (await focusedId()) === 'move-reason', 5_000, 'step 9')
  await desk.keys('Seal on order')
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform()
  await desk.reads('is on hold')
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('u')
  await desk.reads('Taken back.')
  await desk.driver.wait(async () => (await desk.driver.findElements(By.css('[data-move="hold"]'))).length === 1, 5_000, 'step 10')

  // The palette finds a record and runs an act; the help lists the keys.
  await desk.keys('/')
  await desk.keys('CH-1')
  await desk.reads('Asset: Seawater chiller 1')
  await desk.keys(Key.ESCAPE, '?')
  await desk.reads('Keys on this screen')
  await desk.keys(Key.ESCAPE)
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys('k').keyUp(Key.CONTROL).perform()
  await desk.keys('ledger', Key.ENTER)
  await desk.reads('What vendors are owed')
})

test('by keyboard a fact turns into its field, is kept by Enter and has the keyboard again', async () => {
  const [row] = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE state = 'ready' AND discarded_at IS NULL ORDER BY id LIMIT 1")
  await desk.go(`/desk/dispatch/order/${row!.id}`)
  await desk.find(By.css('[data-field="access"] .fact-value'))
  const said = async () => (await desk.focused()).getAttribute('aria-label')
  await desk.driver.executeScript('document.querySelector(`[data-field="access"] .fact-value`).focus()')
  await desk.keys(Key.ENTER)
  await desk.until('the field', async () => (await focusedId()) === 'f-access')
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys('a').keyUp(Key.CONTROL).perform()
  await desk.keys('Ring at the side', Key.ENTER)
  await desk.until('the fact again', async () => (await said()) === 'Getting in: Ring at the side')
  await desk.keys(Key.TAB)
  expect(await said()).toMatch(/^Note for whoever does it: /)
  const [kept] = await house.rows<{ access: string }>('SELECT access FROM work_order WHERE id = ?', [row!.id])
  expect(kept!.access).toBe('Ring at the side')
})

test('two coordinators change the same field: both values, nothing lost, and changes arrive by themselves', async () => {
  const [row] = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE state = 'draft' AND discarded_at IS NULL ORDER BY id DESC LIMIT 1")
  const other = await (await Person.at(server.url)).signIn('tobias.achterberg')
  await other.go(`/desk/planning/order/${row!.id}`)
  await desk.go(`/desk/planning/order/${row!.id}`)
  await desk.type('Summary', 'Handle came off, second floor')
  await other.type('Summary', 'Handle broken')
  await other.leave()
  await desk.driver.sleep(600)
  await desk.leave()
  await desk.reads('Somebody else changed this too')
  await desk.reads('Theirs: Handle broken')
  await desk.reads('Yours: Handle came off, second floor')
  await desk.press('Save this choice')
  await other.reads('Handle came off, second floor')
  await other.quit()
})

test('a request from elsewhere appears in the open queue without reloading, also after the line was lost', async () => {
  await desk.go('/desk/intake')
  await desk.reads('Live')
  const clerk = await new Client(server.url).signIn('tobias.achterberg')
  const call = (summary: string) => clerk.must(enterCall, { siteId: 1, placeId: 20, summary, description: 'Told by phone.' })
  await call('Sent while looking')
  await desk.reads('Sent while looking')
  await desk.driver.executeScript('window.kept = true')
  const port = new URL(server.url).port
  await server.stop()
  await desk.reads('Offline')
  server = await house.start({ PORT: port })
  await (
    await new Client(server.url).signIn('tobias.achterberg')
  ).must(enterCall, { siteId: 1, placeId: 20, summary: 'Sent while away', description: 'Told by phone.' })
  await desk.reads('Sent while away')
  expect(await desk.driver.executeScript('return window.kept')).toBe(true)
})
