import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import type { WebDriver } from 'selenium-webdriver'
import sharp from 'sharp'
import { House } from '../kit'
import type { Running } from '../kit'
import { By, Key, Person } from '../kit/browser'

/** Every way in, in a real browser: the Counter on a phone, the call form by keyboard, mail through real SMTP. */
let house: House
let server: Running
let phone: Person
let desk: Person
let folder: string
const place = async (code: string) => (await house.rows<{ id: number }>('SELECT id FROM place WHERE code = ?', [code]))[0]!.id

beforeAll(async () => {
  folder = mkdtempSync(path.join(process.env.EVRIX_TEST_FOLDER ?? tmpdir(), 'intake-'))
  house = await House.open('intake', { mail: true })
  server = await house.start()
  phone = await Person.at(server.url, 'phone')
  desk = await (await Person.at(server.url)).signIn('maren.quill')
})
afterAll(async () => {
  await phone?.quit()
  await desk?.quit()
  await house?.close()
})

const choosePlace = async (code: string) => {
  await phone.type('Part of a name', code)
  await (await phone.find(By.xpath(`//ul[@id='found']//button[.//span[normalize-space(.)='${code}']]`))).click()
}
/** From the Counter's first question to the words. */
async function toWords(code: string): Promise<void> {
  await phone.go('/c/SKE')
  await phone.driver.executeScript('localStorage.clear()')
  await phone.go('/c/SKE')
  await choosePlace(code)
  await phone.reads('What is it about?')
  await phone.press('Next')
}

test('a phone: a photo is marked up with undo, questions that hang on answers, everything missing at its field', async () => {
  const photo = path.join(folder, 'photo.png')
  // Grey in every shade, so that what is drawn and what is blurred can be told from it.
  const grain = Buffer.from(Array.from({ length: 1200 * 900 }, (_, n) => 60 + ((n * 7919) % 140)))
  writeFileSync(
    photo,
    await sharp(grain, { raw: { width: 1200, height: 900, channels: 1 } })
      .png()
      .toBuffer(),
  )
  await phone.go('/c/SKE')
  await choosePlace('TID-101')
  await phone.press('Cold rooms and freezers')
  await phone.press('Freezer')
  await phone.press('Next')
  await phone.reads('This is needed.')
  expect(await phone.readsNot('Since when?')).toBe(true)
  await phone.type('What temperature does it show?', '-61')
  await phone.press('Yes', '//*[@role="radiogroup"][@aria-label="Is the alarm on?"]')
  await phone.reads('Since when?')
  await phone.press('Next')
  await phone.type('In one line', 'Freezer is warming up')
  await phone.type('In more words', 'The third from the left, since this morning.')
  await phone.upload('A photo says', photo)
  await phone.until('the photo', async () => (await phone.driver.findElements(By.css('.kept img'))).length === 1)
  // Read anew, as a phone does that was put away: the photo is had again from the server, and can still be drawn on.
  await phone.driver.navigate().refresh()
  const back = async () =>
    phone.driver.executeScript<boolean>("const image = document.querySelector('.kept img'); return !!image && image.complete && image.naturalWidth > 0")
  await phone.until('the photo again', back)
  await phone.press('Cut or draw')
  const canvas = await phone.find(By.css('canvas'))
  await phone.until('the photo on the stage', async () => Number(await canvas.getAttribute('width')) > 400)
  const drag = async (fromX: number, fromY: number, toX: number, toY: number) =>
    phone.driver.actions({ async: true }).move({ origin: canvas, x: fromX, y: fromY }).press().move({ origin: canvas, x: toX, y: toY }).release().perform()
  const undo = await phone.find(By.xpath("//button[normalize-space(.)='Undo']"))
  expect(await undo.isEnabled()).toBe(false)
  await drag(-100, -60, 100, 60)
  await phone.until('undo', () => undo.isEnabled())
  await undo.click()
  await phone.until('nothing to undo', async () => !(await undo.isEnabled()))
  // A blur leaves nothing to make out; a cut shows at once, and both are taken back.
  const wide = Number(await canvas.getAttribute('width'))
  await phone.press('Cut', "//div[@role='toolbar']")
  await drag(-80, -60, 40, 60)
  await phone.until('the cut', async () => Number(await canvas.getAttribute('width')) < wide * 0.6)
  await undo.click()
  await phone.until('whole again', async () => Number(await canvas.getAttribute('width')) === wide)
  const colours = () =>
    phone.driver.executeScript<number>(
      "const c = document.querySelector('canvas'); const d = c.getContext('2d').getImageData(c.width / 2 - 60, c.height / 2 - 60, 120, 120).data; const seen = new Set(); for (let i = 0; i < d.length; i += 4) seen.add(d[i]); return seen.size",
    )
  const before = await colours()
  await phone.press('Blur')
  await drag(-80, -80, 80, 80)
  await phone.until('the blur', () => undo.isEnabled())
  expect(before).toBeGreaterThan(60)
  expect(await colours()).toBeLessThan(40)
  await undo.click()
  await phone.press('Ring')
  await drag(-60, -50, 60, 50)
  await phone.press('Turn')
  await phone.press('Use this photo')
  await phone.until('the editor gone', async () => (await phone.driver.findElements(By.css('canvas'))).length === 0)
  await phone.press('Next')
  await phone.type('Your name', 'Runa Oyelade')
  await phone.press('Send')
  await phone.reads('We have it')
  const number = await (await phone.find(By.css('.reference'))).getText()

  const [kept] = await house.rows<{ content: Buffer; width: number; height: number }>(
    'SELECT a.content, a.width, a.height FROM attachment a JOIN request r ON r.id = a.request_id WHERE r.number = ?',
    [number],
  )
  // Turned: it is upright now; and the ring is on it, in a colour the photo does not have.
  expect(kept!.height).toBeGreaterThan(kept!.width)
  const { data, info } = await sharp(kept!.content).raw().toBuffer({ resolveWithObject: true })
  let marked = 0
  for (let at = 0; at < data.length; at += info.channels) if (Math.abs(data[at]! - data[at + 2]!) > 60) marked++
  expect(marked).toBeGreaterThan(500)
  const [row] = await house.rows<{ answers: unknown }>('SELECT answers FROM request WHERE number = ?', [number])
  expect(row!.answers).toEqual({ shows: -61, alarm: 'yes' })
})

test('a printed code opens the Counter with place and asset filled in', async () => {
  await phone.driver.executeScript('localStorage.clear()')
  await phone.go('/c/SKE?place=TID-101&asset=F-003')
  await phone.reads('Freezer −80 °C, Freezer bank 1')
  await phone.press('Next')
  await phone.reads('What is it about?')
  await phone.driver.executeScript('localStorage.clear()')
  await phone.go('/c/SKE?place=GONE-1')
  await phone.reads('The printed code is not known here.')
})

test('what is reported already shows while typing, with notices and help; “me too” hears by mail', async () => {
  await toWords('GAN-311')
  await phone.type('In one line', 'Radiator stays cold, freezer alarm')
  await phone.reads('Hot water off in Gannet Court')
  await phone.reads('A freezer alarm sounds: what to do until we come')
  await phone.press('Me too')
  await phone.type('Your mail address, to hear', 'neighbour@reporter.example')
  await phone.press('Add me')
  await phone.reads('confirm the address; then you hear how it goes.')
  const confirm = await house.mail('neighbour@reporter.example')
  await phone.go(/http\S+\/t\/[\w-]{43}/.exec(confirm.text)![0])
  await phone.press('Yes, tell me how it goes')
  const mail = await house.mail('neighbour@reporter.example', (one) => one.text.includes('It was reported already'))
  await phone.go(/http\S+\/t\/[\w-]{43}/.exec(mail.text)![0])
  await phone.reads('We have received it.')
  expect(await phone.readsNot('The thermometer')).toBe(true)
})

test('a line that drops while sending: kept on the device, sent by itself when it is back, once', async () => {
  const chrome = phone.driver as WebDriver & { setNetworkConditions: (conditions: object) => Promise<void> }
  const line = (offline: boolean) => chrome.setNetworkConditions({ offline, latency: 0, download_throughput: -1, upload_throughput: -1 })
  await toWords('KEL-104')
  await phone.type('In one line', 'Blind fell off while offline')
  await phone.type('In more words', 'The one by the door.')
  await phone.press('Next')
  await line(true)
  await phone.press('Send')
  await phone.reads('What you wrote is kept on this device')
  await line(false)
  await phone.reads('We have it')
  expect(await house.rows("SELECT id FROM request WHERE summary = 'Blind fell off while offline'")).toHaveLength(1)

  // The answer is lost on its way back: the row is there, and asking again makes no second.
  await toWords('KEL-104')
  await phone.type('In one line', 'Answer was lost')
  await phone.type('In more words', 'The one by the door.')
  await phone.press('Next')
  await phone.driver.executeScript(`const real = window.fetch; let times = 0
    window.fetch = async (...asked) => { const reply = await real(...asked)
      if (String(asked[0]).endsWith('/requests') && times++ < 4) throw new TypeError('lost'); return reply }`)
  await phone.press('Send')
  await phone.reads('We have it')
  expect(await house.rows("SELECT id FROM request WHERE summary = 'Answer was lost'")).toHaveLength(1)

  // Closed while waiting: it goes out when the page is opened again.
  await toWords('KEL-104')
  await phone.type('In one line', 'Closed while waiting')
  await phone.type('In more words', 'The one by the door.')
  await phone.press('Next')
  await phone.driver.executeScript("window.fetch = () => Promise.reject(new TypeError('no line'))")
  await phone.press('Send')
  await phone.reads('What you wrote is kept on this device')
  await phone.go('/c/SKE')
  await phone.reads('We have it')
  expect(await house.rows("SELECT id FROM request WHERE summary = 'Closed while waiting'")).toHaveLength(1)
})

test('a known caller about a known place takes at most twelve keys besides the words, and no mouse', async () => {
  await desk.go('/desk/planning')
  await desk.find(By.css('ol .row'))
  let strokes = 0
  const oneOffered = () =>
    desk.until(
      'one caller',
      async () =>
        (await desk.driver.executeScript("return [...document.querySelectorAll('.n-base-select-option')].filter((one) => one.offsetParent).length")) === 1,
    )
  const key = async (...keys: string[]) => {
    strokes += keys.length
    await desk.keys(...keys)
  }
  const focused = (id: string) => desk.until(id, async () => (await (await desk.focused()).getAttribute('id')) === id)
  await key('n')
  await focused('call-person')
  await desk.keys('clio corrigan')
  await oneOffered()
  await key(Key.ENTER)
  // Place, phone and payer came along: the keyboard is where the words go.
  await focused('call-summary')
  await desk.reads('Last jobs')
  await desk.keys('Hood is loud')
  await key(Key.TAB)
  await focused('call-description')
  await desk.keys('The second from the window, since noon. Heard it.')
  strokes += 2
  await desk.driver.actions().keyDown(Key.CONTROL).sendKeys(Key.ENTER).keyUp(Key.CONTROL).perform()
  await desk.reads('is in Intake.')
  expect(strokes).toBeLessThanOrEqual(12)
  await focused('call-person')
  const [saved] = await house.rows<{ reporter_name: string; place_id: number; payer_id: number | null; channel: string }>(
    "SELECT reporter_name, place_id, payer_id, channel FROM request WHERE summary = 'Hood is loud'",
  )
  expect(saved).toMatchObject({ reporter_name: 'Clio Corrigan', place_id: await place('TID-003'), channel: 'call' })
  expect(saved!.payer_id).not.toBeNull()

  // The next caller, about the same: one key joins it, and a second way of saving opens triage.
  await desk.keys('clio corrigan')
  await oneOffered()
  await desk.keys(Key.ENTER)
  await focused('call-summary')
  await desk.keys('Hood loud')
  await desk.reads('Alt 1')
  await desk.driver.actions().keyDown(Key.ALT).sendKeys('1').keyUp(Key.ALT).perform()
  await desk.reads('It joins')
  await desk.keys(Key.TAB, 'Somebody else called about it.')
  await desk.driver.actions().keyDown(Key.CONTROL).keyDown(Key.SHIFT).sendKeys(Key.ENTER).keyUp(Key.SHIFT).keyUp(Key.CONTROL).perform()
  await desk.reads('is joined to')
  await desk.until('its sheet', async () => /request\/\d+/.test(await desk.driver.getCurrentUrl()))
})

test('an unknown caller is entered in two fields; the next calls start as this one stood', async () => {
  await desk.go('/desk/planning')
  await desk.find(By.css('ol .row'))
  await desk.keys('n')
  await desk.type('Name, if not found', 'Ottoline Farrow')
  await desk.type('Phone', '555 0187')
  await desk.pick('Where', 'KEL-104')
  await desk.type('In one line', 'Door closes too hard')
  await desk.press('More:')
  await desk.choose('How it came', 'At the desk')
  await desk.press('Start every call with')
  await desk.reads('Your calls start like this from now on.')
  await desk.type('Which one exactly', 'The one to the corridor, since Monday, she saw it.')
  await desk.press('Save for the next call')
  await desk.reads('is in Intake.')
  const [row] = await house.rows("SELECT reporter_name, reporter_phone, reporter_id, channel FROM request WHERE summary = 'Door closes too hard'")
  expect(row).toEqual({ reporter_name: 'Ottoline Farrow', reporter_phone: '555 0187', reporter_id: null, channel: 'visit' })

  // Opened anew, the place and the way it came stand there already.
  await desk.load('/desk/planning')
  await desk.find(By.css('ol .row'))
  await desk.keys('n')
  await desk.until('the place', async () => (await (await desk.find(By.css('[role="dialog"]'))).getText()).includes('KEL-104'))
  await desk.press('More:')
  expect(await (await desk.find(By.css('input[type=radio][name="call-channel"]:checked'))).getAttribute('value')).toBe('visit')
  await desk.keys(Key.ESCAPE)
})

test('a mail through the stand-in becomes a request; the desk answers, the reporter replies, and it joins the conversation', async () => {
  const tester = await Person.at(house.mailUrl!)
  await tester.go('/write')
  await tester.type('From', 'ulla@reporter.example')
  await tester.type('To', 'desk-ske@skerry.example')
  await tester.type('Subject', 'Gate squeals at night')
  await tester.type('Text', 'The quay gate, every night since Friday.')
  await tester.press('Send by SMTP')
  await desk.go('/desk/intake')
  await desk.press('', "//ol[contains(., 'Gate squeals')]//li[contains(., 'Gate squeals')]")
  await desk.reads('Mail,')
  await desk.press('Message to the reporter')
  await desk.type('Mailed to ulla@reporter.example', 'Which of the two gates is it?')
  await desk.press('Send to the reporter')
  await desk.reads('Which of the two gates is it?')
  const mail = await house.mail('ulla@reporter.example', (one) => one.text.includes('Which of the two gates'))
  expect(mail.subject).toContain('Gate squeals at night')
  await tester.go('/?to=ulla%40reporter.example')
  await tester.press('Answer')
  await tester.type('Text', 'The inner one.')
  await tester.press('Send by SMTP')
  await desk.reads('The inner one.')
  expect(await house.rows("SELECT id FROM request WHERE reporter_email = 'ulla@reporter.example'")).toHaveLength(1)
  await tester.quit()
})

test('note and message cannot be confused: switching with words typed asks once', async () => {
  await desk.press('Note for the desk')
  await desk.type('Only the desk reads this', 'Not for the reporter')
  await desk.press('Message to the reporter')
  await desk.reads('Leave it as it is')
  expect((await house.rows("SELECT id FROM comment WHERE text = 'Not for the reporter'")).length).toBe(0)
})

test('the administrator writes a notice, changes a category and sees its form, and takes people from a table', async () => {
  const admin = await (await Person.at(server.url)).signIn('wendeline.stroud')
  await admin.go('/help-pages')
  await admin.press('Write a notice')
  await admin.type('Title', 'Slipway closed for painting')
  await admin.pick('Places it covers', 'SLI')
  const body = await admin.find(By.id('notice-body'))
  await body.click()
  await body.sendKeys('Use the ramp.')
  await admin.press('Save')
  await admin.reads('Closed: Slipway closed for painting')
  expect(await house.rows("SELECT body FROM bulletin WHERE title = 'Slipway closed for painting'")).toEqual([{ body: '<p>Use the ramp.</p>' }])

  // A help article with a picture, put where it belongs by hand.
  const picture = path.join(folder, 'valve.png')
  writeFileSync(
    picture,
    await sharp({ create: { width: 120, height: 80, channels: 3, background: '#446' } })
      .png()
      .toBuffer(),
  )
  await admin.go('/help-pages')
  await admin.press('A freezer alarm sounds')
  await (await admin.find(By.css('.picture input[type=file]'))).sendKeys(picture)
  await admin.find(By.css('.rich img[alt="valve.png"]'))
  await admin.press('Save')
  await admin.reads('The article is saved.')
  const [article] = await house.rows<{ body: string }>("SELECT body FROM article WHERE title LIKE 'A freezer alarm sounds%'")
  expect(article!.body).toMatch(/<img [^>]*src="\/api\/[^"]+"/)

  await admin.go('/setup/intake')
  await admin.press('Furniture and fittings')
  await admin.press('Add a question')
  await admin.type('Question', 'Is it screwed to the wall?')
  await admin.choose('Answered by', 'Yes or no')
  await admin.reads('As a reporter sees it')
  await admin.press('Save', "//form[contains(@class, 'category')]")
  await admin.reads('Furniture and fittings is saved.')
  await phone.driver.executeScript('localStorage.clear()')
  await phone.go('/c/SKE?place=KEL-104')
  await phone.press('Next')
  await phone.press('Furniture and fittings')
  await phone.reads('Is it screwed to the wall?')

  const file = path.join(folder, 'people.csv')
  writeFileSync(file, 'Wer,E-mail\r\nTove Strand,tove.strand@skerry.example\r\nNobody,\r\n')
  await admin.go('/setup/tables')
  await admin.upload('File', file)
  await admin.reads('No column is Name.')
  await admin.choose('What “Wer” is', 'Name')
  await admin.reads('Mail address is missing.')
  await admin.press('Take the 1 good row alone')
  await admin.reads('Done')
  expect(await house.rows("SELECT name FROM person WHERE email = 'tove.strand@skerry.example'")).toEqual([{ name: 'Tove Strand' }])
  await admin.quit()
})

test('everything sent from an address, and “not fixed”, on the phone', async () => {
  await phone.go('/c/SKE/mine')
  await phone.type('Your mail address', 'ulla@reporter.example')
  await phone.press('Mail me the link')
  const mail = await house.mail('ulla@reporter.example', (one) => one.subject.startsWith('What you have sent'))
  await phone.go(/http\S+\/mine\/[\w-]{43}/.exec(mail.text)![0])
  await phone.reads('Gate squeals at night')
  expect(await phone.overflow()).toBeLessThanOrEqual(0)
})
