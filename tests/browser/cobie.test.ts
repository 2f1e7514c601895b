import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { utils, write } from '@e965/xlsx'
import { House } from '../kit'
import type { Running } from '../kit'
import { By, Person } from '../kit/browser'

/** A COBie workbook in a real browser: looked at, its unknown columns kept, taken in, and the building given out. */
let house: House
let server: Running
let admin: Person
let folder: string

beforeAll(async () => {
  house = await House.open('cobie_seen')
  server = await house.start()
  admin = await (await Person.at(server.url)).signIn('wendeline.stroud')
  folder = mkdtempSync(path.join(tmpdir(), 'cobie-'))
})
afterAll(async () => {
  rmSync(folder, { recursive: true, force: true })
  await admin?.quit()
  await house?.close()
})

test('what it would do is read first; bad rows stay out, unknown columns become own fields, and the building can be given out', async () => {
  const book = utils.book_new()
  const add = (name: string, rows: string[][]) => utils.book_append_sheet(book, utils.aoa_to_sheet(rows), name)
  add('Facility', [
    ['Name', 'Description'],
    ['NET', 'Net Loft'],
  ])
  add('Floor', [['Name'], ['NET-0']])
  add('Space', [
    ['Name', 'FloorName', 'Description'],
    ['NET-001', 'NET-0', 'Mending room'],
  ])
  add('Component', [
    ['Name', 'Space', 'Description', 'Paint code'],
    ['DRY-1', 'NET-001', 'Dryer', 'RAL 7035'],
    ['DRY-2', 'NET-404', 'Dryer', ''],
  ])
  const file = path.join(folder, 'net-loft.xlsx')
  writeFileSync(file, write(book, { type: 'buffer', bookType: 'xlsx' }) as Buffer)
  await admin.go('/registers/assets')
  await admin.press('COBie')
  await admin.find(By.xpath("//h1[normalize-space(.)='COBie']"))
  await admin.upload('Workbook', file)
  await admin.reads('There is no space called “NET-404” that can be taken.')
  expect(await admin.accessibilityFindings()).toEqual([])
  await (await admin.find(By.xpath("//*[@role='checkbox'][contains(.,'Keep them as own fields')]"))).click()
  await admin.press('Take in 4, leave the 1 that cannot be')
  await admin.reads('It is taken in.')
  const [row] = await house.rows<{ name: string; says: string }>(
    "SELECT a.name, v.text AS says FROM asset a JOIN own_value v ON v.record_id = a.id JOIN own_field f ON f.id = v.field_id WHERE a.tag = 'DRY-1' AND f.label = 'Paint code'",
  )
  expect(row).toEqual({ name: 'Dryer', says: 'RAL 7035' })
  const link = await admin.find(By.xpath("//section[@aria-label='Give out a building']//a[contains(.,'Net Loft')]"))
  expect(await link.getAttribute('href')).toMatch(/\/api\/cobie\/buildings\/\d+$/)
})
