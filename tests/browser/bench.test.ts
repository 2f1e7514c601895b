import { readOrder } from '#contract/orders'
import { castAt, House, orderAt, report } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** What the bench does besides the way through: other outcomes, old work, panes, and screens with nothing on them. */
let house: House
let server: Running
let cast: Cast
let desk: Person

beforeAll(async () => {
  house = await House.open('bench', { mail: true })
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})
const numberOf = async (id: number) => (await cast.coordinator.must(readOrder, { id })).number
const widthOf = async (label: string) => Number(await (await desk.find(By.css(`[aria-label="${label}"]`))).getAttribute('aria-valuenow'))

test('a request is accepted into an order that is open already, and both show the link', async () => {
  const { id } = await orderAt(cast, 'ready')
  const second = await report(cast, { summary: 'The same light, from next door' })
  await desk.go(`/desk/intake/request/${second.id}`)
  await desk.reads('Decide')
  for (const [label, words] of [
    ['What it is about', 'Lights'],
    ['Who pays', '5300'],
  ] as const)
    await desk.pick(label, words)
  await desk.say('One person, Today')
  await desk.reads('Promised:')
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('o')
  await desk.until('the field has the keyboard', async () => (await (await desk.focused()).getAttribute('id')) === 'into-order')
  await desk.pick('Into which order', await numberOf(id))
  await desk.reads(`is accepted into ${await numberOf(id)}`)
  await desk.reads('Became')
  await desk.go(`/desk/dispatch/order/${id}`)
  await desk.reads('The same light, from next door')
  expect((await cast.coordinator.must(readOrder, { id })).requests).toHaveLength(2)
})

test('a closed order is archived, taken back by undo, archived again and brought back from its Sheet', async () => {
  const [row] = await house.rows<{ id: number }>("SELECT id FROM work_order WHERE state = 'closed' AND archived = 0 ORDER BY id DESC LIMIT 1")
  const archived = async () => (await house.rows<{ archived: number }>('SELECT archived FROM work_order WHERE id = ?', [row!.id]))[0]!.archived
  await desk.go(`/desk/charges/order/${row!.id}`)
  await desk.move('Archive')
  await desk.reads('is archived; searching finds it.')
  expect(await archived()).toBe(1)
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('u')
  await desk.reads('Taken back.')
  expect(await archived()).toBe(0)
  await desk.find(By.xpath('//button[starts-with(normalize-space(.), "Archive")]'))
  // A key that falls while the Sheet is drawn anew is pressed again, as anybody would.
  await desk.until('it is archived by its key', async () => {
    await desk.keys('i')
    await desk.driver.sleep(800)
    return !(await desk.readsNot('Archived: out of the daily view'))
  })
  await desk.press('Bring it back')
  await desk.reads('Archive')
  await desk.until('it is back', async () => (await archived()) === 0)
})

test('panes are dragged and moved by keys, and stay as they were left', async () => {
  await desk.go('/desk/planning')
  await (await desk.find(By.css('ol .row'))).click()
  await desk.reads('Timeline')
  const edge = await desk.find(By.css('[aria-label="Width of the queue"]'))
  expect(await widthOf('Width of the queue')).toBe(360)
  await desk.driver.actions().dragAndDrop(edge, { x: 60, y: 0 }).perform()
  expect(await widthOf('Width of the queue')).toBe(420)
  await edge.sendKeys(Key.ARROW_LEFT)
  expect(await widthOf('Width of the queue')).toBe(404)
  const context = await desk.find(By.css('[aria-label="Width of what is known"]'))
  await desk.driver.actions().dragAndDrop(context, { x: -40, y: 0 }).perform()
  expect(await widthOf('Width of what is known')).toBe(340)
  await desk.load('/desk/planning')
  await (await desk.find(By.css('ol .row'))).click()
  expect([await widthOf('Width of the queue'), await widthOf('Width of what is known')]).toEqual([404, 340])
  await (await desk.find(By.css('[aria-label="Fold what is known"]'))).click()
  await desk.find(By.css('[aria-label="Unfold what is known"]'))
  await (await desk.find(By.css('[aria-label="Unfold what is known"]'))).click()
  await desk.driver.executeScript('localStorage.clear()')
})

describe('screens with nothing on them', () => {
  test('a filter that finds nothing says so and can be cleared', async () => {
    await desk.go('/desk/planning')
    await (await desk.find(By.css('input[aria-label="Filter this queue"]'))).sendKeys('zzz nothing')
    await desk.reads('in its number, words or place.')
    await desk.press('Clear the filter')
    await desk.find(By.css('ol .row'))
  })

  test('an empty station says what arrives there', async () => {
    await house.rows("UPDATE work_order SET archived = 1 WHERE state = 'checked'")
    await desk.go('/desk/charges')
    await desk.reads('Nothing waits to be charged. Checked orders arrive here.')
    await desk.reads('What comes next in Charges')
  })

  test('a record that is not there, and an address that leads nowhere', async () => {
    await desk.go('/desk/planning/order/999999')
    await desk.reads('There is no such order, or it is not yours to see.')
    await desk.go('/nowhere/at/all')
    await desk.reads('There is nothing at this address')
  })

  test('what a role does not include is said, not shown', async () => {
    const technician = await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran')
    for (const address of ['/ledger', '/setup', '/insight']) {
      await technician.go(address)
      await technician.reads('Your role does not include this')
    }
    await technician.quit()
  })

  test('a pass that was taken back says whom to call, and shows nothing of the job', async () => {
    const stranger = await Person.at(server.url, 'phone')
    await stranger.go(`/p/${'x'.repeat(43)}`)
    await stranger.reads('It has expired, was taken back, or was not copied whole.')
    expect(await stranger.readsNot('W-')).toBe(true)
    await stranger.quit()
  })
})

test('the API reference finds an endpoint and says what goes in and what comes out', async () => {
  await desk.go('/api-reference')
  await (await desk.find(By.id('api-q'))).sendKeys('approve')
  await desk.press('POST')
  await desk.reads('Answers: Done')
  await desk.reads('version')
  expect(await desk.readsNot('/api/counter/{site}/photos')).toBe(true)
})
