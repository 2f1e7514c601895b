import { castAt, House } from '../kit'
import type { Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Many orders from one template: forty rooms and back, spaces picked on a plan, a template written by key. */
let house: House
let server: Running
let desk: Person

beforeAll(async () => {
  house = await House.open('templates_seen')
  server = await house.start()
  await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})

const live = async (summary: string) => (await house.rows('SELECT id FROM work_order WHERE summary LIKE ? AND discarded_at IS NULL', [summary])).length
const inForm = "//form[@aria-label='Make orders']"

test('forty rooms get an order each under one that leads them, and all are taken back in one act', async () => {
  const codes = (
    await house.rows<{ code: string }>("SELECT code FROM place WHERE site_id = 1 AND kind = 'space' AND code LIKE 'GAN-%' ORDER BY code LIMIT 40")
  ).map(({ code }) => code)
  await desk.go('/templates')
  await desk.press('Make orders', "//article[@aria-label='Rooms painted before the season']")
  await desk.choose('For', 'Codes or a CSV')
  await (await desk.field('Codes of places')).sendKeys([...codes, 'GAN-NOWHERE'].join(', '))
  await desk.reads('40 orders would be made')
  await desk.reads('Nothing here is called GAN-NOWHERE.')
  await desk.choose('Put together', 'Under a new lead order')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Make 40 orders')
  await desk.reads('40 orders made')
  expect(await live('Walls painted, GAN-%')).toBe(40)
  await desk.find(By.xpath("//section[@aria-label='Made last']//tr[contains(., 'Rooms painted')]"))
  await desk.press('Close', inForm)
  await desk.press('Take back', "//section[@aria-label='Made last']")
  await desk.reads('41 orders taken back.')
  await desk.reads('taken back')
  expect(await live('Walls painted, GAN-%')).toBe(0)
  expect(await desk.accessibilityFindings()).toEqual([])
})

test('spaces picked on a plan go to a template, one is left out, and what is open already is not doubled', async () => {
  const [floor] = await house.rows<{ id: number }>("SELECT id FROM place WHERE code = 'PUM-1'")
  await desk.go(`/floorplans/${floor!.id}`)
  await desk.find(By.css('.leaflet-container canvas'))
  await desk.press('Pick spaces')
  for (const code of ['PUM-103', 'PUM-104', 'PUM-105']) await (await desk.find(By.xpath(`//li//button[.//span[normalize-space(.)='${code}']]`))).click()
  await desk.reads('3 spaces picked.')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Make orders for them')
  await desk.reads('3 places chosen.')
  await desk.press('Make orders', "//article[@aria-label='Lights looked over']")
  await desk.reads('3 orders would be made')
  await (await desk.find(By.xpath("//*[@role='checkbox'][@aria-label='Make one for PUM-105']"))).click()
  await desk.press('Make 2 orders')
  await desk.reads('2 orders made')
  await desk.press('Close', inForm)
  await desk.press('Make orders', "//article[@aria-label='Lights looked over']")
  await desk.reads('1 order would be made')
  await desk.reads('2 would be doubled and are left out')
  expect(await live('Lights looked over, PUM-%')).toBe(2)
})

test('a template is written by key, and what is wrong stands at its field', async () => {
  await desk.go('/templates')
  await desk.press('New template')
  await (await desk.field('Name')).sendKeys('Windows cleaned', Key.TAB, 'Windows cleaned, {room}', Key.TAB, 'Inside and outside.')
  const submit = async () => (await desk.field('Name')).sendKeys(Key.chord(Key.CONTROL, Key.ENTER))
  await submit()
  await desk.reads('{room} means nothing here: write {code} or {name}.')
  await desk.type('In one line', 'Windows cleaned, {code}')
  await submit()
  await desk.find(By.xpath("//article[@aria-label='Windows cleaned']"))
  await desk.press('Change', "//article[@aria-label='Windows cleaned']")
  await desk.press('Put away')
  await desk.reads('1 put away')
})
