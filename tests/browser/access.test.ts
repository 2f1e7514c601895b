import { report, Client, House } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

let house: House
let server: Running
let token: string
const people = new Map<string, Person>()

beforeAll(async () => {
  house = await House.open('access')
  server = await house.start()
  const coordinator = await new Client(server.url).signIn('maren.quill')
  token = (await report({ coordinator, anybody: new Client(server.url) } as Cast)).token
  people.set('coordinator', await (await Person.at(server.url)).signIn('maren.quill'))
  people.set('administrator', await (await Person.at(server.url)).signInByForm('wendeline.stroud'))
  people.set('technician', await (await Person.at(server.url, 'phone')).signInByForm('bram.oyelaran'))
  people.set('anybody', await Person.at(server.url, 'phone'))
})
afterAll(async () => {
  for (const person of people.values()) await person.quit()
  await house?.close()
})

/** Every main view, who looks at it, and words that say it is there. */
const VIEWS: [who: string, address: string | (() => string), words: string][] = [
  ['coordinator', '/desk/intake', 'Intake'],
  ['coordinator', '/desk/triage', 'Triage'],
  ['coordinator', '/desk/planning', 'Planning'],
  ['coordinator', '/desk/dispatch', 'Dispatch'],
  ['coordinator', '/desk/field', 'In the field'],
  ['coordinator', '/desk/wrapup', 'Wrap-up'],
  ['coordinator', '/desk/charges', 'Charges'],
  ['coordinator', '/registers/assets', 'Seawater chiller 1'],
  ['coordinator', '/registers/assets/1', 'Who knows it'],
  ['coordinator', '/registers/people/1', 'At work'],
  ['coordinator', '/registers/vendors?sort=-insuranceUntil&open=1', 'Close the Portrait'],
  ['coordinator', '/registers/places?as=tree', 'Skerry Sound Marine Station'],
  ['coordinator', '/registers/methods/1', 'What is done'],
  ['coordinator', '/registers/parts/table', 'Records from a table'],
  ['administrator', '/my-steps', 'No step is yours to do'],
  ['coordinator', '/floorplans/3?space=4', 'Wet laboratory 1'],
  ['coordinator', '/documents', 'Thorough examination of the lift'],
  ['coordinator', '/cobie', 'What comes out can be taken in again'],
  ['coordinator', '/board', 'Nobody is planned'],
  ['coordinator', '/transfers', 'Asked for and lent'],
  ['coordinator', '/preventive', 'Work due from'],
  ['coordinator', '/ledger', 'What vendors are owed'],
  ['coordinator', '/ledger/1/2026-10', 'Fish Health Laboratory'],
  ['coordinator', '/insight', 'Repairs again and again'],
  ['coordinator', '/api-reference', 'Report something'],
  ['coordinator', '/lists/orders?state=ready,dispatched&priority=urgent', 'Priority: Urgent'],
  ['coordinator', '/lists/orders?state=ready,dispatched&group=trade', 'Plumbing'],
  ['coordinator', '/lists/requests?state=new', 'State: New'],
  ['coordinator', '/search?q=chiller', 'Chiller 1 trips'],
  ['administrator', '/setup', 'People who sign in'],
  ['administrator', '/setup/rules', 'What makes a priority'],
  ['administrator', '/setup/intake', 'What requests are about'],
  ['administrator', '/setup/fields', 'R-1234ze'],
  ['administrator', '/setup/states', 'Waiting for the tide'],
  ['administrator', '/setup/tables', 'A CSV file with a heading line'],
  ['administrator', '/help-pages', 'Help articles'],
  ['coordinator', '/kept-mail', 'Mail that made no request'],
  ['technician', '/rounds', 'Rounds'],
  ['anybody', '/c/SKE', 'Where is it?'],
  ['anybody', '/c/SKE?place=TID-101&asset=F-003', 'Freezer bank 1'],
  ['anybody', '/c/SKE/mine', 'Mail me the link'],
  ['anybody', () => `/t/${token}`, 'What has happened'],
  ['anybody', '/sign-in', 'Sign in'],
]

test.each(VIEWS)('%s at %s has no serious accessibility finding and does not reach over the edge', async (who, address, words) => {
  const person = people.get(who)!
  const to = typeof address === 'string' ? address : address()
  await person.go(to)
  await person.reads(words)
  const rows = to.startsWith('/desk/')
    ? await person.driver.wait(async () => person.driver.findElements(By.css('ol .row')).then((found) => (found.length ? found : null)), 5_000)
    : null
  if (rows) {
    await rows[0]!.click()
    await person.reads('Timeline')
    await person.driver.sleep(300)
  }
  expect(await person.accessibilityFindings()).toEqual([])
  expect(await person.overflow()).toBe(0)
})

test('a first view reads few files, and each once', async () => {
  const files = async (who: string, address: string, words: string) => {
    const person = people.get(who)!
    await person.load(address)
    await person.reads(words)
    return person.driver.executeScript<string[]>(
      "return performance.getEntriesByType('resource').map(({ name }) => name).filter((name) => name.endsWith('.js'))",
    )
  }
  const [desk, counter] = [await files('coordinator', '/desk/intake', 'Intake'), await files('anybody', '/c/SKE', 'Where is it?')]
  expect([new Set(desk).size, new Set(counter).size]).toEqual([desk.length, counter.length])
  expect(desk.length).toBeLessThan(60)
  expect(counter.length).toBeLessThan(25)
})

test('an endpoint of the reference says who may and what it takes, once it is opened', async () => {
  const coordinator = people.get('coordinator')!
  await coordinator.go('/api-reference')
  await coordinator.type('Find', 'Report something')
  expect(await coordinator.readsNot('Who may:')).toBe(true)
  await coordinator.press('POST')
  await coordinator.reads('Who may:')
  await coordinator.reads('placeId')
  expect(await coordinator.accessibilityFindings()).toEqual([])
})

test('forms that open over or beside a view have no serious finding either', async () => {
  const administrator = people.get('administrator')!
  await administrator.go('/help-pages')
  await administrator.press('Write a notice')
  await administrator.reads('What people should know')
  expect(await administrator.accessibilityFindings()).toEqual([])
  await administrator.go('/setup/intake')
  await administrator.press('Freezer')
  await administrator.reads('As a reporter sees it')
  expect(await administrator.accessibilityFindings()).toEqual([])
  const coordinator = people.get('coordinator')!
  await coordinator.go('/lists/orders?state=ready')
  await coordinator.find(By.css('tr.row'))
  await coordinator.pick('Add a filter', 'Finished')
  await coordinator.reads('Last 30 days')
  expect(await coordinator.accessibilityFindings()).toEqual([])
  await coordinator.press('Leave it')
  await coordinator.keys(Key.ARROW_DOWN, 'm', Key.ENTER)
  await coordinator.reads('Timeline')
  await coordinator.reads('1 row marked')
  expect(await coordinator.accessibilityFindings()).toEqual([])
  await coordinator.go('/desk/planning')
  await coordinator.find(By.css('ol .row'))
  await coordinator.keys('n')
  await coordinator.reads('Open there already')
  expect(await coordinator.accessibilityFindings()).toEqual([])
})

test('dark colours have no serious finding either', async () => {
  const person = people.get('coordinator')!
  await person.driver.executeScript("localStorage.setItem('evrix-theme', 'dark')")
  await person.load('/desk/planning')
  await (await person.driver.wait(async () => person.driver.findElements(By.css('ol .row')).then((found) => found[0] ?? null), 5_000))!.click()
  await person.reads('Timeline')
  await person.driver.sleep(300)
  expect(await person.accessibilityFindings()).toEqual([])
})

test('targets on the phone views are 48 px, and twice the text size still fits', async () => {
  const person = people.get('anybody')!
  await person.go('/c/SKE')
  await person.reads('Where is it?')
  const small =
    "return [...document.querySelectorAll('button, .n-input')].filter((one) => one.offsetParent && one.getBoundingClientRect().height < 47.5).map((one) => one.outerHTML.slice(0, 80))"
  expect(await person.driver.executeScript(small)).toEqual([])
  await person.driver.executeScript(
    "document.documentElement.style.fontSize = '200%'; document.body.style.fontSize = '200%'; for (const one of document.querySelectorAll('*')) { const size = parseFloat(getComputedStyle(one).fontSize); one.dataset.size = size } for (const one of document.querySelectorAll('*')) one.style.fontSize = one.dataset.size * 1.6 + 'px'",
  )
  expect(await person.overflow()).toBe(0)
})

test('charts, schemas and the components of the Desk never load on the Counter', async () => {
  const person = people.get('anybody')!
  await person.go('/c/SKE')
  await person.reads('Where is it?')
  const loaded: string[] = await person.driver.executeScript(
    "return performance.getEntriesByType('resource').map((one) => new URL(one.name).pathname).filter((name) => name.endsWith('.js'))",
  )
  expect(loaded.length).toBeGreaterThan(1)
  for (const name of ['PickField', 'InsightView', 'DeskFrame', 'BenchView', 'PhotoEditor', 'RichTextField'])
    expect(loaded.filter((one) => one.includes(name))).toEqual([])
})
