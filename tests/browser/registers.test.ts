import { readAsset } from '#contract/assets'
import { castAt, House } from '../kit'
import type { Cast, Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Registers and Portraits in a real browser: entered during a call, read beside the work, moved in the tree. */
let house: House
let server: Running
let cast: Cast
let desk: Person

beforeAll(async () => {
  house = await House.open('registers_seen')
  server = await house.start()
  cast = await castAt(server.url)
  desk = await (await Person.at(server.url)).signIn('maren.quill')
})
afterAll(async () => {
  await desk?.quit()
  await house?.close()
})

const one = async <Row>(sql: string, values: unknown[] = []) => (await house.rows<Row>(sql, values))[0]!

test('a machine nobody had entered is entered by its name during the call, and the request is about it', async () => {
  await desk.go('/desk/intake')
  await desk.find(By.css('ol .row'))
  await desk.keys('n')
  await desk.type('Name, if not found', 'Clio Corrigan')
  await desk.pick('Where (needed)', 'GAN-202')
  const machine = await desk.field('Which machine')
  await machine.click()
  await desk.keys('Tea urn')
  await desk.reads('Nothing is called “Tea urn”')
  await desk.reads('is in no register')
  await desk.keys(Key.TAB, Key.ENTER)
  await desk.until('it is chosen', async () => await desk.readsNot('is in no register'))
  await desk.type('In one line (needed)', 'Urn does not heat')
  await desk.press('Save for the next call')
  await desk.reads('is in Intake.')
  const row = await one<{ tag: string; name: string; code: string }>(
    "SELECT a.tag, a.name, p.code FROM request r JOIN asset a ON a.id = r.asset_id JOIN place p ON p.id = a.place_id WHERE r.summary = 'Urn does not heat'",
  )
  expect(row).toEqual({ tag: expect.stringMatching(/^A-\d{5}$/), name: 'Tea urn', code: 'GAN-202' })
  await desk.keys(Key.ESCAPE)
})

test('a vendor is entered with two fields, found at once, and refused a second time', async () => {
  await desk.go('/registers/vendors')
  await desk.press('New vendor')
  await desk.type('Name (needed)', 'Kittiwake Locks')
  await desk.press('Enter it')
  await desk.reads('This is needed.')
  await desk.type('Mail (needed)', 'jobs@kittiwake.example')
  await desk.press('Enter it')
  await desk.reads('Kittiwake Locks is entered.')
  // It stands beside the list it was entered from.
  await desk.find(By.xpath("//*[@id='list-sheet']//h1[normalize-space(.)='Kittiwake Locks']"))
  expect(await desk.accessibilityFindings()).toEqual([])
  await desk.press('New vendor')
  await desk.type('Name (needed)', 'Kittiwake Locks')
  await desk.type('Mail (needed)', 'other@kittiwake.example')
  await desk.press('Enter it')
  await desk.reads('belongs to another vendor already')
  await desk.press('Open the one that has it')
  await desk.find(By.xpath("//*[@role='dialog'][@aria-label='Portrait']//h1[normalize-space(.)='Kittiwake Locks']"))
  await desk.keys(Key.ESCAPE)
})

test('the vendor of two fields is sent a job', async () => {
  const order = await one<{ id: number }>("SELECT id FROM work_order WHERE state = 'ready' AND lead_order_id IS NULL ORDER BY id DESC LIMIT 1")
  await desk.go(`/desk/dispatch/order/${order.id}`)
  await desk.press('Dispatch', "//section[@id='sheet']")
  await desk.press('Vendors for other trades')
  await desk.press('Kittiwake Locks')
  await desk.press('Dispatch and tell them')
  await desk.reads('is dispatched')
  const sent = await one<{ email: string }>('SELECT w.email FROM visit v JOIN vendor w ON w.id = v.vendor_id WHERE v.order_id = ?', [order.id])
  expect(sent.email).toBe('jobs@kittiwake.example')
})

test('the Portrait of the asset opens beside a Sheet by key, is changed there, and the Sheet stays', async () => {
  const order = await one<{ id: number; asset_id: number; tag: string }>(
    "SELECT o.id, o.asset_id, a.tag FROM work_order o JOIN asset a ON a.id = o.asset_id WHERE o.state = 'ready' LIMIT 1",
  )
  await house.rows('UPDATE asset SET `condition` = NULL WHERE id = ?', [order.asset_id])
  await desk.go(`/desk/dispatch/order/${order.id}`)
  await desk.reads('This asset')
  await desk.driver.executeScript('document.getElementById("sheet").focus()')
  await desk.keys('.')
  await desk.find(By.xpath(`//*[@role='dialog'][@aria-label='Portrait']//*[normalize-space(.)='${order.tag}']`))
  await desk.reads('Who knows it')
  const dialog = "//*[@role='dialog'][@aria-label='Portrait']"
  await desk.press('–', `${dialog}//*[@data-field='condition']`)
  await desk.pick('Condition', 'Poor')
  await desk.until('it is kept', async () => (await cast.coordinator.must(readAsset, { id: order.asset_id })).condition === 'poor')
  await desk.reads('changed condition from nothing to poor')
  await desk.keys(Key.ESCAPE)
  await desk.until('it is closed', async () => (await desk.driver.findElements(By.xpath(dialog))).length === 0)
  expect(await desk.driver.getCurrentUrl()).toContain(`/desk/dispatch/order/${order.id}`)
})

test('in the tree an asset is found by typing and moved by keys, and that is taken back', async () => {
  const before = await one<{ place_id: number; id: number }>("SELECT id, place_id FROM asset WHERE tag = 'CH-1'")
  await desk.go('/registers/places?as=tree')
  await desk.reads('Skerry Sound Marine Station')
  await desk.pick('Find in the tree', 'CH-1')
  await desk.find(By.css('.n-tree-node--selected'))
  expect(await desk.accessibilityFindings()).toEqual([])
  // The line the arrow keys went to is the one that is moved, not the one that was found.
  await desk.keys(Key.ARROW_UP)
  const above = await (await desk.find(By.css('.n-tree-node--pending .code'))).getText()
  expect(above).not.toBe('CH-1')
  await desk.keys('m')
  await desk.find(By.xpath(`//*[@aria-label='Move']//p[contains(., '${above}')]`))
  // Left where it is, the keyboard is on its line again.
  await desk.press('Leave it where it is')
  await desk.keys(Key.ARROW_DOWN)
  expect(await (await desk.find(By.css('.n-tree-node--pending .code'))).getText()).toBe('CH-1')
  await desk.keys('m')
  await desk.reads('with all that is in it, into')
  await desk.pick('Into', 'PUM-102')
  await desk.reads('stands in PUM-102')
  const placed = async () => (await one<{ code: string }>('SELECT p.code FROM asset a JOIN place p ON p.id = a.place_id WHERE a.id = ?', [before.id])).code
  expect(await placed()).toBe('PUM-102')
  const parts = await house.rows<{ place_id: number }>('SELECT DISTINCT place_id FROM asset WHERE parent_id = ?', [before.id])
  expect(parts).toHaveLength(1)
  await desk.press('Undo')
  await desk.until('it is back', async () => (await placed()) === 'PUM-101')
})

test('a record is retired with what is open on it said, and taken into use again', async () => {
  const busy = await one<{ id: number }>(
    "SELECT a.id FROM asset a JOIN work_order o ON o.asset_id = a.id WHERE o.state = 'dispatched' AND NOT EXISTS (SELECT 1 FROM asset b WHERE b.parent_id = a.id) LIMIT 1",
  )
  await desk.go(`/registers/assets/${busy.id}`)
  await desk.reads('open order')
  await desk.press('Retire')
  await desk.press('What is open on it stays open')
  await desk.press('Retire it')
  await desk.reads('It is retired. Its history stays.')
  await desk.press('Take into use again')
  await desk.until('it is', async () => (await one<{ at: string | null }>('SELECT retired_at AS at FROM asset WHERE id = ?', [busy.id])).at === null)
  expect(await desk.accessibilityFindings()).toEqual([])
})

test('a transfer is asked for by one and agreed by another, and the asset stands there at once', async () => {
  const asset = await one<{ id: number; tag: string }>(
    "SELECT a.id, a.tag FROM asset a WHERE a.tag LIKE 'FC-%' AND NOT EXISTS (SELECT 1 FROM work_order o WHERE o.asset_id = a.id AND o.state IN ('dispatched', 'on_job')) LIMIT 1",
  )
  await desk.go(`/registers/assets/${asset.id}`)
  await desk.press('Ask for a transfer')
  await desk.pick('To the place', 'GAN-204')
  await desk.press('Ask for it')
  await desk.reads('This is needed.')
  await desk.type('Why (needed)', 'Warmer there')
  await desk.press('Ask for it')
  await desk.reads('Whoever answers there decides.')
  await desk.reads('“Warmer there”')
  expect(await desk.readsNot('It is back')).toBe(true)

  const tobias = await (await Person.at(server.url)).signIn('tobias.achterberg')
  await tobias.go('/transfers')
  const row = `//li[contains(., '${asset.tag}')]`
  await tobias.press('Agree', row)
  await tobias.reads(`${asset.tag}: agree.`)
  const placed = async () => (await one<{ code: string }>('SELECT p.code FROM asset a JOIN place p ON p.id = a.place_id WHERE a.id = ?', [asset.id])).code
  expect(await placed()).toBe('GAN-204')
  expect(await tobias.accessibilityFindings()).toEqual([])
  await tobias.quit()
  // The page that asked hears of it by itself.
  await desk.find(By.xpath("//*[@data-field='placeId']//button[contains(., 'GAN-204')]"))
})

test('a scanned label opens the Portrait for who is at the desk, and the Counter for a stranger', async () => {
  await desk.go('/c/SKE?place=PUM-101&asset=CH-1')
  await desk.find(By.xpath("//h1[normalize-space(.)='Seawater chiller 1']"))
  expect(await desk.driver.getCurrentUrl()).toMatch(/\/registers\/assets\/\d+$/)
  await desk.press('Report something here')
  await desk.until('the Counter is open', async () => (await desk.driver.getCurrentUrl()).includes('/c/SKE?asset=CH-1'))
  await desk.reads('Seawater chiller 1')
  const stranger = await Person.at(server.url, 'phone')
  await stranger.go('/c/SKE?place=PUM-101&asset=CH-1')
  await stranger.reads('Seawater chiller 1')
  expect(await stranger.driver.getCurrentUrl()).toContain('/c/SKE')
  await stranger.quit()
})

test('a field of its own goes from Setup onto the Portrait, into the list and its filters', async () => {
  const admin = await (await Person.at(server.url)).signIn('wendeline.stroud')
  await admin.go('/setup/fields')
  await admin.pick('Of', 'Vendors')
  await admin.reads('Nothing was added to vendors yet.')
  await admin.type('Called', 'Vetted by')
  await admin.pick('What it is', 'Choice')
  await admin.press('Add the field')
  await admin.reads('Write at least two things to choose from.')
  await admin.type('What can be chosen, one on a line', 'Safety office\nPurchasing')
  await admin.press('Add the field')
  await admin.reads('stands on every one of them from now on.')
  expect(await admin.accessibilityFindings()).toEqual([])
  await admin.quit()

  await desk.go('/registers/vendors')
  await (await desk.find(By.xpath("//tbody//td[normalize-space(.)='Brightside Cleaning']"))).click()
  await desk.reads('More facts')
  await desk.pick('Vetted by', 'Purchasing')
  await desk.until('it is kept', async () => (await house.rows("SELECT 1 FROM own_value WHERE text = 'purchasing'")).length === 1)
  await desk.reads('vetted by from nothing to Purchasing')
  await desk.press('Close the Portrait')
  await desk.press('Columns')
  await desk.press('Vetted by', "//*[@role='dialog']")
  await desk.press('Close', "//*[@role='dialog']")
  await desk.find(By.xpath("//tbody//td[normalize-space(.)='Purchasing']"))
  await desk.pick('Add a filter', 'Vetted by')
  // The list of values has the keyboard: typed into, chosen from and sent without a mouse.
  await desk.until('the list of values has the keyboard', () =>
    desk.driver.executeScript('return document.activeElement.closest(\'[role="dialog"] .n-base-selection\') !== null'),
  )
  await desk.keys('Purch')
  await desk.find(By.css('.n-base-select-option'))
  await desk.driver.sleep(300)
  await desk.keys(Key.ENTER)
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform()
  await desk.reads('Vetted by: Purchasing')
  await desk.until('one is left', async () => (await desk.driver.findElements(By.css('tbody tr.row'))).length === 1)
  expect(await desk.accessibilityFindings()).toEqual([])
})

test('a technician’s week, skills and leave are kept on their Portrait', async () => {
  const bram = await one<{ id: number }>("SELECT id FROM person WHERE name = 'Bram Oyelaran'")
  await desk.go(`/registers/people/${bram.id}`)
  await desk.reads('Skills and certificates')
  await desk.type('Tuesday', '8-12, 13-17')
  await desk.leave()
  await desk.reads('08:00-12:00, 13:00-17:00')
  await desk.press('Note a skill')
  await desk.type('Skill', 'High voltage')
  await desk.type('Good until', '2027-05-01')
  await desk.press('Note the skill')
  await desk.reads('High voltage is noted.')
  await desk.press('Note leave')
  await desk.type('Through', '2026-12-03')
  const from = await desk.driver.findElement(By.css('#leave-from'))
  await from.sendKeys('2026-12-01', Key.TAB)
  await desk.press('Note the leave')
  await desk.reads('1 Dec 2026 to 3 Dec 2026')
  expect(await desk.accessibilityFindings()).toEqual([])
})
