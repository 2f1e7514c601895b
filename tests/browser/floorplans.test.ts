import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { buffer } from 'node:stream/consumers'
import PDFDocument from 'pdfkit'
import sharp from 'sharp'
import { readFloorplan } from '#contract/floorplans'
import { listRequests } from '#contract/requests'
import { castAt, House } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Floor plans in a real browser: taken in from a file, pins moved by key, places and machines chosen where they are. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let folder: string

beforeAll(async () => {
  house = await House.open('floorplans_seen')
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
  folder = mkdtempSync(path.join(tmpdir(), 'plans-'))
})
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await desk?.quit()
  await house?.close()
})

const placeId = async (code: string) => (await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code]))[0]!.id
const planOf = async (code: string) => cast.coordinator.must(readFloorplan, { id: await placeId(code) })
const line = (code: string, within = '') => By.xpath(`${within}//li//button[.//span[normalize-space(.)='${code}']]`)

test('a plan is looked at before it is taken in: good rows alone, and the new space entered when wished', async () => {
  const plan = await planOf('PUM-1')
  const ring = [
    [0, 20],
    [6, 20],
    [6, 26],
    [0, 26],
    [0, 20],
  ]
  const polygon = (points: number[][]) => ({ type: 'Polygon', coordinates: [points] })
  const file = path.join(folder, 'upper.geojson')
  writeFileSync(
    file,
    JSON.stringify({
      type: 'FeatureCollection',
      features: [
        { type: 'Feature', properties: { code: 'PUM-150', name: 'Hose store' }, geometry: polygon(ring) },
        { type: 'Feature', properties: { code: 'PUM-101' }, geometry: polygon(ring.slice(0, 4)) },
      ],
    }),
  )
  await desk.go(`/floorplans/${plan.place.id}`)
  await desk.find(By.css('.leaflet-container canvas'))
  await desk.press('Take in a plan')
  await desk.upload('File', file)
  await desk.reads('is not closed')
  await (await desk.find(By.xpath("//*[@role='checkbox'][contains(.,'not there yet')]"))).click()
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Draw 1, leave the 1 that cannot be')
  await desk.reads('1 place or asset drawn on PUM-1 Upper floor.')
  await desk.find(line('PUM-150'))
  expect((await planOf('PUM-1')).spaces.find(({ code }) => code === 'PUM-150')!.shape).toHaveLength(1)
})

test('a pin is found, moved by its arrow keys, kept by Enter and taken back; Esc leaves it where it was', async () => {
  const before = (await planOf('PUM-1')).assets.find(({ tag }) => tag === 'CH-1')!
  const now = async () => (await planOf('PUM-1')).assets.find(({ tag }) => tag === 'CH-1')!
  await desk.type('Find on this floor', 'seawater chiller 1')
  await desk.keys(Key.TAB, Key.ENTER)
  await desk.find(By.xpath("//section[@aria-label='Chosen']//a[contains(.,'CH-1')]"))
  await desk.press('Move it')
  await desk.reads('Enter keeps, Esc leaves.')
  await desk.keys(Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ARROW_UP)
  await desk.keys(Key.ESCAPE)
  await desk.readsNot('Enter keeps')
  expect(await now()).toEqual(before)
  await desk.press('Move it')
  await desk.reads('Enter keeps, Esc leaves.')
  await desk.driver
    .actions()
    .keyDown(Key.SHIFT)
    .sendKeys(Key.ARROW_RIGHT, Key.ARROW_RIGHT)
    .keyUp(Key.SHIFT)
    .sendKeys(Key.ARROW_UP)
    .sendKeys(Key.ENTER)
    .perform()
  await desk.reads('CH-1 was moved on the plan.')
  const moved = await now()
  expect(moved.at![0]).toBeCloseTo(before.at![0] + 2, 6)
  expect(moved.at![1]).toBeCloseTo(before.at![1] + 0.1, 6)
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Undo')
  await desk.reads('Taken back.')
  expect((await now()).at).toEqual(before.at)
})

test('one that is dragged into another room says so, and its record follows when that is wished', async () => {
  await desk.press('Whole')
  await desk.press('Move it')
  const pin = await desk.find(By.css('.moving-pin'))
  const room = (await planOf('PUM-1')).spaces.find(({ code }) => code === 'PUM-102')!
  const { width, height } = await (await desk.find(By.css('.leaflet-container'))).getRect()
  const plan = await planOf('PUM-1')
  const corners = plan.spaces.flatMap(({ shape }) => shape?.flat() ?? [])
  const span = (axis: 0 | 1) => Math.max(...corners.map((corner) => corner[axis])) - Math.min(...corners.map((corner) => corner[axis]))
  // The whole floor is in sight: as near as that allows, in quarters of doublings.
  const pixelsAMetre = 2 ** (Math.floor(Math.log2(Math.min((width - 32) / span(0), (height - 32) / span(1))) * 4) / 4)
  const [[west], [east]] = [room.shape![0]![0]!, room.shape![0]![1]!]
  const metres = (west + east) / 2 - plan.assets.find(({ tag }) => tag === 'CH-1')!.at![0]
  const far = Math.round(metres * pixelsAMetre)
  await desk.driver.actions().move({ origin: pin }).press().move({ origin: pin, x: 30, y: -10 }).move({ origin: pin, x: far, y: -10 }).release().perform()
  await desk.reads('was moved on the plan.')
  const words = await desk.reads('On the plan it stands in')
  const code = /stands in (PUM-\d+)/.exec(await words.getText())![1]!
  expect(code).toBe('PUM-102')
  await desk.press(`Change its record to ${code}`)
  await desk.reads(`Its record says ${code} now.`)
  const [row] = await house.rows<{ code: string }>("SELECT p.code FROM asset a JOIN place p ON p.id = a.place_id WHERE a.tag = 'CH-1'")
  expect(row!.code).toBe(code)
})

test('a page of a PDF lies under the plan, is moved, and is taken away; a file that is none says so', async () => {
  const plan = await planOf('PUM-1')
  const [drawing, broken] = ['drawing.pdf', 'broken.pdf'].map((name) => path.join(folder, name)) as [string, string]
  // The second page is all red: which page was laid can be seen by its colour.
  const pdf = new PDFDocument({ size: [200, 100], margin: 10 })
  pdf.text('Cover sheet')
  pdf
    .addPage({ size: [200, 100], margin: 0 })
    .rect(0, 0, 200, 100)
    .fill('#ff0000')
  pdf.end()
  writeFileSync(drawing, await buffer(pdf))
  writeFileSync(broken, '%PDF-1.4 and nothing more')
  await desk.go(`/floorplans/${plan.place.id}`)
  await desk.find(By.css('.leaflet-container canvas'))
  await desk.press('Picture under it')
  await desk.upload('Picture or PDF', broken)
  await desk.reads('The PDF could not be opened')
  await desk.upload('Picture or PDF', drawing)
  await desk.type('Which of its 2 pages', '2')
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Lay this page')
  await desk.reads('The page lies under the plan.')
  const laid = (await planOf('PUM-1')).picture!
  expect(laid.name).toBe('drawing page 2.png')
  const [picture] = await house.rows<{ content: Buffer }>('SELECT content FROM attachment WHERE id = ?', [laid.fileId])
  const { dominant } = await sharp(picture!.content).stats()
  expect([dominant.r > 240, dominant.g < 20, dominant.b < 20]).toEqual([true, true, true])
  await desk.type('Width', '12.5')
  await desk.press('Keep')
  await desk.reads('The picture was moved.')
  expect((await planOf('PUM-1')).picture).toMatchObject({ width: 12.5, left: laid.left })
  await desk.press('Take it away')
  await desk.reads('The picture was taken away.')
  expect((await planOf('PUM-1')).picture).toBeNull()
  await desk.keys(Key.ESCAPE)
})

test('a call takes its place and its machine from the plan, without a mouse', async () => {
  await desk.go('/desk/intake')
  await desk.find(By.css('ol .row'))
  await desk.keys('n')
  await desk.type('Name, if not found', 'Clio Corrigan')
  await (await desk.find(By.xpath("(//button[@aria-label='From the plan'])[1]"))).sendKeys(Key.ENTER)
  await desk.choose('Floor', 'PUM-1 Upper floor, Pump House')
  await desk.find(line('PUM-104', "//*[@role='dialog']"))
  await desk.type('Find on this floor', 'PUM-104')
  await desk.keys(Key.TAB, Key.ENTER)
  await desk.find(By.xpath("//button[normalize-space(.)='Take PUM-104 Store 1']"))
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.keys(Key.ENTER)
  await desk.until(
    'the call has the place',
    async () => (await desk.driver.findElements(By.xpath("//*[contains(@class,'n-base-selection')][contains(.,'PUM-104 Store 1')]"))).length > 0,
  )
  await (await desk.find(By.xpath("(//button[@aria-label='From the plan'])[2]"))).sendKeys(Key.ENTER)
  await desk.find(line('CH-2', "//*[@role='dialog']"))
  await desk.type('Find on this floor', 'seawater chiller 2')
  await desk.keys(Key.TAB, Key.ENTER)
  await desk.press('Take CH-2 Seawater chiller 2')
  await desk.type('In one line (needed)', 'Hums in the night')
  await desk.press('Save for the next call')
  await desk.reads('is in Intake.')
  const [row] = await house.rows<{ code: string; tag: string }>(
    "SELECT p.code, a.tag FROM request r JOIN place p ON p.id = r.place_id JOIN asset a ON a.id = r.asset_id WHERE r.summary = 'Hums in the night'",
  )
  expect(row).toEqual({ code: 'PUM-104', tag: 'CH-2' })
  await desk.keys(Key.ESCAPE)
})

test('in triage a place is put right from the plan', async () => {
  const { rows } = await cast.coordinator.must(listRequests, { q: 'Hums in the night' })
  await desk.go(`/desk/triage/request/${rows[0]!.id}`)
  await desk.press('Place')
  await (await desk.find(By.xpath("//button[@aria-label='From the plan']"))).click()
  await desk.find(line('PUM-105', "//*[@role='dialog']"))
  await (await desk.find(line('PUM-105', "//*[@role='dialog']"))).click()
  await desk.press('Take PUM-105 Store 2')
  await desk.until('it is kept', async () => {
    const [row] = await house.rows<{ code: string }>('SELECT p.code FROM request r JOIN place p ON p.id = r.place_id WHERE r.id = ?', [rows[0]!.id])
    return row!.code === 'PUM-105'
  })
})

test('who reports on a phone chooses the machine from the plan', async () => {
  const reporter = await Person.at(server.url, 'phone')
  try {
    await reporter.go('/c/SKE')
    await reporter.press('From the plan')
    await reporter.choose('Floor', 'Upper floor, Pump House (PUM-1)')
    await reporter.type('Find on this floor', 'CH-2')
    await (await reporter.find(line('CH-2', "//*[@role='dialog']"))).click()
    expect(await reporter.accessibilityFindings()).toEqual([])
    await reporter.press('Take CH-2 Seawater chiller 2')
    await reporter.reads('What is it about?')
    await reporter.press('Back')
    await reporter.reads('Seawater chiller 2')
  } finally {
    await reporter.quit()
  }
})

test('a Portrait shows where it is on its floor and leads to the plan', async () => {
  const [row] = await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag = 'CH-2'")
  await desk.go(`/registers/assets/${row!.id}`)
  await desk.find(By.css('.leaflet-container canvas'))
  await desk.press('Open the plan')
  await desk.find(By.xpath("//section[@aria-label='Chosen']//a[contains(.,'CH-2')]"))
})
