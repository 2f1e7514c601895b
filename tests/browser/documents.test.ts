import { createWriteStream, mkdtempSync, rmSync } from 'node:fs'
import { finished } from 'node:stream/promises'
import { tmpdir } from 'node:os'
import path from 'node:path'
import PDFDocument from 'pdfkit'
import { accepted, approved, castAt, dispatched, House, report } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Documents in a real browser: added on a Portrait, looked at without leaving, found by the words inside, read on the phone. */
let house: House
let server: Running
let cast: Cast
let desk: Person
let folder: string

beforeAll(async () => {
  house = await House.open('documents_seen')
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
  folder = mkdtempSync(path.join(tmpdir(), 'documents-'))
})
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await desk?.quit()
  await house?.close()
})

async function pdf(name: string, ...pages: string[]): Promise<string> {
  const file = path.join(folder, name)
  const out = createWriteStream(file)
  const document = new PDFDocument()
  document.pipe(out)
  pages.forEach((text, index) => (index ? document.addPage() : document).fontSize(20).text(text))
  document.end()
  await finished(out)
  return file
}
const chiller = async () => (await house.rows<{ id: number }>("SELECT id FROM asset WHERE tag = 'CH-2'"))[0]!.id
/** How much of what is drawn is ink: an empty page has none. */
const ink = (person: Person) =>
  person.driver.executeScript<number>(`const canvas = document.querySelector('[role="dialog"] canvas')
    if (!canvas) return 0
    const { data } = canvas.getContext('2d').getImageData(0, 0, canvas.width, canvas.height)
    let dark = 0
    for (let at = 0; at < data.length; at += 4) if (data[at] < 100) dark++
    return dark`)

test('a certificate is added with what is said of it, looked at page by page, renewed, put away and taken back', async () => {
  const file = await pdf('pressure-test.pdf', 'Held at 18 bar', 'Signed by the gudgeon inspector')
  await desk.go(`/registers/assets/${await chiller()}`)
  await desk.press('Add a document')
  await desk.press('Add it')
  await desk.reads('Choose a file.')
  await desk.upload('File, up to 15 MB', file)
  await desk.press('Add it')
  await desk.reads('Say what kind it is.')
  await desk.choose('Kind', 'Certificate')
  await desk.type('Valid from', '1 Dec 2026')
  await desk.type('Valid until', '1 Nov 2026')
  await desk.keys(Key.TAB)
  await (await desk.find(By.xpath("//*[@role='checkbox'][contains(.,'Technicians')]"))).click()
  await desk.press('Add it')
  await desk.reads('It would end before it begins to be valid.')
  await desk.type('Valid from', '1 Nov 2026')
  await desk.type('Valid until', '10 Dec 2026')
  await desk.keys(Key.TAB)
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('Add it')
  await desk.reads('pressure-test is added.')
  await desk.reads('Ends soon')
  await desk.press('pressure-test', "//ul[@aria-label='Documents']")
  await desk.until('the first page is drawn', async () => (await ink(desk)) > 50)
  await desk.reads('1 of 2')
  await desk.keys(Key.PAGE_DOWN)
  await desk.reads('2 of 2')
  await desk.until('the second page is drawn', async () => (await ink(desk)) > 50)
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.keys(Key.ESCAPE)
  await desk.upload('New version of pressure-test', await pdf('pressure-test-2.pdf', 'Held at 19 bar'))
  await desk.reads('2 versions')
  await desk.press('2 versions')
  await desk.reads('Version 1')
  await desk.press('Put away', "//li[.//*[normalize-space(.)='pressure-test']]")
  await desk.reads('pressure-test was put away.')
  await desk.press('Undo')
  await desk.reads('Taken back.')
  const [row] = await house.rows<{ kind: string; retired_at: Date | null; audience: string }>(
    "SELECT kind, retired_at, audience FROM document WHERE title = 'pressure-test'",
  )
  expect(row).toMatchObject({ kind: 'certificate', retired_at: null })
  expect(JSON.stringify(row!.audience)).toContain('technician')
})

test('it is found by the words inside, and leads to what it is of', async () => {
  await desk.go('/search?q=shut%20off%20tanks')
  const found = await desk.find(By.xpath("//a[contains(.,'Where to shut off, Tidehall')] | //button[contains(.,'Where to shut off, Tidehall')]"))
  await found.click()
  await desk.find(By.xpath("//h1[contains(.,'Tidehall')]"))
  await desk.press('Where to shut off, Tidehall', "//ul[@aria-label='Documents']")
  await desk.reads('valve W3 behind the north door')
  await desk.keys(Key.ESCAPE)
})

test('all of them stand on a page of their own, what ends first before the others', async () => {
  await desk.go('/documents')
  await desk.find(By.xpath("//ul[@aria-label='Documents']/li[2]"))
  await desk.choose('Validity', 'Ends soon')
  await desk.reads('Thorough examination of the lift')
  await desk.until('those that ended are gone', async () => (await desk.driver.findElements(By.css('strong.ended'))).length === 0)
  expect(await desk.accessibilityFindings()).toEqual([])
})

test('a technician reads the manual on the phone, at the machine', async () => {
  const orderId = await accepted(cast, (await report(cast, { placeId: 20, summary: 'Chiller rattles' })).id)
  await house.rows('UPDATE work_order SET asset_id = ? WHERE id = ?', [await chiller(), orderId])
  await approved(cast, orderId)
  const visitId = await dispatched(cast, orderId)
  const bram = await (await Person.at(server.url, 'phone')).signIn('bram.oyelaran')
  try {
    await bram.go(`/rounds/${visitId}`)
    await bram.reads('Documents')
    const manual = await bram.find(By.xpath("//section[@aria-label='Documents']//button[contains(.,'operation and care')]"))
    await bram.driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', manual)
    await manual.click()
    await bram.until('the page is drawn', async () => (await ink(bram)) > 50)
    expect(await bram.accessibilityFindings()).toEqual([])
  } finally {
    await bram.quit()
  }
})
